import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildServer } from '../buildServer.ts';
import type { Cluster } from './cluster.ts';
import { lessonOn, lessonWithKills, withCluster } from './lessonWithKills.ts';
import { rollingUpgrade } from './rolling.ts';

/** Within so long a classroom gets an answer, whatever has died. */
const MOST_MS = 10_000;

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
    expect(Math.max(outcome.slowestAnswer, ...Object.values(outcome.longestGap))).toBeLessThan(MOST_MS);
  });

  it('goes on while newer versions take the place of older ones, and no answer is a refusal', async () => {
    const lesson = await lessonOn(cluster);
    const together = await rollingUpgrade(cluster, lesson);
    const { acknowledged, signedOut, notStored } = await lesson.end();
    expect([signedOut, notStored]).toEqual([0, 0]);
    expect(together).toBeGreaterThan(0);
    expect(acknowledged.length).toBeGreaterThanOrEqual(together);
  });
});
