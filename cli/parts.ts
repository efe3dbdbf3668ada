import { t } from '../core/words/say.ts';
import { PartsRequest } from '../contract/commandLine.ts';
import { validator } from '../contract/validate.ts';
import { namedAlone } from '../core/making/editParts.ts';
import {
  type Joined,
  SPLITS,
  type Split,
  canonOf,
  missingPart,
  passOn,
  splitPattern,
  withBeat,
  withOstinato,
  withPart,
} from '../core/making/partsOf.ts';
import type { Score } from '../core/rhythm/score.ts';
import { printScore } from '../core/rhythm/scoreText.ts';
import { partTroubleText } from '../core/wording/partTroubles.ts';
import { checked } from './checked.ts';
import { UserError, readPattern, readScore } from './readPattern.ts';

const partsRequest = validator(PartsRequest);

const NAMES = ['A', 'B', 'C', 'D'] as const;

const isSplit = (way: PartsRequest['way']): way is Split => (SPLITS as readonly string[]).includes(way);

function scoreOf(joined: Joined): Score {
  if (joined.ok) return joined.score;
  throw new UserError(partTroubleText(joined.trouble));
}

function made(request: PartsRequest): Score {
  const { way, text, names = NAMES, other, beats = 4, voices = 2 } = request;
  const [first = NAMES[0], second = NAMES[1]] = names;
  if (isSplit(way)) return splitPattern(readPattern(text), way, [first, second]);
  if (way === 'canon') return scoreOf(canonOf(readPattern(text), [...names, ...NAMES].slice(0, voices), beats));
  const score = namedAlone(readScore(text), first);
  if (way === 'pass-on') return passOn(score);
  if (way === 'beat') return scoreOf(withBeat(score, second));
  if (way === 'missing') return scoreOf(withPart(score, second, missingPart(readPattern(text))));
  if (other === undefined) throw new UserError(t`${way} takes a second rhythm: --text "4/4 h h"`);
  return scoreOf((way === 'join' ? withPart : withOstinato)(score, second, readPattern(other)));
}

/** A rhythm in parts, made of one or of two. */
export function parts(request: unknown): { text: string } {
  return { text: printScore(made(checked(partsRequest(request)))) };
}
