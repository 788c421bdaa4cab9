import { sessions } from '../db/schema';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { logApi, pathOf, sessionApi } from '@steady-gleam/contracts';
import { eventOf } from '@steady-gleam/core/jobs';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { openTestDb } from '../testdata/testDb';
import type { OpenDb } from '../db/open';
import { createRepos, type Repos } from '../resources/repos';
import { createApp } from './app';
import { COOKIE, type Door } from './door';

const NAME = 'shop.test';
const door = (over: Partial<Door> = {}): Door => ({
  ...{ isShop: true, isSecure: true, names: () => ['localhost', NAME], isBehindProxy: false, firstCode: null },
  ...over,
});
let open: OpenDb;
let repos: Repos;
const appOf = (with_: Door) => createApp({ repos, logger: pino({ level: 'silent' }), door: with_ });
const signIn = async (app: ReturnType<typeof appOf>, passcode: string): Promise<string> => {
  const { headers } = await request(app).post(sessionApi.open.path).send({ passcode }).expect(200);
  return String(headers['set-cookie']).split(';')[0]!;
};

beforeAll(async () => {
  open = await openTestDb();
  repos = createRepos(open.db);
  await repos.door.setCode('passcode', 'lantern-pier');
  await repos.door.setCode('lookCode', 'only looking');
}, 60_000);
afterAll(() => open.close());

