import { chromium, type Browser, type Page } from '@playwright/test';
import { TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { CHROMIUM, CHROMIUM_FLAGS } from './browser';
import { stepOn } from './boothSteps';
import { runLogTo } from './logRun';
import { passes, spray } from './strokes';
import { makeFolder, removeFolder, root, startServer } from './testServer';
import { asking, walkTryOut } from './tryOuts/walk';

/** Current pictures of the main views, from demo data. Folder and names may be given: `npm run screenshots -- /tmp/x map`. */
const [folder = join(root, 'docs/screenshots'), ...only] = process.argv.slice(2);

const job = (key: number) => `1a47e000-0000-4000-8000-${(key * 1000).toString(16).padStart(12, '0')}`;

interface View {
  readonly name: string;
  readonly path: string;
  readonly ready: string;
  readonly size?: { width: number; height: number };
  readonly dim?: boolean;
  /** What is done before the picture is taken. */
  readonly act?: (page: Page) => Promise<void>;
}

const inMidRun = async (page: Page): Promise<void> => {
  for (let i = 0; i < 17; i++) await stepOn(page);
};
/** Up to the first look at an object. */
const toTheLook = async (page: Page): Promise<void> => {
  while (!(await page.getByRole('heading', { name: /^Stop\. Look/ }).count())) await stepOn(page);
  await page.getByText('what should be seen now').waitFor();
};
/** Before clear an edge is lighter at dusk, though it matched in the sun. */
const atDusk = async (page: Page): Promise<void> => {
  const { origin } = new URL(page.url());
  await runLogTo(page, origin, job(7), (next) => next.is === 'check' && next.state.check.kind === 'lamp');
  await page.reload();
  const say = async (place: string, view: string, word: string) => {
    await page.getByRole('button', { name: new RegExp(`^${place}, ${view}`) }).click();
    await page.getByRole('group', { name: 'What is seen' }).getByRole('button', { name: word, exact: true }).click();
  };
  for (const view of ['sun, face', 'sun, flop', 'dusk']) await say('Door', view, 'It matches');
  await page.getByRole('button', { name: '+ a place' }).click();
  await page.getByRole('button', { name: 'front edge', exact: true }).click();
  await say('front edge', 'sun, face', 'It matches');
  for (const view of ['sun, flop', 'open shade']) await say('front edge', view, 'a little lighter');
  await say('front edge', 'dusk', 'clearly lighter');
  await page.getByRole('group', { name: 'Ways out' }).getByRole('button', { name: /^Fade/ }).click();
  await page.getByText('dE00 to its neighbour').waitFor();
  await page.evaluate(() => document.querySelector('main')!.scrollTo(0, 0));
};
/** An object that lies between two rungs of a card of the bank. */
const nearWing = async (page: Page): Promise<void> => {
  const { origin } = new URL(page.url());
  const get = async (path: string): Promise<unknown> => (await page.request.get(`${origin}${path}`)).json();
  const { rows } = (await get('/api/finishes?words=wing')) as { rows: { id: string }[] };
  const { readings } = (await get('/api/bank/readings')) as {
    readings: { finishId: string; coats: number | null; angles: { lab: number[] }[] }[];
  };
  const rung = (coats: number) => readings.find((r) => r.finishId === rows[0]!.id && r.coats === coats)!.angles;
  for (const [n, g] of rung(3).entries())
    for (const [k, name] of ['L*', 'a*', 'b*'].entries()) {
      const at = 0.6 * g.lab[k]! + 0.4 * rung(4)[n]!.lab[k]!;
      await page.getByLabel(`${name} at row ${n + 1}`, { exact: true }).fill(at.toFixed(1));
    }
  await page.getByRole('button', { name: 'Find the nearest' }).click();
  await page.getByRole('list', { name: 'Nearest' }).getByRole('listitem').first().waitFor();
};
/** The passport of what is found, its paper as a picture; pdftoppm is of Debian's poppler-utils. */
const asPaper = async (page: Page): Promise<void> => {
  const link = page.getByRole('link', { name: 'Passport' });
  const pdf = await page.request.get(new URL((await link.getAttribute('href'))!, page.url()).href);
  const png = execFileSync('pdftoppm', ['-png', '-r', '92', '-singlefile', '-'], { input: await pdf.body() });
  await page.setContent(
    `<body style="margin:0;background:#ababab;display:grid;place-items:start center;height:100vh;overflow:hidden"><img style="width:760px;margin-top:24px" src="data:image/png;base64,${png.toString('base64')}"></body>`,
  );
};
/** Two panels sprayed one by one, then walked with a hand that hurries: what was better, and the one thing that is left. */
const twoCoats = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Walk the side' }).click();
  await page.waitForTimeout(2500);
  await spray(page, [
    ...passes({ pitch: 13, speed: 60, margin: 5, span: [0, 60] }),
    ...passes({ pitch: 13, speed: 60, margin: 5, span: [60, 120] }),
  ]);
  await page.getByRole('button', { name: 'Lay it again' }).click();
  await spray(page, passes({ pitch: 16, speed: 50, margin: 5 }));
  await page.getByTestId('side-by-side').waitFor();
};
const VIEWS: readonly View[] = [
  { name: 'jobs', path: '/', ready: 'ul[aria-label=Jobs] svg' },
  { name: 'target', path: `/jobs/${job(10)}/target`, ready: '[aria-label^="Travel of the colour"]' },
  { name: 'bank', path: '/bank?by=reading', ready: '[aria-label=Readings]', act: nearWing },
  { name: 'passport', path: '/bank?words=wing', ready: '[aria-label=Finishes] button', act: asPaper },
  { name: 'match-map', path: `/jobs/${job(5)}/map?angle=25`, ready: '[role=grid]' },
  {
    name: 'find-the-mix',
    path: `/jobs/${job(5)}/find`,
    ready: '[aria-label=Mixes] li',
  },
  { name: 'sample', path: `/jobs/${job(5)}/sample`, ready: '[data-drawn]' },
  { name: 'let-down', path: `/jobs/${job(5)}/card`, ready: '[aria-label^="How far off"]' },
  { name: 'mix-room', path: `/jobs/${job(4)}/mix`, ready: 'table' },
  { name: 'plan-areas', path: `/jobs/${job(6)}/plan`, ready: '[aria-label="Plan of Coach 2"]' },
  { name: 'plan-time', path: `/jobs/${job(4)}/plan?show=time`, ready: '[aria-label^=Timeline]' },
  { name: 'on-the-job', path: `/jobs/${job(5)}/spray`, ready: '[aria-label="Sprayed so far"]' },
  { name: 'faults', path: '/faults?fault=halo', ready: '[aria-label="Faults"] svg' },
  { name: 'inspect', path: `/jobs/${job(7)}/inspect`, ready: '[data-testid=answer]', act: atDusk },
  { name: 'booth', path: `/jobs/${job(4)}/booth`, ready: '[data-testid=check]', act: inMidRun },
  { name: 'practice', path: '/practice', ready: '[data-testid=panel]', act: twoCoats },
  { name: 'booth-look', path: `/jobs/${job(6)}/booth`, ready: '[data-testid=check]', act: toTheLook },
];

