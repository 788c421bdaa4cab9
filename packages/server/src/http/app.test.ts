import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  cardsApi,
  gunsApi,
  jobsApi,
  type JobSummary,
  labelPath,
  pathOf,
  photoPath,
  photosApi,
  readingsApi,
} from '@steady-gleam/contracts';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { FolderInUseError, lockByFile, lockFolder } from '../db/folderLock';
import { createRepos } from '../resources/repos';
import { seedDemo } from '../demo/seed';
import { createApp } from './app';
import { newJob, openTestShop, setOf } from '../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop([], true);
}, 60_000);
afterAll(() => shop.open.close());

describe('what comes in, and what is told', () => {
  it('takes pictures only, serves them back, and prints a label with what is known', async () => {
    const { id } = await shop.create();
    const finishId = await shop.finishOf(id);
    const photo = { id: randomUUID(), kind: 'rung', coats: 2, takenAt: '2026-11-20T09:00:00.000Z' } as const;
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const send = (bytes: Buffer, type = 'image/png') =>
      request(shop.app).post(photoPath(finishId, photo)).set('Content-Type', type).send(bytes);
    expect((await send(Buffer.from('<svg onload="x"/>')).expect(400)).body.fields.photo).toContain('not a JPEG');
    await send(Buffer.alloc(11_000_000)).expect(413);
    await send(png).expect(201);
    await send(png).expect(201);
    const back = await request(shop.app).get(`/api/photos/${photo.id}`).expect(200);
    expect(back.headers['content-type']).toBe('image/png');
    expect(back.headers['x-content-type-options']).toBe('nosniff');
    expect(Buffer.compare(back.body as Buffer, png)).toBe(0);
    expect((await shop.detail(id)).photos).toEqual([photo]);
    await request(shop.app)
      .delete(pathOf(photosApi.remove.path, { id: photo.id }))
      .expect(200);
    await request(shop.app).get(`/api/photos/${photo.id}`).expect(404);
    for (const size of ['card', 'a6'] as const) {
      const label = await request(shop.app)
        .get(labelPath(id, size, size === 'card' ? 'us' : 'metric', 'Pacific/Auckland'))
        .buffer(true)
        .expect(200);
      expect((label.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    }
  });

  it('hands a hand on to the next card with the same gun, style and family; found by the gun, not by what was typed', async () => {
    const gun = { ...STARTING_GUNS[0]!, id: randomUUID(), name: 'Gun 9' };
    await request(shop.app)
      .put(pathOf(gunsApi.put.path, { id: gun.id }))
      .send({ version: 0, gun })
      .expect(200);
    const make = async (gunId: string | null = gun.id) => {
      const { id } = await shop.create();
      await request(shop.app)
        .patch(pathOf(jobsApi.change.path, { id }))
        .send({ version: 1, pick: { groundId: 'gold', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } })
        .expect(200);
      await request(shop.app)
        .put(pathOf(cardsApi.put.path, { id: await shop.finishOf(id) }))
        .send({ id: randomUUID(), rungs: [1, 2], gun: 'Gun 9', gunId, pressureBar: 1.4, onStand: true, version: 0 })
        .expect(200);
      return id;
    };
    const [one, two, typed] = [await make(), await make(), await make(null)];
    const hand = { mean: { film: 0.18 }, sd: { film: 0.03 }, style: 'wet', mixId: 'cinder-candy' };
    await request(shop.app)
      .put(pathOf(cardsApi.putHand.path, { id: await shop.finishOf(one) }))
      .send(hand)
      .expect(200);
    const finishId = await shop.finishOf(one);
    const { earlier } = await shop.detail(two);
    expect(earlier).toMatchObject([{ mean: { film: 0.18 }, sd: { film: 0.03 }, finishId }]);
    expect((await shop.detail(one)).earlier).toEqual([]);
    expect((await shop.detail(typed)).earlier).toEqual([]);
    // One card's hand can be left out, and taken in again.
    const say = (teaches: boolean) =>
      request(shop.app)
        .put(pathOf(cardsApi.setHand.path, { id: earlier[0]!.cardId }))
        .send({ teaches })
        .expect(200);
    await say(false);
    expect((await shop.detail(two)).earlier).toEqual([]);
    await say(true);
    expect((await shop.detail(two)).earlier).toHaveLength(1);
    await request(shop.app)
      .put(pathOf(cardsApi.putHand.path, { id: await shop.finishOf(one) }))
      .send({ ...hand, style: 'light' })
      .expect(200);
    expect((await shop.detail(two)).earlier).toEqual([]);
  });

  it('says of what can’t be read that it can’t, and never that it made a mistake itself', async () => {
    const { id } = await shop.create();
    const finishId = await shop.finishOf(id);
    const post = (body: string | object, headers: Record<string, string> = {}) =>
      request(shop.app)
        .post(pathOf(readingsApi.addToFinish.path, { id: finishId }))
        .set({ 'Content-Type': 'application/json', ...headers })
        .send(body);
    for (const path of ['/api/jobs/%', '/api/jobs/%ff', '/api/jobs?words=%00', '/api/finishes?words=%E0%A4%A'])
      expect([path, (await request(shop.app).get(path)).status]).toEqual([path, 400]);
    const text = (label: string) => JSON.stringify({ ...setOf({ kind: 'chip' }), label: '@' }).replace('"@"', label);
    for (const label of ['"a\\u0000b"', '"a\\ud800b"', '"\\udc00"']) await post(text(label)).expect(400);
    await post(text('"a\\ud83d\\ude00b"')).expect(201);
    for (const takenAt of ['2026-13-45T10:00:00Z', '9999-12-31T23:59:59Z', 'soon'])
      expect(Object.keys((await post(setOf({ takenAt })).expect(400)).body.fields)).toEqual(['takenAt']);
    await post('not gzip', { 'Content-Encoding': 'gzip' }).expect(400);
    const big = await request(shop.app)
      .patch(pathOf(jobsApi.change.path, { id }))
      .send({ version: 2 ** 31, piece: 'x' })
      .expect(400);
    expect(Object.keys(big.body.fields)).toEqual(['version']);
  });

  it('names wrong fields and stores nothing by halves', async () => {
    const { id } = await shop.create();
    const bad = setOf({
      readings: [
        { spot: '1', incidence: 45, aspecular: 15, l: 50, a: 0, b: 0 },
        { spot: '1', incidence: 45, aspecular: 25, l: -4, a: 0, b: 0 },
        { spot: '1', incidence: 45, aspecular: 45, l: 0, a: 0, b: 0 },
      ],
    });
    Object.assign(bad.readings[2]!, { l: 'abc' });
    const reply = await request(shop.app)
      .post(pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) }))
      .send(bad)
      .expect(400);
    expect(reply.body.fields).toMatchObject({
      'readings[1].l': expect.stringContaining('below 0'),
      'readings[2].l': expect.stringContaining('number'),
    });
    expect((await shop.detail(id)).target).toBeNull();
    const twice = setOf({ readings: [setOf().readings[0]!, setOf().readings[0]!] });
    expect(
      (
        await request(shop.app)
          .post(pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) }))
          .send(twice)
          .expect(400)
      ).body.fields.readings,
    ).toContain('twice');
    const wrongMix = await request(shop.app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), mixId: 'lagoon-pearl' })
      .expect(400);
    expect(wrongMix.body.fields.mixId).toContain('another finish family');
    const empty = await request(shop.app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), piece: '  ' })
      .expect(400);
    expect(empty.body.fields.piece).toContain('Say what is to be finished');
  });

  it('answers the unknown, the unreadable and the oversized in one shape', async () => {
    for (const path of [pathOf(jobsApi.read.path, { id: randomUUID() }), '/api/jobs/not-an-id', '/api/nothing']) {
      expect((await request(shop.app).get(path).expect(404)).body.code).toBe('notFound');
    }
    const torn = await request(shop.app)
      .post(jobsApi.create.path)
      .set('Content-Type', 'application/json')
      .send('{"piece":')
      .expect(400);
    expect(torn.body.code).toBe('badRequest');
    const huge = await request(shop.app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), piece: 'x'.repeat(5_000_000) })
      .expect(413);
    expect(huge.body.code).toBe('tooLarge');
    const health = await request(shop.app).get('/api/health').expect(200);
    expect(health.headers['content-security-policy']).toContain("default-src 'self'");
    expect(health.headers['x-powered-by']).toBeUndefined();
  });

  it('limits the rate with the same shape', async () => {
    const slow = createApp({ repos: createRepos(shop.open.db), logger: pino({ level: 'silent' }), requestsAMinute: 2 });
    await request(slow).get('/api/health').expect(200);
    await request(slow).get('/api/health').expect(200);
    expect((await request(slow).get('/api/health').expect(429)).body.code).toBe('tooMany');
  });

  it('seeds a demo with an unread, a half-way and a finished job', async () => {
    await seedDemo(createRepos(shop.open.db));
    const list = (await request(shop.app).get(jobsApi.list.path)).body.rows as JobSummary[];
    const demo = list.filter((j) => j.invented);
    expect(demo).toHaveLength(12);
    expect(new Set(demo.map((j) => j.family)).size).toBe(7);
    expect(demo.filter((j) => j.targetAngles === 0)).toHaveLength(1);
    expect(demo.filter((j) => j.status === 'finished')).toHaveLength(1);
    expect(demo.filter((j) => j.status === 'open' && j.rungsRead > 0)).toHaveLength(5);
  });
});

describe('the data folder', () => {
  it('is refused to a second holder and free again after release', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-lock-'));
    for (const lock of [lockFolder, lockByFile]) {
      const release = await lock(folder);
      await expect(lock(folder)).rejects.toThrow(FolderInUseError);
      await release();
      await (
        await lock(folder)
      )();
    }
    // A holder that is gone does not keep the folder.
    writeFileSync(join(folder, 'in-use'), '2147483646');
    await (
      await lockByFile(folder)
    )();
    rmSync(folder, { recursive: true });
  });
});