describe('the shop’s door', () => {
  it('is locked for everything but health and signing in', async () => {
    const app = appOf(door());
    for (const path of ['/api/jobs', '/api/session', '/api/photos/x', '/api/nothing', '/api/jobs/x/sheet.pdf']) {
      const { body, status } = await request(app).get(path);
      expect([path, status, (body as { code: string }).code]).toEqual([path, 401, 'locked']);
    }
    await request(app).post('/api/jobs').send({}).expect(401);
    // Nothing of a body is looked at before it is known whose it is.
    await request(app).post('/api/jobs').set('Content-Type', 'application/json').send('{').expect(401);
    await request(app).get('/api/health').expect(200);
  });

  it('opens to the passcode with a cookie no script and no other site gets, and closes again', async () => {
    const app = appOf(door());
    const opened = await request(app).post(sessionApi.open.path).send({ passcode: 'lantern-pier' }).expect(200);
    expect(opened.body).toEqual({ isShop: true, can: 'all', isPasscodeSet: true });
    const cookie = String(opened.headers['set-cookie']);
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    expect(cookie).toMatch(/Secure/);
    expect(cookie).toMatch(/Max-Age=2592000/);
    const own = cookie.split(';')[0]!;
    await request(app).get('/api/jobs').set('Cookie', own).expect(200);
    expect((await request(app).get('/api/jobs').set('Cookie', own)).headers['cache-control']).toBe('no-store');
    await request(app).delete(sessionApi.close.path).set('Cookie', own).expect(200);
    await request(app).get('/api/jobs').set('Cookie', own).expect(401);
    await request(app).get('/api/jobs').set('Cookie', `${COOKIE}=made-up`).expect(401);
  });

  it('keeps only hashes of codes and cookies', async () => {
    const own = (await signIn(appOf(door()), 'lantern-pier')).split('=')[1]!;
    const kept = JSON.stringify([await repos.door.setting('passcode'), await repos.door.setting('lookCode')]);
    expect(kept).not.toMatch(/lantern|looking/);
    const rows = await open.db.select().from(sessions);
    expect(rows.length).toBeGreaterThan(0);
    expect(JSON.stringify(rows)).not.toContain(own);
  });

  it('lets the second code look and nothing else', async () => {
    const app = appOf(door());
    const own = await signIn(app, 'only looking');
    await request(app).get('/api/jobs').set('Cookie', own).expect(200);
    const written = await request(app).post('/api/jobs').set('Cookie', own).send({ id: randomUUID() });
    expect([written.status, (written.body as { code: string }).code]).toEqual([403, 'lookOnly']);
    await request(app).delete(sessionApi.close.path).set('Cookie', own).expect(200);
  });

  it('ends every session at once', async () => {
    const app = appOf(door());
    const both = [await signIn(app, 'lantern-pier'), await signIn(app, 'only looking')];
    await repos.door.end(null);
    for (const own of both) await request(app).get('/api/jobs').set('Cookie', own).expect(401);
  });

  it('makes who tries wrong codes wait longer and longer, also with the right one', async () => {
    const app = appOf(door());
    const answers: number[] = [];
    for (let i = 0; i < 7; i++)
      answers.push(
        (
          await request(app)
            .post(sessionApi.open.path)
            .send({ passcode: `wrong ${i}` })
        ).status,
      );
    expect(answers).toEqual([401, 401, 401, 401, 401, 429, 429]);
    const waiting = await request(app).post(sessionApi.open.path).send({ passcode: 'lantern-pier' }).expect(429);
    expect(Number(waiting.headers['retry-after'])).toBeGreaterThan(0);
  });

  it('opens to the printed code until a passcode is set', async () => {
    const app = appOf(door({ firstCode: 'abcd-efgh' }));
    await repos.door.setCode('passcode', null);
    const own = await signIn(app, ' abcd-efgh');
    expect((await request(app).get('/api/session').set('Cookie', own)).body).toMatchObject({ isPasscodeSet: false });
    await repos.door.setCode('passcode', 'lantern-pier');
    await request(app).post(sessionApi.open.path).send({ passcode: 'abcd-efgh' }).expect(401);
  });

  it('answers to this machine’s names and addresses alone', async () => {
    const app = appOf(door());
    const asked = async (host: string, of = app) => (await request(of).get('/api/health').set('Host', host)).status;
    expect(await asked(`${NAME}:4680`)).toBe(200);
    expect(await asked('192.0.2.7:4680')).toBe(200);
    expect(await asked('localhost')).toBe(200);
    for (const host of ['evil.test', `${NAME}.evil.test`, `evil.test#${NAME}`, '']) expect(await asked(host)).toBe(403);
    // A program for one machine answers to no name of a network, so that no page can let its own name point here.
    const own = appOf(door({ isShop: false }));
    expect(await asked('192.0.2.7', own)).toBe(403);
    expect(await asked('127.0.0.1:4680', own)).toBe(200);
    expect(await asked('[::1]:4680', own)).toBe(200);
  });

  it('takes writes from its own pages only, and answers no other page', async () => {
    const app = appOf(door());
    const own = await signIn(appOf(door()), 'lantern-pier').catch(() => null);
    const post = (headers: Record<string, string>) =>
      request(app)
        .post('/api/jobs')
        .set({ Host: `${NAME}:4680`, ...(own ? { Cookie: own } : {}), ...headers })
        .send({});
    for (const origin of ['https://evil.test', 'null', `https://${NAME}.evil.test`, `https://${NAME}:4681`, 'x'])
      expect([origin, (await post({ Origin: origin })).status]).toEqual([origin, 403]);
    expect((await post({ 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403);
    expect((await post({ Origin: `https://${NAME}:4680` })).status).not.toBe(403);
    const { headers } = await request(app).get('/api/health').set('Origin', 'https://evil.test');
    expect(headers['access-control-allow-origin']).toBeUndefined();
    expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe-inline/);
  });
});

describe('a log that is told bit by bit', () => {
  const app = () => createApp({ repos, logger: pino({ level: 'silent' }) });
  const event = () => eventOf({ id: randomUUID(), at: Date.now(), kind: 'note', text: 'x' });
  type Row = { id: string; sequence: number };

  it('answers a tap with what is new to that device, others’ events among it', async () => {
    const id = randomUUID();
    await request(app())
      .post('/api/jobs')
      .send({ id, piece: 'p', matching: 'm', family: 'candy', mixId: 'cinder-candy' })
      .expect(201);
    const path = pathOf(logApi.addEvents.path, { id });
    const send = async (events: unknown[], since?: number) =>
      (await request(app()).post(path).send({ events, since }).expect(201)).body as Row[];
    const [a, b, c] = [event(), event(), event()];
    const first = await send([a], 0);
    expect(first.map((e) => e.id)).toEqual([a.id]);
    await send([b]);
    const next = await send([c], first[0]!.sequence);
    expect(next.map((e) => e.id)).toEqual([b.id, c.id]);
    // Sent again after a lost answer it is answered as before, and stored once.
    expect((await send([c], next[0]!.sequence)).map((e) => e.id)).toEqual([c.id]);
    expect((await send([c])).map((e) => e.id)).toEqual([c.id]);
    const since = async (n: number) =>
      ((await request(app()).get(`${path}?since=${n}`).expect(200)).body as Row[]).length;
    const last = next.at(-1)!.sequence;
    expect([await since(0), await since(first[0]!.sequence), await since(last)]).toEqual([3, 2, 0]);
    // A number this log has not reached is of another log: a copy was put in its place.
    expect(await since(last + 1000)).toBe(3);
  });
});
