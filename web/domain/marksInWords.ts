import { type Scale, markLabel } from '../../core/judging/scale.ts';
import type { Clash } from '../api/client.ts';

type BothOf = Clash & { readonly mine: object };

/** Where two versions stand side by side, marks are shown as the class gives them. @param isMark  parts that are one */
export function marksInWords(clash: BothOf, scale: Scale, isMark: (part: string) => boolean): BothOf {
  const said = (parts: object) =>
    Object.fromEntries(
      Object.entries(parts).map(([part, value]) => [
        part,
        typeof value === 'number' && isMark(part) ? markLabel(value, scale) : (value as unknown),
      ]),
    );
  return { ...clash, mine: said(clash.mine), theirs: said(clash.theirs) };
}
