/** Signs that mean something else in ABC, written as entities (ABC 2.1, 8.2) where they stand in words. */
const SPECIAL = /[&"%\\[\]|:]/g;

/** Words as they can stand in an annotation or a field. @example abcWords('A & B') // "A &#38; B" */
export function abcWords(text: string): string {
  return text.replace(SPECIAL, (sign) => `&#${sign.charCodeAt(0)};`);
}

const NAMED: Readonly<Record<string, string>> = { amp: '&', quot: '"', lt: '<', gt: '>', apos: "'", nbsp: ' ' };

/** Entities as the signs they stand for. */
export function plainWords(text: string): string {
  return text.replace(/&(?:#(\d{1,7})|(\w{2,5}));/g, (all, code: string | undefined, name: string | undefined) => {
    if (name !== undefined) return NAMED[name] ?? all;
    const point = Number(code);
    return point > 0x10ffff ? all : String.fromCodePoint(point);
  });
}
