import { expect, it } from 'vitest';
import { wayIn } from './RoomDoor.tsx';

const at = (origin: string) => ({ origin, hostname: new URL(origin).hostname });
const OWN = ['https://10.0.0.7:4180/join', 'https://192.168.1.2:4180/join'];

it.each([
  ['https://clap.school', [], 'https://clap.school/join', true],
  ['http://10.0.0.7:4180', OWN, 'http://10.0.0.7:4180/join', true],
  // Of the machine itself nobody else has anything.
  ['http://localhost:4180', OWN, OWN[0], true],
  ['https://127.0.0.1:4180', OWN, OWN[0], true],
  ['http://[::1]:4180', OWN, OWN[0], true],
  ['http://localhost:4180', [], 'http://localhost:4180/join', false],
])('from %s and %j children come in at %s', (origin, addresses, address, reached) =>
  expect(wayIn(addresses, at(origin))).toEqual({ address, reached }),
);
