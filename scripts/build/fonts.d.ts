declare module 'subset-font' {
  export default function subsetFont(font: Buffer, text: string, options: { targetFormat: 'sfnt' }): Promise<Buffer>;
}

declare module 'fontverter' {
  export function convert(font: Buffer, to: 'woff2'): Promise<Buffer>;
}
