import { t } from '../words/say.ts';
import { lettersOf } from './characters.ts';
import { BadFile } from './piece.ts';
import { unzip, zip } from './zip.ts';

const CONTAINER = 'META-INF/container.xml';
const SCORE = 'score.musicxml';
const MEDIA_TYPE = 'application/vnd.recordare.musicxml+xml';

/** The score inside a compressed MusicXML file (MusicXML 4.0, "Compressed .mxl files"). Throws `BadFile`. */
export function scoreOfMxl(bytes: Uint8Array): Uint8Array {
  const files = unzip(bytes, (name) => /\.(musicxml|xml)$/i.test(name));
  const container = files.find(({ name }) => name === CONTAINER);
  const named =
    container && /<rootfile\b[^>]*\bfull-path\s*=\s*(["'])(.*?)\1/.exec(lettersOf(container.bytes).text)?.[2];
  const score =
    files.find(({ name }) => name === named) ??
    files.find(({ name }) => !name.startsWith('META-INF/') && !name.startsWith('__MACOSX/'));
  if (!score) throw new BadFile(t`there is no score in the compressed file`);
  return score.bytes;
}

/** A score as compressed MusicXML. */
export function mxlOf(xml: string): Uint8Array {
  const container = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<container><rootfiles><rootfile full-path="${SCORE}" media-type="${MEDIA_TYPE}"/></rootfiles></container>`,
    '',
  ].join('\n');
  return zip([
    { name: CONTAINER, bytes: container },
    { name: SCORE, bytes: xml },
  ]);
}
