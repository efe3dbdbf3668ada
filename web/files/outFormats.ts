import { perLanguage } from '../../core/words/say.ts';
import { FORMATS, type Format } from '../../core/formats/formats.ts';
import { drawnFormats } from '../../drawing/drawnFormats.ts';
import { kit } from './kit.ts';

/** Everything that the worker writes patterns as. */
export const WRITTEN = perLanguage((): Readonly<Record<string, Format>> => ({ ...FORMATS(), ...drawnFormats(kit) }));
