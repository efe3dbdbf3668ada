import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { countPattern } from '../../core/counting/count.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { scoreOfText } from '../../core/rhythm/arbitraryScore.test-helper.ts';
import { NOTES_HEIGHTS, STRIPS_HEIGHTS } from '../../drawing/heights.ts';
import { layoutRuler } from '../../drawing/layout.ts';
import { PartFigure } from './PartFigure.tsx';
import { PartLanes } from './PartLanes.tsx';
import type { OnPick } from './SystemLanes.tsx';

const size = 'desk';

function drawn(text: string, more: { oneLine?: boolean; resting?: number[]; onPick?: OnPick; strips?: boolean } = {}) {
  const { parts } = scoreOfText(text);
  const placed = parts.map(({ pattern }) => placePattern(pattern));
  const { systems, scale } = layoutRuler(parts[0]!.pattern, 1600, size, [], undefined, [{ placed: placed[1]! }]);
  const groups = parts.map(({ name, pattern }, i) => {
    const counted = countPattern(pattern, { school: 'numbers' });
    const lanes = counted.ok ? [{ name: 'Numbers', measures: counted.measures }] : [];
    return { name, pattern, placed: placed[i]!, spoken: lanes, lanes };
  });
  const shown = { size, handSigns: false, notes: true, strips: more.strips ?? true, beats: true, feet: true } as const;
  return renderToStaticMarkup(
    <PartLanes
      system={systems[0]!}
      scale={scale}
      shown={{ ...shown, onPick: more.onPick, pickName: 'Explain' }}
      groups={groups}
      oneLine={more.oneLine === true}
      resting={more.resting ?? []}
    />,
  );
}
const TWO = '4/4 [clap] q q h [group B] (q) q e e q';
const times = (markup: string, what: RegExp) => [...markup.matchAll(what)].length;

describe('parts on one ruler', () => {
  it('each has its name, its notes, its strips and its words, and the beats go through all once', () => {
    const markup = drawn(TWO);
    expect(times(markup, /class="lane-notes"/g)).toBe(2);
    // One more of the second: the paper of its figure.
    const papers = [...markup.matchAll(/class="strip strip-\w+ strip-of-(\d)"/g)].map(([, part]) => part);
    expect(papers.join('')).toBe('000111111');
    expect(times(markup, /class="beat-lines"/g)).toBe(1);
    expect(times(markup, /token-step/g)).toBeGreaterThan(0);
    expect(times(markup, /<span class="lane-name"[^>]*>Steps/g)).toBe(1);
    expect([...markup.matchAll(/data-part="([^"]*)"/g)].map(([, name]) => name)).toEqual(['clap', 'group B']);
    expect(times(markup, /class="part-name"/g)).toBe(2);
  });

  it('what stands at the same time stands in one place in all of them', () => {
    const xs = [...drawn(TWO).matchAll(/<text[^>]* x="([\d.]+)"[^>]*>(\d)</g)].map(([, x, word]) => [word, Number(x)]);
    const at = (word: string) => new Set(xs.filter(([own]) => own === word).map(([, x]) => x));
    expect(at('2').size).toBe(1);
    expect(xs.filter(([word]) => word === '2').length).toBeGreaterThan(1);
  });

  it('two may have one line of notes; then each is named beside its strips', () => {
    const markup = drawn(TWO, { oneLine: true });
    expect(times(markup, /class="lane-notes"/g)).toBe(1);
    expect(times(markup, /class="lane-strips"/g)).toBe(2);
    expect(times(markup, /class="part-name"/g)).toBe(2);
    expect(times(drawn(TWO, { oneLine: true, strips: false }), /class="part-name"/g)).toBe(2);
  });

  it('one that waits is soft', () => {
    const markup = drawn(TWO, { resting: [1] });
    expect([...markup.matchAll(/class="part-lanes ?(\S*)"/g)].map(([, soft]) => soft)).toEqual(['', 'part-resting']);
  });

  it('notes to press are named with their part', () => {
    const markup = drawn(TWO, { onPick: () => undefined });
    expect(times(markup, /aria-label="Explain clap, measure 1, sign/g)).toBe(3);
    expect(times(markup, /aria-label="Explain group B, measure 1, sign/g)).toBe(5);
    expect(times(drawn(TWO), /aria-label="Explain/g)).toBe(0);
  });

  it('its lanes are as high as the bar lines go down', () => {
    const { notes, strips } = { notes: NOTES_HEIGHTS[size], strips: STRIPS_HEIGHTS[size] };
    const heights = [...drawn(TWO).matchAll(/class="lane-(?:notes|strips)"[^>]*height(?:="|:)(\d+)/g)];
    expect(heights.map(([, height]) => Number(height))).toEqual([notes, strips, notes, strips]);
  });
});

describe('the figure of a part', () => {
  it('is that of its sound, or the paper of its strips', () => {
    const figures = ['clap', 'Stamp', 'pat', 'snap', 'left', 'right'].map((name) =>
      renderToStaticMarkup(<PartFigure name={name} index={0} />),
    );
    expect(new Set(figures).size).toBe(6);
    for (const one of figures) expect(one).toContain('<path');
    expect(renderToStaticMarkup(<PartFigure name="gulls" index={2} />)).toContain('strip-of-2');
  });
});
