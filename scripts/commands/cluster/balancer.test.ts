import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { binary } from '../mariadb.ts';
import { balancerConfig } from './balancer.ts';

const EXAMPLE = 'deploy/haproxy.cfg';
const CERTIFICATE = '/etc/haproxy/school.pem';

describe('what the balancer is told', () => {
  it('is what ships as an example, which starts with what it is for', () => {
    const machine = (name: string, i: number, port: number) => ({ name, host: `10.0.0.${i}`, port });
    const made = balancerConfig(
      { app: 8080, database: 3307 },
      [1, 2, 3].map((i) => machine(`node${i}`, 10 + i, 3306)),
      'balancer',
      [1, 2].map((i) => machine(`app${i}`, 20 + i, 4180)),
      CERTIFICATE,
    );
    const [head, ...rest] = readFileSync(EXAMPLE, 'utf8').split('\nglobal\n');
    expect(head!.split('\n').every((line) => line.startsWith('#') || line === '')).toBe(true);
    expect(`global\n${rest.join('')}`).toBe(made);
  });

  it('is understood by haproxy', () => {
    // Here is no certificate to read.
    const open = readFileSync(EXAMPLE, 'utf8').replace(` ssl crt ${CERTIFICATE} alpn h2,http/1.1`, '');
    const file = join(mkdtempSync(join(tmpdir(), 'clapboard-haproxy-')), 'haproxy.cfg');
    writeFileSync(file, open);
    execFileSync(binary('haproxy'), ['-c', '-f', file], { stdio: 'pipe' });
  });
});
