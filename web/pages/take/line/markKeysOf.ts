import { type Scale, markKeys } from '../../../../core/judging/scale.ts';

/** What else has a key where a turn is marked, but for "again", which gives way to an A. */
const TAKEN = ['x', 's', 'l', 'h', 'r'];

/** A key for each mark by hand in a line-up. */
export const markKeysOf = (scale: Scale) => markKeys(scale, TAKEN);

/** The key of "again": R where A is a mark. */
export const againKeyOf = (scale: Scale): 'a' | 'r' => (markKeysOf(scale).some(({ key }) => key === 'a') ? 'r' : 'a');
