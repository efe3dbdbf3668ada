import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { binary } from '../mariadb.ts';

/** Where a node of a cluster stands. */
export interface Place {
  /** Its address, for the other nodes and for this machine. */
  readonly host: string;
  /** What comes before a command that is to run there. */
  readonly command: readonly string[];
}

/** On this machine, beside everything else. */
export const HERE: Place = { host: '127.0.0.1', command: [] };

/** Networks of their own for the nodes of a cluster: each sees this machine, and the others by way of it. */
export interface Networks {
  readonly places: readonly Place[];
  /**
   * Cuts one node off from the others, until it is mended: what they send each other is lost without a word. This
   * machine still reaches all of them.
   */
  readonly cutOff: (node: number) => void;
  readonly mend: () => void;
  readonly remove: () => void;
}

const PREFIX = 'clap';
const SPACES = '/var/run/netns';
/** What stands in place of the files of /etc in them. */
const SETTINGS = '/etc/netns';
/** Before every other rule but that for this machine's own addresses. */
const PRIORITY = '50';

const ip = (...args: string[]): string => execFileSync(binary('ip'), args, { encoding: 'utf8', stdio: 'pipe' });

/** Only root may make networks, where there is the tool for it. */
export function canMakeNetworks(): boolean {
  if (userInfo().uid !== 0) return false;
  try {
    ip('netns', 'list');
    return true;
  } catch {
    return false;
  }
}

/** As many networks, apart from those of clusters that run beside this one. */
export function makeNetworks(size: number): Networks {
  removeForsaken();
  const ours = `${PREFIX}${process.pid}`;
  // 10.64 to 10.191: clusters that run side by side are not neighbours in number.
  const net = `10.${64 + (process.pid % 128)}`;
  const nodes = Array.from({ length: size }, (_, i) => {
    return { space: `${ours}n${i}`, outside: `${ours}o${i}`, host: `${net}.${i}.2`, router: `${net}.${i}.1` };
  });
  const remove = () => {
    for (const { space } of nodes) removeSpace(space);
  };
  try {
    for (const { space, outside, host, router } of nodes) {
      ip('netns', 'add', space);
      // Who asks for a name there is told at once that nobody knows it.
      mkdirSync(`${SETTINGS}/${space}`, { recursive: true });
      writeFileSync(`${SETTINGS}/${space}/resolv.conf`, 'nameserver 127.0.0.1\n');
      ip('link', 'add', outside, 'type', 'veth', 'peer', 'name', 'inside', 'netns', space);
      ip('address', 'add', `${router}/24`, 'dev', outside);
      ip('link', 'set', outside, 'up');
      for (const device of ['lo', 'inside']) ip('-n', space, 'link', 'set', device, 'up');
      ip('-n', space, 'address', 'add', `${host}/24`, 'dev', 'inside');
      ip('-n', space, 'route', 'add', 'default', 'via', router);
      // Passed on between these networks only.
      writeFileSync(`/proc/sys/net/ipv4/conf/${outside}/forwarding`, '1');
    }
  } catch (error) {
    remove();
    throw error;
  }
  let cuts: string[][] = [];
  const mend = () => {
    for (const cut of cuts) ip('rule', 'delete', ...cut);
    cuts = [];
  };
  return {
    places: nodes.map(({ space, host }) => ({ host, command: [binary('ip'), 'netns', 'exec', space] })),
    cutOff: (node) => {
      const alone = nodes[node]!;
      for (const other of nodes)
        if (other !== alone)
          for (const [from, to] of [
            [alone, other],
            [other, alone],
          ] as const)
            cuts.push(['priority', PRIORITY, 'iif', from.outside, 'to', to.host, 'blackhole']);
      for (const cut of cuts) ip('rule', 'add', ...cut);
    },
    mend,
    remove: () => {
      mend();
      remove();
    },
  };
}

function removeSpace(space: string): void {
  rmSync(`${SETTINGS}/${space}`, { recursive: true, force: true });
  try {
    // What is in it goes with it, the way out too.
    ip('netns', 'delete', space);
  } catch {
    // It was not there.
  }
}

/** Those of programs that were killed. */
function removeForsaken(): void {
  let spaces: string[] = [];
  try {
    spaces = readdirSync(SPACES);
  } catch {
    // There were never any.
  }
  for (const space of spaces) {
    const [, pid] = /^clap(\d+)n\d$/.exec(space) ?? [];
    if (pid === undefined) continue;
    try {
      readFileSync(`/proc/${pid}/stat`);
    } catch {
      removeSpace(space);
    }
  }
}
