import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { networkInterfaces, tmpdir } from 'node:os';
import { X509Certificate } from 'node:crypto';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { joinAddresses } from './joinAddresses.ts';
import { madeCertificate, ownAddresses } from '../scripts/commands/madeCertificate.ts';
import { configFrom } from './config.ts';
import { startServer } from './start.ts';
import { PATIENT, freshDatabase } from './testDatabase.test-helper.ts';

const folder = mkdtempSync(join(tmpdir(), 'certificate-'));
const [certAt, keyAt, otherAt] = ['cert.pem', 'key.pem', 'other.pem'].map((name) => join(folder, name)) as [
  string,
  string,
  string,
];
const DAY_MS = 24 * 3600 * 1000;
let cert = '';

beforeAll(async () => {
  const made = await madeCertificate(['localhost', '127.0.0.1', 'quay.school']);
  cert = made.cert;
  writeFileSync(certAt, made.cert);
  writeFileSync(keyAt, made.key);
  writeFileSync(otherAt, (await madeCertificate(['localhost'])).key);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ENV = { DATABASE_URL: 'mysql://a:b@127.0.0.1/c', PAGES: '', LOG_LEVEL: 'silent' };

it('a certificate names the server by all its names, for thirteen months', () => {
  const read = new X509Certificate(cert);
  expect([read.checkHost('localhost'), read.checkHost('quay.school')]).toEqual(['localhost', 'quay.school']);
  expect([read.checkIP('127.0.0.1'), read.checkIP('127.0.0.2')]).toEqual(['127.0.0.1', undefined]);
  const days = (Date.parse(read.validTo) - Date.parse(read.validFrom)) / DAY_MS;
  expect(days).toBeCloseTo(397, 0);
  expect(Date.parse(read.validFrom)).toBeLessThan(Date.now());
  expect(ownAddresses({ lo: [], eth0: [{ address: '10.0.0.7', family: 'IPv4', internal: false }] })).toEqual([
    'localhost',
    '127.0.0.1',
    '10.0.0.7',
  ]);
});

it('with it the server answers over https, and children are told so', async () => {
  const config = configFrom({
    ...ENV,
    DATABASE_URL: await freshDatabase(),
    PORT: '0',
    TLS_CERT: certAt,
    TLS_KEY: keyAt,
  });
  const server = await startServer({
    ...config,
    host: 'localhost',
    warmUp: false,
    demoTeacher: 'Robin',
    limits: PATIENT,
  });
  try {
    expect(server.url).toMatch(/^https:\/\/localhost:\d+$/);
    const answered = await new Promise<number | undefined>((resolve, reject) => {
      // Trusted for what it is: nothing is switched off.
      request(`${server.url}/livez`, { ca: cert }, ({ statusCode }) => resolve(statusCode))
        .on('error', reject)
        .end();
    });
    expect(answered).toBe(200);
    expect(joinAddresses(server.url.replace('localhost', '10.0.0.7'), networkInterfaces())[0]).toMatch(
      /^https:\/\/10\.0\.0\.7:\d+\/join$/,
    );
  } finally {
    await server.stop();
  }
});

it.each([
  [{ TLS_CERT: certAt }, /^TLS_KEY: there is no file to be read at “”/],
  [{ TLS_CERT: '/nowhere', TLS_KEY: keyAt }, /^TLS_CERT: there is no file to be read at “\/nowhere”/],
  [{ TLS_CERT: certAt, TLS_KEY: otherAt }, /^TLS_CERT and TLS_KEY do not belong together/],
])('%j is refused in a sentence', (env, sentence) => expect(() => configFrom({ ...ENV, ...env })).toThrow(sentence));

it('without it the server speaks plain http', () => expect(configFrom(ENV).tls).toBeUndefined());
