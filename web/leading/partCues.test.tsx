import { renderToStaticMarkup } from 'react-dom/server';
import { expect, it } from 'vitest';
import type { PartMoment } from '../../core/leading/moment.ts';
import { loadSpeech } from '../../core/words/catalogues.ts';
import { keepSpeech } from '../../core/words/say.ts';
import { PartCues } from './PartCues.tsx';

const moment = (mouth: string, hands?: PartMoment['hands'], goes = true): PartMoment => ({ mouth, hands, goes });

function shown(parts: readonly PartMoment[], { leadIn, turn = 0 }: { leadIn?: string; turn?: number } = {}): string[] {
  const names = ['clap', 'stamp', 'snap'].slice(0, parts.length);
  const markup = renderToStaticMarkup(<PartCues {...{ names, parts, turn }} leadIn={leadIn} aloud />);
  return [...markup.matchAll(/class="cue-box ([^"]*)" data-part="(\w+)".*?class="cue-text[^>]*>([^<]*)</g)].map(
    ([, classes, name, text]) => `${name}: ${text} ${classes!.replace('part-cue', '').trim()}`.trim(),
  );
}

it('each group has its own part at its own place, and sees when it strikes and when it waits', () => {
  expect(shown([moment('1', 'clap'), moment('', 'open')])).toEqual(['clap: 1 part-strikes', 'stamp:']);
  expect(shown([moment('1', 'clap'), moment('', undefined, false)])).toEqual([
    'clap: 1 part-strikes',
    'stamp: wait part-waits',
  ]);
});

it('all see the count-in, also who waits then', () => {
  const parts = [moment('', 'clap'), moment('', undefined, false)];
  expect(shown(parts, { leadIn: 'ready' })).toEqual(['clap: ready', 'stamp: ready']);
});

it('changed over each has the next part, and after so many its own again', () => {
  const parts = [moment('1'), moment('2'), moment('3')];
  expect(shown(parts, { turn: 1 })).toEqual(['stamp: 2', 'snap: 3', 'clap: 1']);
  expect(shown(parts, { turn: 3 })).toEqual(['clap: 1', 'stamp: 2', 'snap: 3']);
});

it('a group of a class that learns in another language is told so in it', async () => {
  keepSpeech((await loadSpeech('de', 'web'))!);
  const parts = [moment('1', 'clap'), moment('', undefined, false)];
  const cues = { names: ['clap', 'stamp'], parts, turn: 0, leadIn: undefined, aloud: true };
  expect(renderToStaticMarkup(<PartCues {...cues} language="de" />)).toContain('warten');
  expect(renderToStaticMarkup(<PartCues {...cues} />)).toContain('wait');
});
