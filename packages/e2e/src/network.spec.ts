import {
  chromium,
  expect,
  request,
  test,
  type APIRequestContext,
  type BrowserContext,
  type Page,
} from '@playwright/test';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { execFileSync } from 'node:child_process';
import { createHash, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { seriousFaults } from './axe';
import { stepOn } from './boothSteps';
import { CHROMIUM, flagsFor } from './browser';
import { emptyFolder, makeFolder, removeFolder, startServer, type TestServer } from './testServer';

const PORT = 4835;
/** Of Debian's libnss3-tools. */
const CERTUTIL = '/usr/bin/certutil';
const NAME = 'shop.test';
const PASSCODE = 'lantern-pier';
const CANDY = '1a47e000-0000-4000-8000-000000000fa0';
const SHOP = { STEADY_GLEAM_SHOP: '1', STEADY_GLEAM_PASSCODE: PASSCODE, STEADY_GLEAM_NAMES: NAME };
const ADDRESS = `https://${NAME}:${PORT}`;
/** What the issue of a silent server asks for: told, and sent, within five seconds. */
const WITHIN_MS = 5_000;

let folder: string;
let home: string;
let server: TestServer;
let tablet: BrowserContext;
let api: APIRequestContext;

const start = async () => {
  server = await startServer(folder, PORT, SHOP);
};

test.beforeAll(async () => {
  folder = makeFolder();
  home = emptyFolder();
  await start();
  // As its owner does it: the authority is fetched from the plain page, and trusted on the device.
  const authority = await (await fetch(`http://127.0.0.1:${PORT}/authority.crt`)).text();
  const trust = trustOn(home, authority);
  tablet = await chromium.launchPersistentContext(join(home, 'profile'), {
    ...{ executablePath: CHROMIUM, args: [...flagsFor(NAME), ...trust], env: { ...process.env, HOME: home } },
    ...{ viewport: { width: 800, height: 1280 }, serviceWorkers: 'allow', hasTouch: true },
  });
  api = await request.newContext({ baseURL: `https://127.0.0.1:${PORT}`, ignoreHTTPSErrors: true });
  expect((await api.get('/api/jobs')).status()).toBe(401);
  expect((await api.post('/api/session', { data: { passcode: PASSCODE } })).status()).toBe(200);
});
test.afterAll(async () => {
  await api.dispose();
  await tablet.close();
  await server.stop();
  removeFolder(folder);
  removeFolder(home);
});

/** Puts an authority among those a profile trusts. @returns flags for a machine without the tool for it: then its key alone is let pass */
function trustOn(profile: string, authority: string): string[] {
  const file = join(profile, 'authority.crt');
  writeFileSync(file, authority);
  if (!existsSync(CERTUTIL)) {
    const key = new X509Certificate(authority).publicKey.export({ type: 'spki', format: 'der' });
    return [`--ignore-certificate-errors-spki-list=${createHash('sha256').update(key).digest('base64')}`];
  }
  const store = join(profile, '.pki/nssdb');
  mkdirSync(store, { recursive: true });
  execFileSync(CERTUTIL, ['-N', '-d', `sql:${store}`, '--empty-password']);
  execFileSync(CERTUTIL, ['-A', '-d', `sql:${store}`, '-t', 'C,,', '-n', 'the shop', '-i', file]);
  return [];
}

const eventsOf = async (): Promise<JobEvent[]> =>
  (await (await api.get(`/api/jobs/${CANDY}/events`)).json()) as JobEvent[];
const queue = (page: Page) => page.getByTestId('queue');
const tell = async (page: Page, note: string) => {
  await page.getByRole('button', { name: 'Note or photo' }).click();
  await page.getByLabel('Note', { exact: true }).fill(note);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
};

test('a tablet on the shop’s name, by HTTPS: signs in, runs a booth while the server is away, and catches up', async () => {
  const page = tablet.pages()[0] ?? (await tablet.newPage());
  page.setDefaultTimeout(20_000);
  let told = 0;

  await test.step('the plain page says how to trust the shop, and nothing else', async () => {
    await page.goto(`http://${NAME}:${PORT}/`);
    await expect(page.getByRole('heading', { name: 'Open the shop on this device' })).toBeVisible();
    await expect(page.getByRole('link', { name: '1. Fetch the certificate' })).toBeVisible();
    await page.getByRole('link', { name: '2. Open the shop' }).click();
    await expect(page).toHaveURL(`${ADDRESS}/`);
    expect(await page.evaluate(() => isSecureContext)).toBe(true);
  });

  await test.step('nothing is seen before the passcode; a wrong one is said', async () => {
    await expect(page.getByRole('heading', { name: 'Sign in to the shop' })).toBeVisible();
    await page.getByLabel('Passcode', { exact: true }).fill('not this one');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('This is not the shop’s passcode.')).toBeVisible();
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByLabel('Passcode', { exact: true }).fill(PASSCODE);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByTestId('answer')).toContainText('is next');
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  });

  await test.step('the run is begun with the server there', async () => {
    await page.goto(`${ADDRESS}/jobs/${CANDY}/booth`);
    told += (await stepOn(page)).length;
    await expect(queue(page)).toHaveText('Everything is kept');
    expect(await eventsOf()).toHaveLength(told);
    // A device that stays on a page for a few seconds has asked ahead for what the others need.
    await page.waitForTimeout(4_000);
  });

  await test.step('the server is killed: taps, a photo and the list go on', async () => {
    await server.stop('SIGKILL');
    told += (await stepOn(page)).length;
    await expect(queue(page)).toContainText('Server away');
    await tell(page, 'fan off at the far side');
    told++;
    // A photo is kept too, and so is what says that it was taken.
    await page.getByRole('button', { name: 'Note or photo' }).click();
    const png = await page.screenshot({ clip: { x: 0, y: 0, width: 40, height: 40 } });
    await page.getByLabel('Photo from the booth').setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer: png });
    told++;
    await expect(queue(page)).toContainText('one more entry kept here');
    // The booth is left; the list says what is known, and what waits.
    await page.getByRole('link', { name: 'Leave the booth' }).click();
    await page.goto(`${ADDRESS}/`);
    await expect(page.getByText('This is what this device knew')).toBeVisible();
    await expect(page.getByText(/kept here, not in this yet/)).toBeVisible();
    await expect(page.getByTestId('standing')).toContainText('Server away');
  });

  await test.step('and comes back: what was told is sent from the list, without the booth', async () => {
    await start();
    await expect(page.getByTestId('standing')).toHaveCount(0, { timeout: 20_000 });
    const log = await eventsOf();
    expect(log).toHaveLength(told);
    expect(new Set(log.map((e) => e.id)).size).toBe(told);
    const detail = (await (await api.get(`/api/jobs/${CANDY}`)).json()) as { photos: { kind: string }[] };
    expect(detail.photos.filter((p) => p.kind === 'job')).toHaveLength(1);
  });

  await test.step('a server that falls silent is told, and gets what was told as soon as it answers', async () => {
    await page.goto(`${ADDRESS}/jobs/${CANDY}/booth`);
    await expect(queue(page)).toHaveText('Everything is kept');
    server.signal('SIGSTOP');
    await tell(page, 'the server is asleep');
    told++;
    const asleep = Date.now();
    await expect(queue(page)).toContainText('Server away: 1 tap kept here', { timeout: WITHIN_MS });
    console.log(`told after ${Date.now() - asleep} ms`);
    server.signal('SIGCONT');
    const awake = Date.now();
    await expect(queue(page)).toHaveText('Everything is kept', { timeout: WITHIN_MS });
    console.log(`sent after ${Date.now() - awake} ms`);
    expect(await eventsOf()).toHaveLength(told);
  });

  await test.step('a session that ends keeps what waits, and it is sent after signing in', async () => {
    expect((await api.delete('/api/shop/devices')).status()).toBe(200);
    await tell(page, 'nobody is signed in');
    told++;
    await expect(queue(page)).toContainText('Signed out: 1 tap kept here', { timeout: 15_000 });
    await page.getByRole('link', { name: 'Sign in' }).click();
    await page.getByLabel('Passcode', { exact: true }).fill(PASSCODE);
    await expect(page.getByText('One entry is kept on this device')).toBeVisible();
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByTestId('standing')).toHaveCount(0);
    await api.post('/api/session', { data: { passcode: PASSCODE } });
    expect(await eventsOf()).toHaveLength(told);
  });
});

