import type { Picture } from '../../contract/roomPictures.ts';

/**
 * Each picture in a square of 24, drawn with one pen: nothing in them is told apart by colour. `d` is lines, `o` are
 * circles (x, y, radius).
 */
const DRAWN: Readonly<Record<Picture, { readonly d: string; readonly o?: readonly (readonly number[])[] }>> = {
  anchor: { d: 'M12 7v14M7 10h10M4 14c0 4 4 7 8 7s8-3 8-7M4 14l-2 2M20 14l2 2', o: [[12, 4.5, 2.5]] },
  gull: { d: 'M2 9c3-4 7-3 10 3 3-6 7-7 10-3M12 12l-2 5h4z' },
  lamp: { d: 'M8 8h8l1 9H7zM9 8c0-3 1-4 3-4s3 1 3 4M6 20h12M12 11v3M10 2h4' },
  rope: { d: 'M7 12c0-8 10-8 10 0s-10 8-10 0M10 12c0-4 4-4 4 0s-4 4-4 0M17 12c0 5 1 8 5 9' },
  boat: { d: 'M2 15h20l-3 6H5zM12 2v13M12 3l7 9h-7M12 5L6 12h6' },
  fish: { d: 'M2 12c4-6 11-6 15 0-4 6-11 6-15 0zM17 12l5-5v10zM10 9c1 2 1 4 0 6', o: [[6, 11, 0.8]] },
  crab: {
    d: 'M5 14c0-4 14-4 14 0s-14 5-14 0zM5 12L2 7M19 12l3-5M2 7l3-1M22 7l-3-1M7 18l-2 3M17 18l2 3M10 10V8M14 10V8',
  },
  bell: { d: 'M12 3c-4 0-6 3-6 7v4l-2 4h16l-2-4v-4c0-4-2-7-6-7zM10 18c0 3 4 3 4 0M12 1v2' },
  bucket: { d: 'M4 8h16l-2 13H6zM4 8c0-7 16-7 16 0M5 13h14' },
  net: { d: 'M4 4h12l-2 12-4 4-4-4zM4 4l9 13M16 4L7 17M8 4l7 8M12 4l-7 8M16 4l6-2' },
  oar: { d: 'M3 21l9-9M12 12c0-4 4-9 8-10 2 3-3 9-8 10zM15 9l4-4' },
  shell: { d: 'M12 21L3 10c2-9 16-9 18 0zM12 21V4M12 21L7 5M12 21l5-16' },
  flag: { d: 'M5 22V3M5 3h14l-4 5 4 5H5' },
  wave: { d: 'M2 9c3-5 6-5 8-1s4 4 7 0M2 15c3-5 6-5 8-1s4 4 7 0M2 21c3-5 6-5 8-1s4 4 7 0M17 8l4-2' },
  key: {
    d: 'M11 12h11M19 12v4M15 12v3',
    o: [
      [6.5, 12, 4.5],
      [6.5, 12, 1.2],
    ],
  },
  hat: { d: 'M2 17c6 3 14 3 20 0M6 17l1-10c3-2 7-2 10 0l1 10M6.5 13c4 2 7 2 11 0' },
  kite: { d: 'M12 2l7 8-7 7-7-7zM12 2v15M5 10h14M12 17c-3 2 3 3 0 5' },
  drum: { d: 'M3 8v8c0 4 18 4 18 0V8M3 8c0-4 18-4 18 0s-18 4-18 0M7 11v8M17 11v8M13 7l7-6' },
  ladder: { d: 'M7 2L5 22M17 2l2 20M7 6h10M6 11h12M6 16h12' },
  barrel: { d: 'M7 3h10c3 6 3 12 0 18H7C4 15 4 9 7 3zM5.5 8h13M5.5 16h13M12 3v18' },
  star: { d: 'M12 2l3 7 7 .5-5.5 4.5 2 7.5-6.5-4-6.5 4 2-7.5L2 9.5 9 9z' },
  moon: { d: 'M16 3C7 3 4 11 8 17s11 5 13 0c-7 2-11-7-5-14z' },
  cup: { d: 'M4 8h13v7c0 7-13 7-13 0zM17 10c6-1 6 6 0 6M7 5c0-2 2-1 2-3M12 5c0-2 2-1 2-3' },
  boot: { d: 'M7 2h7v10c6 1 8 3 8 7H7zM7 15h7M5 22h17M7 19v3' },
};

/** A picture; its word stands beside it, or is its name. */
export function PictureSign({ picture }: { readonly picture: Picture }) {
  const { d, o = [] } = DRAWN[picture];
  return (
    <svg className="picture-sign" viewBox="0 0 24 24" aria-hidden fill="none" stroke="currentColor" strokeWidth="1.6">
      <path d={d} strokeLinecap="round" strokeLinejoin="round" />
      {o.map(([cx, cy, r], i) => (
        <circle key={i} cx={cx} cy={cy} r={r} />
      ))}
    </svg>
  );
}
