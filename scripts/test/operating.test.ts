import { existsSync, readFileSync } from 'node:fs';
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

  it('security adds up, and names files that are there', () => {
    const security = readFileSync('docs/security.md', 'utf8');
    const states = [...security.matchAll(/^\| \d[^|]*\| (met|partly|not met|not ours) \|/gm)].map(([, state]) => state);
    const kinds = ['met', 'partly', 'not met', 'not ours'];
    const sum = kinds.map(
      (kind, i) => `${states.filter((one) => one === kind).length}${i === 0 ? ' rows' : ''} ${kind}`,
    );
    expect(security).toContain(`In sum: ${sum.join(', ')}.`);
    const named = found(security, /`((?:server|core|scripts|contract|deploy)\/[\w/.-]*)`/g);
    expect(named.length).toBeGreaterThan(10);
    for (const file of named) expect(existsSync(file)).toBe(true);
  });

  it('names commands and files that are there', () => {
    const scripts = Object.keys((JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: object }).scripts);
    for (const command of found(GUIDE, /npm run ([a-z-]+)/g)) expect(scripts).toContain(command);
    for (const file of found(GUIDE, /\]\(\.\.\/([^)]+)\)/g)) expect(() => readFileSync(file)).not.toThrow();
  });
});
