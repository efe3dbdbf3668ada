import { expect, it } from 'vitest';
import { joinAddresses } from './joinAddresses.ts';

const NETWORKS = {
  lo: [{ address: '127.0.0.1', family: 'IPv4' as const, internal: true }],
  wlan0: [
    { address: '192.168.1.20', family: 'IPv4' as const, internal: false },
    { address: 'fe80::1', family: 'IPv6' as const, internal: false },
  ],
};

it.each([
  ['http://0.0.0.0:4180', ['http://192.168.1.20:4180/join']],
  ['http://[::]:4180', ['http://192.168.1.20:4180/join']],
  ['http://127.0.0.1:4180', []],
  ['http://localhost:4180', []],
  ['http://10.0.0.7:4180', ['http://10.0.0.7:4180/join']],
])('%s is reached by %j', (url, addresses) => expect(joinAddresses(url, NETWORKS)).toEqual(addresses));