/** The shop's place as its owner sees it: open to the shop, signed in, a copy made. */
async function shopPlace(browser: Browser): Promise<void> {
  const passcode = 'lantern-pier';
  const own = makeFolder();
  const shop = await startServer(own, 4712, { STEADY_GLEAM_SHOP: '1', STEADY_GLEAM_PASSCODE: passcode });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ignoreHTTPSErrors: true });
  const page = await context.newPage();
  await page.goto('https://127.0.0.1:4712/shop');
  await page.getByLabel('Passcode', { exact: true }).fill(passcode);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: 'Make a copy now' }).click();
  await page.getByRole('list', { name: 'Copies' }).getByRole('listitem').waitFor();
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(900);
  await page.screenshot({ path: join(folder, 'shop.png') });
  await context.close();
  await shop.stop();
  removeFolder(own);
}

/** A try-out that was walked by its advice, with its curtain up. */
async function curtain(browser: Browser, address: string): Promise<void> {
  const family = TRY_OUT_FAMILIES[1]!;
  const { id } = await walkTryOut(asking(address), prepareLibrary(), { seed: 178, family, state: 'cleared' });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/jobs/${id}/curtain`);
  await page.getByRole('table', { name: 'What was hidden' }).waitFor({ timeout: 60_000 });
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(900);
  await page.screenshot({ path: join(folder, 'curtain.png') });
  await page.close();
}

const data = makeFolder();
const server = await startServer(data, 4711);
const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
try {
  mkdirSync(folder, { recursive: true });
  for (const view of VIEWS) {
    if (only.length && !only.includes(view.name)) continue;
    const page = await browser.newPage({ viewport: view.size ?? { width: 1280, height: 800 }, colorScheme: 'light' });
    page.on('console', (m) => m.type() === 'error' && console.error(`${view.name}: ${m.text()}`));
    page.on('pageerror', (e) => console.error(`${view.name}: ${e.message}`));
    if (view.dim) await page.addInitScript(() => localStorage.setItem('steady-gleam.theme', 'dim'));
    await page.goto(server.address + view.path);
    await page.locator(view.ready).first().waitFor({ timeout: 30_000 });
    await view.act?.(page);
    await page.evaluate(() => document.fonts.ready);
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(folder, `${view.name}.png`) });
    await page.close();
  }
  if (!only.length || only.includes('shop')) await shopPlace(browser);
  if (!only.length || only.includes('curtain')) await curtain(browser, server.address);
} finally {
  await browser.close();
  await server.stop();
  removeFolder(data);
}
