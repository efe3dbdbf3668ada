import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sql } from 'drizzle-orm';
import { type Database, collisions, openDatabase, transacted } from '../../../server/database.ts';
import { buildServer } from '../../build/buildServer.ts';
import type { Cluster } from './cluster.ts';
import { lessonOn, lessonWithKills, lessonWithSplits, nodeUrl, withCluster } from './lessonWithKills.ts';
import { canMakeNetworks } from './networks.ts';
import { rollingUpgrade } from './rolling.ts';
import { trial } from '../../test/trial.test-helper.ts';

describe('a lesson on a cluster', () => {
  let cluster: Cluster;
  let end: () => void;
  let over: Promise<unknown>;
  beforeAll(async () => {
    await buildServer();
    await new Promise<void>((begun, failed) => {
      over = withCluster((made) => {
        cluster = made;
        begun();
        return new Promise<void>((ended) => (end = ended));
      });
      over.catch(failed);
    });
  });
  afterAll(async () => {
    end();
    await over;
  });

  it('loses nothing when a database, an app server and the database that answers die', async () => {
    const outcome = await lessonWithKills(cluster, 1);
    expect(outcome).toMatchObject({ lost: 0, different: 0, signedOut: 0 });
    expect(outcome.acknowledged).toBeGreaterThan(5);
  });

  // Where this user may make no networks, nodes only die and freeze.
  trial('loses nothing when its network splits: the smaller side takes nothing more', async ({ skip }) => {
    if (!canMakeNetworks()) skip();
    const { refused, accepted, ...outcome } = await lessonWithSplits(cluster);
    expect(outcome).toMatchObject({ lost: 0, different: 0, signedOut: 0 });
    expect(outcome.acknowledged).toBeGreaterThan(3);
    expect([accepted, refused]).toEqual([[], ['ER_UNKNOWN_COM_ERROR', 'ER_UNKNOWN_COM_ERROR']]);
  });

  it('what is written through two nodes at once collides, and what collides is done again', async () => {
    const open = cluster.nodes
      .slice(0, 2)
      .map((node) => openDatabase(nodeUrl(cluster.databaseUrl, node), { connections: 1 }));
    const [{ db }] = open as [(typeof open)[0]];
    await db.execute(sql`create table counted (id int primary key, n int not null)`);
    await db.execute(sql`insert into counted values (1, 0)`);
    const numberIn = async (inside: Database) => {
      const [rows] = await inside.execute(sql`select n from counted where id = 1 for update`);
      return (rows as unknown as { n: number }[])[0]?.n ?? 0;
    };
    const before = collisions();
    const each = 25;
    await Promise.all(
      open.map(async (one) => {
        for (let i = 0; i < each; i++)
          await transacted(one.db, async (inside) => {
            const n = await numberIn(inside);
            await inside.execute(sql`update counted set n = ${n + 1} where id = 1`);
          });
      }),
    );
    // What the other node wrote last may still be on its way.
    await db.execute(sql`set session wsrep_sync_wait = 1`);
    expect(await numberIn(db)).toBe(each * open.length);
    expect(collisions()).toBeGreaterThan(before);
    await db.execute(sql`drop table counted`);
    await Promise.all(open.map(({ pool }) => pool.end()));
  });

  trial('goes on while newer versions take the place of older ones, and no answer is a refusal', async () => {
    const lesson = await lessonOn(cluster);
    const together = await rollingUpgrade(cluster, lesson);
    const { acknowledged, signedOut, notStored } = await lesson.end();
    expect([signedOut, notStored]).toEqual([0, 0]);
    expect(together).toBeGreaterThan(0);
    expect(acknowledged.length).toBeGreaterThanOrEqual(together);
  });
});
