import { expect, test } from '@playwright/test';
import { sendAll, worstBodies } from './reliability/bodies';
import { malformed } from './reliability/malformed';
import { hasPostgres, startCluster, type Cluster } from './reliability/cluster';
import { firstStarts, killedWrites, restartedDatabase, roundTrip, sameAtOnce } from './reliability/runs';
import { scale } from './reliability/scale';

/** A small part of `npm run killruns`, with the same seeds. */
const PORT = 4960;
const SEED = 2026;

test('kills in the first start and while it is written to: every start comes up whole, nothing acknowledged is lost', async () => {
  expect(await firstStarts(3, PORT, SEED)).toMatchObject({ torn: 0 });
  const run = await killedWrites(4, PORT + 2, SEED);
  // As many as a busy machine comes to between the kills.
  expect(run.acknowledged).toBeGreaterThan(3);
  expect(run).toMatchObject({ lost: 0, doubled: 0, wrong: 0 });
});

test('the worst bodies and malformed requests: none is the program’s fault, and memory stays', async () => {
  const worst = await sendAll(worstBodies, PORT + 4);
  expect(worst.wrong).toEqual([]);
  expect(worst.mostMb).toBeLessThan(600);
  // On a machine that does other things too; what it is on a quiet one stands in docs/reliability.md.
  expect(worst.longestMs).toBeLessThan(2_000);
  const odd = await sendAll(() => malformed(800, SEED), PORT + 6);
  expect(odd.wrong).toEqual([]);
});

test('a list and a log cost the same however long they are', async () => {
  const { page, tap, plans } = await scale(PORT + 8, 12, 400);
  expect(page.ratio).toBeLessThan(4);
  expect(tap.ratio).toBeLessThan(2.5);
  expect(plans.filter((p) => p.startsWith('no index') && !/batches|photos/.test(p))).toEqual([]);
});

test.describe('with a PostgreSQL server', () => {
  let cluster: Cluster;
  test.skip(!hasPostgres(), 'Debian’s postgresql is not on this machine.');
  test.beforeAll(async () => {
    cluster = await startCluster();
  });
  test.afterAll(() => cluster?.remove());

  test('restarts under two programs cost nothing that was acknowledged, and the same entry at once is one', async () => {
    const run = await restartedDatabase(cluster, 'restarts', 3, PORT + 12, SEED);
    expect(run).toMatchObject({ exits: 0, lost: 0, doubled: 0, wrong: 0, startedTogether: true });
    expect(await sameAtOnce(cluster, 'same', 6, PORT + 14)).toMatchObject({ refused: 0, stored: 6 });
  });

  test('a shop goes there from the embedded database and back, equal row by row', async () => {
    expect(await roundTrip(cluster, 'trip', PORT + 16)).toMatchObject({ equal: true });
  });
});
