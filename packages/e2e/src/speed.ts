import { chromium, type Browser, type Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { CHROMIUM, CHROMIUM_FLAGS } from './browser';
import fillData from './fillData';
import { shopOf, SIZES } from './reliability/scale';
import { makeFolder, removeFolder, root, startServer } from './testServer';

/** What the program costs a device and a machine, measured in one run and written to docs/speed.md. */
const PORT = 4941;
const JOB = '1a47e000-0000-4000-8000-000000001388';

/** As a browser on a shop's network gets it: such a browser takes gzip and nothing newer. @returns bytes on the way */
const packed = (url: string): Promise<number> =>
  new Promise((done, failed) => {
    const asked = request(url, { headers: { 'Accept-Encoding': 'gzip' } }, (answer) => {
      let bytes = 0;
      answer.on('data', (d: Buffer) => (bytes += d.length));
      answer.on('end', () => done(bytes));
    });
    asked.on('error', failed);
    asked.end();
  });

/** Scripts a first visit of the list loads, workers among them, and those the booth needs beyond. */
async function scripts(browser: Browser, address: string): Promise<{ list: number; booth: number }> {
  // What the browser puts by for later is no part of a visit.
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  const seen = new Set<string>();
  context.on('request', (r) => {
    if (new URL(r.url()).pathname.endsWith('.js')) seen.add(r.url());
  });
  const weigh = async () => (await Promise.all([...seen].map(packed))).reduce((a, b) => a + b, 0);
  await page.goto(address);
  await page.getByRole('list', { name: 'Jobs' }).waitFor();
  await page.waitForTimeout(5_000);
  const list = await weigh();
  await page.goto(`${address}/jobs/${JOB}/booth`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForTimeout(5_000);
  const all = await weigh();
  await context.close();
  return { list, booth: all - list };
}

const STEPS = 60;
/** The first steps warm the compiler of what answers. */
const WARM = 10;

/** From the key that moves a slider to the frame that shows its answer, ms, sorted. */
async function keyToPaint(page: Page, slider: string, watched: string): Promise<number[]> {
  await page.locator(slider).focus();
  await page.evaluate((selector) => {
    const times: number[] = [];
    Object.assign(window, { times });
    let start = 0;
    addEventListener('keydown', () => (start = performance.now()), { capture: true });
    new MutationObserver(() =>
      requestAnimationFrame(() => {
        // A message posted in a frame callback arrives after that frame was painted.
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => times.push(performance.now() - start);
        port2.postMessage(null);
      }),
    ).observe(document.querySelector(selector)!, { attributes: true, attributeFilter: ['data-strength'] });
  }, watched);
  for (let i = 1; i <= STEPS; i++) {
    await page.keyboard.press(i % 20 < 10 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForFunction((n) => (window as Window & { times?: number[] }).times!.length >= n, i);
  }
  const times = await page.evaluate(() => (window as Window & { times?: number[] }).times!);
  return times.slice(WARM).sort((a, b) => a - b);
}

/** A page that only repaints a canvas of a size when its slider moves. */
const repainting = (width: number, height: number) => `<input type="range" min="0" max="200" value="100">
<canvas width="${width}" height="${height}" data-strength="0"></canvas>
<script>
  const canvas = document.querySelector('canvas'), to = canvas.getContext('2d'), across = 15, down = 12;
  document.querySelector('input').addEventListener('input', (e) => {
    for (let i = 0; i < across * down; i++) {
      to.fillStyle = 'hsl(' + (i * 7 + Number(e.target.value)) + ' 60% 50%)';
      to.fillRect((i % across) * canvas.width / across, Math.floor(i / across) * canvas.height / down, canvas.width / across, canvas.height / down);
    }
    canvas.dataset.strength = e.target.value;
  });
</script>`;

async function slider(browser: Browser, address: string): Promise<{ map: number[]; bare: number[] }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/jobs/${JOB}/map`);
  const grid = page.locator('[data-strength]');
  await grid.waitFor();
  const box = (await grid.boundingBox())!;
  // No hand is at the slider before the page stands.
  await page.waitForTimeout(1_500);
  const map = await keyToPaint(page, '[role=slider], input[type=range]', '[data-strength]');
  // The program's page lets no script of elsewhere run in it.
  await page.goto('about:blank');
  await page.setContent(repainting(Math.round(box.width), Math.round(box.height)));
  const bare = await keyToPaint(page, 'input', 'canvas');
  await page.close();
  return { map, bare };
}

/** Resident memory of a server with a long shop that has been looked through, MB. */
async function memory(port: number): Promise<number> {
  const folder = await shopOf(SIZES.jobs, SIZES.readings, SIZES.events);
  const server = await startServer(folder, port);
  for (let page = 0; page < 40; page++) await (await fetch(`${server.address}/api/jobs?page=${page}`)).arrayBuffer();
  const { rows } = (await (await fetch(`${server.address}/api/jobs?page=0`)).json()) as { rows: { id: string }[] };
  for (const { id } of rows) await (await fetch(`${server.address}/api/jobs/${id}`)).arrayBuffer();
  const kB = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]);
  await server.stop();
  removeFolder(folder);
  return kB / 1024;
}

/** From the command to the address it prints, on a folder that holds the demo and a program that is built, s. */
async function secondStart(port: number): Promise<number> {
  const folder = makeFolder();
  const began = performance.now();
  const child = spawn('npm', ['start'], {
    cwd: root,
    detached: true,
    env: { ...process.env, STEADY_GLEAM_DATA: folder, PORT: String(port), LOG_LEVEL: 'error' },
  });
  const took = await new Promise<number>((done) => {
    child.stdout.on('data', (d: Buffer) => {
      if (/Steady Gleam is at/.test(d.toString())) done((performance.now() - began) / 1000);
    });
  });
  const ended = new Promise((done) => child.once('exit', done));
  process.kill(-child.pid!, 'SIGTERM');
  await ended;
  removeFolder(folder);
  return took;
}

/** What the benchmark of the calculator prints, in the same run. */
const benchmark = (): Promise<string[]> =>
  new Promise((done) => {
    let said = '';
    const child = spawn(process.execPath, [join(root, 'scripts/bench.mjs')], { cwd: root });
    child.stdout.on('data', (d: Buffer) => (said += d.toString()));
    child.on('close', () => done(said.split('\n').filter(Boolean)));
  });

const at = (times: readonly number[], q: number) => times[Math.min(times.length - 1, Math.floor(q * times.length))]!;

const remove = await fillData();
const folder = makeFolder();
const server = await startServer(folder, PORT);
const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
try {
  const loaded = await scripts(browser, server.address);
  const { map, bare } = await slider(browser, server.address);
  await browser.close();
  await server.stop();
  const mb = await memory(PORT + 1);
  const start = await secondStart(PORT + 2);
  const kB = (bytes: number) => `${Math.round(bytes / 1000)} kB`;
  const ms = (times: readonly number[]) => `${at(times, 0.5).toFixed(0)} ms, p95 ${at(times, 0.95).toFixed(0)} ms`;
  const rows = [
    ['script of a first visit of the list, packed', kB(loaded.list), '260 kB'],
    ['script the booth needs beyond, packed', kB(loaded.booth), '180 kB'],
    ['slider to paint on the match map, median', ms(map), ''],
    ['the same events on a page that only repaints', ms(bare), ''],
    ['ratio of their p95', (at(map, 0.95) / at(bare, 0.95)).toFixed(1), '3'],
    [`memory of the server after ${SIZES.jobs} jobs`, `${mb.toFixed(0)} MB`, '400 MB'],
    ['`npm start` again, to its address', `${start.toFixed(1)} s`, '5 s'],
  ];
  const text = `# Speed

Made by \`npm run speed\`; do not edit. One run on one machine: ratios hold, times are for that run only.

| | measured | at most |
|---|---|---|
${rows.map((r) => `| ${r.join(' | ')} |`).join('\n')}

Scripts are counted as a browser on the shop's network gets them (gzip), workers among them; what is put by for when the server is away
is not. The map had stood for a second and a half before its slider was moved. From the benchmark of the same run:

${(await benchmark()).map((l) => `- ${l}`).join('\n')}
`;
  writeFileSync(join(root, 'docs/speed.md'), text);
  console.log(text);
} finally {
  await browser.close();
  await server.stop();
  removeFolder(folder);
  remove();
}
