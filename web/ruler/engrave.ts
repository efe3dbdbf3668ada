import { Renderer, VexFlow } from 'vexflow/core';
import { type Engraving, engraveOn } from '../../drawing/engraving/engrave.ts';
import { MUSIC_FONT } from '../../drawing/engraving/fontNames.ts';
import { NOTES_HEIGHTS } from '../../drawing/heights.ts';
import type { RulerSize, RulerSystem } from '../../drawing/system.ts';
import fontUrl from '../styles/fonts/harbour.woff2?url';

let ready: Promise<void> | undefined;

/** Loads the music font once. */
export function engravingReady(): Promise<void> {
  ready ??= loadFont().catch((error: unknown) => {
    // Asked for once more, it is loaded once more.
    ready = undefined;
    throw error;
  });
  return ready;
}

async function loadFont(): Promise<void> {
  const font = new FontFace(MUSIC_FONT, `url(${fontUrl})`);
  document.fonts.add(await font.load());
  VexFlow.setFonts(MUSIC_FONT);
}

/** Draws the notes of one line into an empty element. */
export function engrave(element: HTMLElement, system: RulerSystem, size: RulerSize, more: Engraving): void {
  const renderer = new Renderer(element as HTMLDivElement, Renderer.Backends.SVG);
  renderer.resize(system.width, NOTES_HEIGHTS[size]);
  engraveOn(renderer.getContext(), system, size, more);
}
