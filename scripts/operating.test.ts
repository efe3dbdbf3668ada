import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const GUIDE = readFileSync('docs/operating.md', 'utf8');
const found = (text: string, pattern: RegExp) => [...new Set([...text.matchAll(pattern)].map(([, word]) => word!))];

describe('the guide for whoever runs it', () => {
  it('names every setting there is, and no other', () => {
    const config = ['config', 'password'].map((name) => readFileSync(`server/${name}.ts`, 'utf8')).join('\n');
    const settings = found(config, /(?:env\['|number\(')([A-Z_]+)'/g).sort();
    const [table] = /## Settings[^]*?\n\n\[/.exec(GUIDE)!;
    expect(found(table, /`([A-Z][A-Z_]+)`/g).sort()).toEqual(settings);
  });

  it('names every number of our own that can be watched', () => {
    const names = found(readFileSync('server/metrics.ts', 'utf8'), /'(clapboard_[a-z_]+[a-z])'/g);
    expect(names.length).toBeGreaterThan(5);
    for (const name of names) expect(GUIDE).toContain(`\`${name}\``);
  });

  it('names commands and files that are there', () => {
    const scripts = Object.keys((JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: object }).scripts);
    for (const command of found(GUIDE, /npm run ([a-z-]+)/g)) expect(scripts).toContain(command);
    for (const file of found(GUIDE, /\]\(\.\.\/([^)]+)\)/g)) expect(() => readFileSync(file)).not.toThrow();
  });
});