test('the shop’s place: a copy is made and gone back to, a code for looking only looks only', async () => {
  const page = tablet.pages()[0]!;
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${ADDRESS}/shop`);
  await expect(page.getByRole('img', { name: /QR code of/ })).toBeVisible();
  await page.getByRole('button', { name: 'Make a copy now' }).click();
  await expect(page.getByRole('list', { name: 'Copies' }).getByRole('listitem')).toHaveCount(1);
  expect(await seriousFaults(page)).toEqual([]);

  await test.step('what was entered since is gone after going back, and is itself kept', async () => {
    const id = '5b0f7c51-6a5e-4c8a-9f0e-0c6a2d1b7e11';
    const job = { id, piece: 'Wrong piece', matching: 'nothing', family: 'candy', mixId: 'cinder-candy' };
    expect((await api.post('/api/jobs', { data: job })).status()).toBe(201);
    await page.getByRole('button', { name: 'Go back to it' }).click();
    await page.getByRole('button', { name: 'Go back', exact: true }).click();
    await expect(page.getByText(/The shop is as it was/)).toBeVisible();
    expect((await api.get(`/api/jobs/${id}`)).status()).toBe(404);
    await expect(page.getByRole('list', { name: 'Copies' }).getByRole('listitem')).toHaveCount(2);
    expect(await eventsOf()).not.toHaveLength(0);
  });

  await test.step('a damaged file is refused in a sentence', async () => {
    const damaged = join(home, 'damaged.tar.gz');
    writeFileSync(damaged, 'nothing of a copy');
    await page.getByLabel('A copy from elsewhere').setInputFiles(damaged);
    await expect(page.getByRole('alert')).toHaveText('This file is not a copy of a shop.');
  });

  await test.step('looking only: everything is shown, nothing is changed', async () => {
    await page.getByLabel('Code for looking only').fill('look here');
    await page.getByRole('button', { name: 'Set it' }).click();
    await expect(page.getByText('It is set.')).toBeVisible();
    await page.getByRole('listitem').filter({ hasText: 'this one' }).getByRole('button', { name: 'Sign out' }).click();
    await page.getByLabel('Passcode', { exact: true }).fill('look here');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('Looking only', { exact: true })).toBeVisible();
    const answer = await page.evaluate(async () => {
      const response = await fetch('/api/jobs', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: '{}',
      });
      return [response.status, ((await response.json()) as { code: string }).code];
    });
    expect(answer).toEqual([403, 'lookOnly']);
  });
});
