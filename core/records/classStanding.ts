import { ELEMENT_IDS, type ElementId } from '../rhythm/elements.ts';
import type { KnownElement, MasteryState } from './mastery.ts';

/** A child's mastery, in a class. */
export interface KnownChild {
  readonly childId: string;
  readonly mastery: readonly KnownElement[];
}

/** How a class stands with one element. */
export interface ClassElement {
  readonly element: ElementId;
  /** How many children were heard in it. */
  readonly heard: number;
  /** Of them how many are, or were, firm. */
  readonly firm: number;
  readonly states: Readonly<Record<MasteryState, number>>;
  /** Half of the class has been heard in it. */
  readonly met: boolean;
  /** Three quarters of those heard in it are firm. */
  readonly has: boolean;
}

/** A class has an element when so many of its children are firm (rules §9). */
export const HAS_PART = 3 / 4;
const MET_PART = 1 / 2;

/**
 * How a class stands with each element anybody was heard in, in their usual order.
 * @param children  all of the class, also those never heard
 */
export function classStanding(children: readonly KnownChild[]): ClassElement[] {
  return ELEMENT_IDS.flatMap((element): ClassElement[] => {
    const states = { new: 0, growing: 0, shaky: 0, firm: 0, due: 0 };
    for (const { mastery } of children) {
      const known = mastery.find((one) => one.element === element);
      if (known) states[known.state]++;
    }
    const heard = Object.values(states).reduce((a, b) => a + b);
    if (heard === 0) return [];
    const firm = states.firm + states.due;
    return [{ element, heard, firm, states, met: heard >= children.length * MET_PART, has: firm >= heard * HAS_PART }];
  });
}

export type NeedKind = 'shaky' | 'due' | 'growing';

/** Children who need the same: all who are unsure in it, have not shown it for long, or are not firm in it yet. */
export interface Need {
  readonly kind: NeedKind;
  readonly element: ElementId;
  readonly children: readonly string[];
}

const URGENT: readonly NeedKind[] = ['shaky', 'due', 'growing'];

/** What the children of a class need, each with all who need it; what is most urgent first, then where most need it. */
export function needsOf(children: readonly KnownChild[]): Need[] {
  return URGENT.flatMap((kind) =>
    ELEMENT_IDS.flatMap((element): Need[] => {
      const those = children.filter(({ mastery }) =>
        mastery.some((one) => one.element === element && one.state === kind),
      );
      return those.length > 0 ? [{ kind, element, children: those.map(({ childId }) => childId) }] : [];
    }).sort((a, b) => b.children.length - a.children.length),
  );
}

/** So many are practised at once, or nothing is. */
const AT_ONCE = 3;

/** The elements that are needed most, each once. */
export function hardElements(needs: readonly Need[]): ElementId[] {
  return [...new Set(needs.map(({ element }) => element))].slice(0, AT_ONCE);
}
