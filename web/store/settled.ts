type Parts = Readonly<Record<string, unknown>>;

/** What is left out is the same as nothing. */
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * Of something that two have changed: what each of them alone has changed stays, and of what both have changed the
 * part that is chosen.
 * @param base  what both began with; undefined where that is not known, then all of mine was changed
 * @param theirsStays  parts of which theirs is chosen
 */
export function settled(base: Parts | undefined, theirs: Parts, mine: Parts, theirsStays: ReadonlySet<string>): Parts {
  const all = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
  return Object.fromEntries(
    [...all].flatMap((part) => {
      const changed = base === undefined || !same(mine[part], base[part]);
      const value = changed && !theirsStays.has(part) ? mine[part] : theirs[part];
      return value === undefined ? [] : [[part, value]];
    }),
  );
}

/** Whether two have the same in every part. */
export const allSame = (a: Parts, b: Parts): boolean =>
  Object.keys({ ...a, ...b }).every((part) => same(a[part], b[part]));

/** A column from paper has its marks as parts of their own, child by child. */
export const flat = ({ points, ...rest }: Parts): Parts => ({ ...rest, ...(points as Parts | undefined) });

/** And is put together again. @param like  tells whether it is one */
export function unflat(parts: Parts, like: Parts): Parts {
  if (like['points'] === undefined) return parts;
  const { title, outOf, takenAt, scale, ...points } = parts;
  return { title, outOf, takenAt, ...(scale === undefined ? {} : { scale }), points };
}
