import { unzlibSync } from 'fflate';

const SIGNATURE = 0x774f4646;
/** Bytes of the heads (the WOFF and OpenType specifications). */
const WOFF_HEAD = 44;
const WOFF_ENTRY = 20;
const FONT_HEAD = 12;
const FONT_ENTRY = 16;

const padded = (length: number) => (length + 3) & ~3;

/**
 * A WOFF file as the OpenType file that is packed in it: readers of fonts unpack a packed table again for every
 * letter. Other bytes are given back as they are.
 */
export function unpacked(bytes: Uint8Array): Uint8Array {
  const from = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < WOFF_HEAD || from.getUint32(0) !== SIGNATURE) return bytes;
  const count = from.getUint16(12);
  const entries = Array.from({ length: count }, (_, i) => {
    const [tag, at, packed, length, checksum] = [0, 4, 8, 12, 16].map((off) =>
      from.getUint32(WOFF_HEAD + i * WOFF_ENTRY + off),
    );
    return { tag: tag!, at: at!, packed: packed!, length: length!, checksum: checksum! };
  });
  const size = entries.reduce((all, { length }) => all + padded(length), FONT_HEAD + count * FONT_ENTRY);
  const font = new Uint8Array(size);
  const to = new DataView(font.buffer);
  to.setUint32(0, from.getUint32(4));
  const power = 2 ** Math.floor(Math.log2(count));
  [count, power * 16, Math.log2(power), (count - power) * 16].forEach((value, i) => to.setUint16(4 + i * 2, value));
  let place = FONT_HEAD + count * FONT_ENTRY;
  entries.forEach(({ tag, at, packed, length, checksum }, i) => {
    [tag, checksum, place, length].forEach((value, k) => to.setUint32(FONT_HEAD + i * FONT_ENTRY + k * 4, value));
    const table = bytes.subarray(at, at + packed);
    font.set(packed < length ? unzlibSync(table) : table, place);
    place += padded(length);
  });
  return font;
}
