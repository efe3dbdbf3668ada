import type { ClassRecords } from '../../contract/records.ts';

/** How each child stands, for what is said of the class. */
export function knownChildren(records: ClassRecords) {
  return records.children.map((childId, child) => ({
    childId,
    mastery: records.elements.filter((one) => one.child === child),
  }));
}
