import { type TSchema, Type } from '@sinclair/typebox';
import { Ajv } from 'ajv';
import standalone from 'ajv/dist/standalone/index.js';
import type { Plugin } from 'vite';
import { SavedPlan } from '../contract/plan.ts';
import { ClassDetail, ClassSummary } from '../contract/schoolClass.ts';
import { TakeDetail } from '../contract/take.ts';
import { ErrorBody } from '../contract/problem.ts';
import { SessionState } from '../contract/session.ts';
import { JudgingPreview } from '../contract/judging.ts';
import { SavedPattern } from '../contract/pattern.ts';
import { ChildMastery } from '../contract/mastery.ts';

/** What the browser checks when it arrives; the names are what `virtual:validators` exports. */
const ARRIVING: Readonly<Record<string, TSchema>> = {
  isSessionState: SessionState,
  isClassList: Type.Array(ClassSummary),
  isClassDetail: ClassDetail,
  isPatternList: Type.Array(SavedPattern),
  isPlanList: Type.Array(SavedPlan),
  isMastery: ChildMastery,
  isJudgingPreview: JudgingPreview,
  isTakeDetail: TakeDetail,
  isErrorBody: ErrorBody,
};

const NAME = 'virtual:validators';

/**
 * Compiles the contract's schemas to plain code when the pages are built: the content policy of the pages
 * forbids making code at run time, which is how Ajv works otherwise.
 */
export function validatorsPlugin(): Plugin {
  return {
    name: 'contract-validators',
    resolveId: (id) => (id === NAME ? `\0${NAME}` : undefined),
    load: (id) => {
      if (id !== `\0${NAME}`) return undefined;
      const schemas = Object.entries(ARRIVING).map(([name, schema]) => ({ ...schema, $id: name }));
      const ajv = new Ajv({ schemas, unicode: false, code: { source: true, esm: true } });
      const make = (standalone as unknown as { default?: typeof standalone }).default ?? standalone;
      return make(ajv, Object.fromEntries(Object.keys(ARRIVING).map((name) => [name, name])));
    },
  };
}
