import { t } from '../../core/words/say.ts';
import type { BlockEdit } from '../../contract/lesson.ts';
import { ELEMENT_IDS, elementsOf } from '../../core/rhythm/elements.ts';
import { BLOCK_WORDS } from '../../core/wording/planWords.ts';
import { blockIn } from './blocks.ts';
import { type AtDevices, ownDevicesPath } from '../domain/OwnDevices.tsx';
import { lessonPath } from './lessonPath.ts';

/** Where a lesson goes: one view, set up. A block with several patterns has one for each. */
export interface Stop {
  /** The index of its block. */
  readonly block: number;
  readonly title: string;
  /** "2 of 3" where the block has several. */
  readonly part: string | undefined;
  readonly to: string;
  /** What the view is told beside its address. */
  readonly state?: unknown;
  /** The same on children's own devices, where it can be done there. */
  readonly devices?: string;
}

const AT_DEVICES: Partial<Record<BlockEdit['kind'], AtDevices>> = {
  'warm-up': 'echo',
  know: 'values',
  lead: 'take',
  ear: 'choose',
  make: 'write',
  'line-up': 'take',
};

/** What the views of the ear are to be made of: what stands in the block. */
function material(block: BlockEdit): URLSearchParams {
  const { patterns } = blockIn(block);
  const found = new Set(patterns.flatMap((pattern) => [...elementsOf(pattern).keys()]));
  for (const { element } of block.steps) found.add(element);
  const elements = ELEMENT_IDS.filter((id) => found.has(id));
  const meter = patterns[0]?.measures[0]?.meter;
  return new URLSearchParams({
    ...(elements.length > 0 ? { elements: elements.join(',') } : {}),
    ...(meter ? { meter: `${meter.upper}/${meter.lower}` } : {}),
  });
}

const withSearch = (path: string, search: URLSearchParams) => (search.size > 0 ? `${path}?${search.toString()}` : path);

/** The views of one block, each with its address. */
function viewsOf(block: BlockEdit, classId: string, lesson: string): Pick<Stop, 'to' | 'state'>[] {
  const ids = block.patterns.map(({ patternId }) => patternId);
  switch (block.kind) {
    case 'warm-up':
      return [{ to: withSearch('/ear/echo', material(block)) }];
    case 'know':
      return [{ to: '/values/questions' }];
    case 'read':
      return ids.length === 0 ? [{ to: '/patterns' }] : ids.map((id) => ({ to: `/board/${id}` }));
    case 'lead': {
      const state = (id: string) => ({ stop: `${block.key} ${id}`, ...(block.plan ? { plan: block.plan } : {}) });
      if (ids.length === 0) return [{ to: '/lead', state: state('') }];
      return ids.map((id) => ({ to: `/lead?pattern=${id}`, state: state(id) }));
    }
    case 'ear':
      return [{ to: withSearch('/ear/choose', material(block)) }];
    case 'make':
      return ids.length === 0
        ? [{ to: '/values/strips' }]
        : ids.map((id) => {
            const search = material(block);
            search.set('pattern', id);
            return { to: withSearch('/ear/write', search) };
          });
    case 'line-up': {
      const { bpm, tries } = block.lineUp ?? {};
      const search = new URLSearchParams({
        class: classId,
        ...(ids.length > 0 ? { patterns: ids.join(',') } : {}),
        ...(bpm === undefined ? {} : { bpm: String(bpm), tries: String(tries) }),
      });
      return [{ to: withSearch('/take/line-up', search) }];
    }
    case 'close':
      return [{ to: lesson }];
  }
}

/** All of a lesson, from view to view. */
export function stopsOf(blocks: readonly BlockEdit[], classId: string, lessonId: string): Stop[] {
  return blocks.flatMap((block, index) => {
    const views = viewsOf(block, classId, lessonPath(classId, lessonId));
    const doing = AT_DEVICES[block.kind];
    return views.map((view, i) => {
      const pattern = (block.patterns[i] ?? block.patterns[0])?.patternId;
      return {
        block: index,
        title: BLOCK_WORDS()[block.kind].title,
        part: views.length > 1 ? t`${i + 1} of ${views.length}` : undefined,
        ...view,
        ...(doing ? { devices: ownDevicesPath(classId, { doing, pattern, bpm: block.lineUp?.bpm }) } : {}),
      };
    });
  });
}
