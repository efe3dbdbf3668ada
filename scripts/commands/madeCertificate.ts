import { isIP } from 'node:net';
import type { NetworkInterfaceInfo } from 'node:os';
import { generate } from 'selfsigned';

/** Telephones take none that is longer than this. */
const DAYS = 397;
const DAY_MS = 24 * 3600 * 1000;

/** By what this machine is reached in its networks, and by itself. */
export function ownAddresses(
  interfaces: NodeJS.Dict<Pick<NetworkInterfaceInfo, 'address' | 'family' | 'internal'>[]>,
): string[] {
  const outer = Object.values(interfaces).flatMap((all) =>
    (all ?? []).flatMap(({ address, family, internal }) => (family === 'IPv4' && !internal ? [address] : [])),
  );
  return ['localhost', '127.0.0.1', ...outer];
}

/**
 * A certificate that only vouches for itself, and its key, PEM.
 * @param names  names and addresses of the server
 * @param now  milliseconds since 1970
 */
export async function madeCertificate(
  names: readonly string[],
  now = Date.now(),
): Promise<{ readonly cert: string; readonly key: string }> {
  const altNames = names.map((name) =>
    isIP(name) ? ({ type: 7, ip: name } as const) : ({ type: 2, value: name } as const),
  );
  const made = await generate([{ name: 'commonName', value: 'Clapboard in this network' }], {
    algorithm: 'sha256',
    keySize: 2048,
    // A clock that is a little behind takes it too.
    notBeforeDate: new Date(now - DAY_MS),
    notAfterDate: new Date(now + (DAYS - 1) * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames },
    ],
  });
  return { cert: made.cert, key: made.private };
}
