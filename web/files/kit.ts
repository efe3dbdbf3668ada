import type { DrawingKit } from '../../drawing/drawnFormats.ts';

async function bytesAt(url: string): Promise<Uint8Array> {
  return new Uint8Array(await (await fetch(url)).arrayBuffer());
}

/** What drawing needs, fetched from the app's own files when it is asked for. */
export const kit: DrawingKit = {
  fonts: async () => {
    const [{ loadFonts }, ...files] = await Promise.all([
      import('../../drawing/fonts.ts'),
      import('../styles/fonts/harbour.woff2?url'),
      import('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url'),
      import('@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url'),
    ]);
    const [music, letters, strong] = await Promise.all(files.map((file) => bytesAt(file.default)));
    return loadFonts(music!, letters!, strong!);
  },
  pdf: async () => (await import('pdfkit')).default,
};
