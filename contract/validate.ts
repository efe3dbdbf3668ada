import { t } from '../core/words/say.ts';
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import type { Static, TSchema } from '@sinclair/typebox';

const ajv = new Ajv({ allErrors: false, coerceTypes: false, strict: true });

export type Checked<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly message: string; readonly field: string };

/**
 * A check for data that crosses a boundary, compiled when it is first used: all of them at once would be half of what a
 * server needs to start.
 * @returns a function that gives the typed value, or one sentence and the field it is about ("tempo.bpm", "" for the
 * whole)
 */
export function validator<S extends TSchema>(schema: S): (data: unknown) => Checked<Static<S>> {
  let check: ValidateFunction<Static<S>> | undefined;
  return (data) => {
    check ??= ajv.compile<Static<S>>(schema);
    if (check(data)) return { ok: true, value: data };
    const error = check.errors![0]!;
    const field = fieldOf(error);
    return { ok: false, message: sentence(error, field), field };
  };
}

function fieldOf({ instancePath, keyword, params }: ErrorObject): string {
  const path = instancePath.split('/').slice(1).join('.');
  const missing =
    keyword === 'required'
      ? String(params['missingProperty'])
      : keyword === 'additionalProperties'
        ? String(params['additionalProperty'])
        : '';
  return [path, missing].filter(Boolean).join('.');
}

function sentence({ keyword, message, params }: ErrorObject, field: string): string {
  const what = field || t`the request`;
  switch (keyword) {
    case 'required':
      return t`${what} is missing`;
    case 'additionalProperties':
      return t`${what} is not known here`;
    case 'enum':
      return t`${what} must be one of: ${(params['allowedValues'] as unknown[]).join(', ')}`;
    default:
      return `${what} ${message ?? t`is not right`}`;
  }
}
