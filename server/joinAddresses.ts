import type { NetworkInterfaceInfo } from 'node:os';

/**
 * What children type to come into a room: the addresses of this machine in its networks.
 * @param url  where the server listens, as in http://0.0.0.0:4180
 * @returns none where it listens to this machine alone
 * @example joinAddresses("http://0.0.0.0:4180", networkInterfaces()) // ["http://192.168.1.20:4180/join"]
 */
export function joinAddresses(
  url: string,
  interfaces: NodeJS.Dict<Pick<NetworkInterfaceInfo, 'address' | 'family' | 'internal'>[]>,
): string[] {
  const { hostname, port, protocol } = new URL(url);
  const own = hostname.replace(/^\[|\]$/g, '');
  const at = (host: string) => `${protocol}//${host}:${port}/join`;
  if (own !== '0.0.0.0' && own !== '::') return /^(127\.|localhost$|::1$)/.test(own) ? [] : [at(hostname)];
  return Object.values(interfaces).flatMap((all) =>
    (all ?? []).flatMap(({ address, family, internal }) => (family === 'IPv4' && !internal ? [at(address)] : [])),
  );
}
