import { eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { request as rawRequest } from 'node:http';
import { Worker } from 'node:worker_threads';
import { gzipSync } from 'node:zlib';
import { makeFolder, removeFolder, startServer } from '../testServer';
import { JOB } from './writing';

export interface BodyRun {
  readonly requests: number;
  /** Answers of 500: the program's own fault. */
  readonly wrong: readonly string[];
  /** Longest another client waited meanwhile, ms; and with nothing else going on. */
  readonly longestMs: number;
  readonly calmMs: number;
  /** Most memory the program had, MB. */
  readonly mostMb: number;
  /** Requests during which another client waited longest, with ms. */
  readonly worst: readonly (readonly [string, number])[];
}

/** Waits that are told. */
const TOLD = 8;

export const event = (over: Partial<JobEvent> = {}): JobEvent =>
  eventOf({ id: randomUUID(), at: Date.now(), kind: 'note', text: 'x', ...over });
const cell = (i: number) => ({ coatId: `effect/wet/${i}`, areaId: `area-${i % 40}` });
/** The job of the other client. */
const OTHER = '1a47e000-0000-4000-8000-000000001388';
export const EVENTS = `/api/jobs/${JOB}/events`;

export interface Sent {
  readonly what: string;
  readonly method: string;
  readonly path: string;
  readonly body: Buffer | string;
  readonly headers?: Readonly<Record<string, string>>;
}

export const json = (what: string, path: string, body: unknown, method = 'POST'): Sent => ({
  ...{ what, path, method },
  body: typeof body === 'string' ? body : JSON.stringify(body),
});

/** Bodies that cost most to look at. */
export function worstBodies(): Sent[] {
  const reading = (i: number) => ({ spot: `s${i}`, incidence: 45, aspecular: 45, l: 40, a: 1, b: 2 });
  const set = (n: number) => ({
    ...{
      id: randomUUID(),
      kind: 'target',
      rungCoats: null,
      source: 'typed',
      label: '',
      objectId: 'x',
      state: 'cleared',
    },
    ...{ doubt: null, takenAt: new Date().toISOString(), readings: Array.from({ length: n }, (_, i) => reading(i)) },
  });
  const many = Array.from({ length: 200 }, (_, i) => cell(i));
  const runs = Array.from({ length: 20 }, () =>
    json('40 sprays of 200 areas', EVENTS, {
      events: Array.from({ length: 8 }, () => event({ kind: 'sprayed', cells: many })),
    }),
  );
  return [
    json('340,000 empty objects', EVENTS, `{"events":[${'{},'.repeat(340_000).slice(0, -1)}]}`),
    json('5,000 empty objects', EVENTS, { events: Array.from({ length: 5000 }, () => ({})) }),
    json('500 empty objects', EVENTS, { events: Array.from({ length: 500 }, () => ({})) }),
    json('500 events with a fault each', EVENTS, {
      events: Array.from({ length: 500 }, () => ({ ...event(), at: 'x' })),
    }),
    json('500 events', EVENTS, { events: Array.from({ length: 500 }, () => event()) }),
    json('100 events of 200 cells', EVENTS, { events: Array.from({ length: 100 }, () => event({ cells: many })) }),
    json('30 events of 200 cells', EVENTS, { events: Array.from({ length: 30 }, () => event({ cells: many })) }),
    json('an event of 20,000 cells', EVENTS, {
      events: [event({ cells: Array.from({ length: 20_000 }, (_, i) => cell(i)) })],
    }),
    json('nested 100,000 deep', EVENTS, `{"events":${'['.repeat(100_000)}${']'.repeat(100_000)}}`),
    json('nested 9,000 deep', EVENTS, `{"events":${'['.repeat(9_000)}${']'.repeat(9_000)}}`),
    json('a note of 1 MB', EVENTS, { events: [event({ text: 'x'.repeat(1_000_000) })] }),
    json('100,000 names', EVENTS, Object.fromEntries(Array.from({ length: 60_000 }, (_, i) => [`k${i}`, i]))),
    json('a million numbers', EVENTS, `{"events":[${'1,'.repeat(500_000)}1]}`),
    json('escapes', EVENTS, `{"events":"${'\\u0041'.repeat(160_000)}"}`),
    json('2,000 readings', `/api/jobs/${JOB}/readings`, set(2000)),
    json('20,000 readings', `/api/jobs/${JOB}/readings`, set(20_000)),
    json(
      'a job of 2,000 areas',
      `/api/jobs/${JOB}`,
      { version: 1, areas: Array.from({ length: 2000 }, () => ({})) },
      'PATCH',
    ),
    json(
      'a job of many layers',
      `/api/jobs/${JOB}`,
      { version: 1, stacks: Array.from({ length: 4 }, () => ({ layers: Array.from({ length: 600 }, () => ({})) })) },
      'PATCH',
    ),
    json('200 empty products', '/api/products', { products: Array.from({ length: 200 }, () => ({})) }),
    json('a finish’s file of 1 MB', '/api/finishes/file', `{"a":[${'{},'.repeat(300_000).slice(0, -1)}]}`),
    {
      ...json('packed 1 GB', EVENTS, ''),
      body: gzipSync(Buffer.alloc(50_000_000, 0x20)),
      headers: { 'Content-Encoding': 'gzip' },
    },
    ...runs,
    { what: 'the sheet of thousands of sprays', method: 'GET', path: `/api/jobs/${JOB}/sheet.pdf?as=done`, body: '' },
    { what: 'the plan of it', method: 'GET', path: `/api/jobs/${JOB}/sheet.pdf?as=plan`, body: '' },
    { what: 'the job with thousands of sprays', method: 'GET', path: `/api/jobs/${JOB}`, body: '' },
    { what: 'the list with it', method: 'GET', path: '/api/jobs', body: '' },
  ];
}

/** Sends as it is, also what no browser would. @returns the status; 0 for none */
function send(address: string, { method, path, body, headers }: Sent): Promise<number> {
  const { hostname, port } = new URL(address);
  return new Promise((done) => {
    let asked: ReturnType<typeof rawRequest>;
    const bytes = Buffer.from(body);
    try {
      asked = rawRequest({
        ...{ hostname, port, method, path: path.replace(/[\0\r\n ]/g, '') },
        headers: {
          'Content-Type': 'application/json',
          ...headers,
          ...(bytes.length ? { 'Content-Length': String(bytes.length) } : {}),
        },
      });
    } catch {
      done(0);
      return;
    }
    asked.on('response', (response) => {
      response.resume();
      response.on('end', () => done(response.statusCode ?? 0));
      response.on('error', () => done(0));
    });
    asked.on('error', () => done(0));
    asked.end(bytes);
  });
}

/** Another client, in a thread of its own: its waits are the program's, not this script's. */
const LOOKER = `
const { parentPort, workerData } = require('node:worker_threads');
const look = async () => {
  const began = performance.now();
  const response = await fetch(workerData).catch(() => null);
  await response?.arrayBuffer();
  return performance.now() - began;
};
let over = false;
parentPort.on('message', () => (over = true));
(async () => {
  for (let i = 0; i < 20; i++) await look();
  let calm = 0;
  for (let i = 0; i < 40; i++) calm = Math.max(calm, await look());
  parentPort.postMessage({ calm });
  while (!over) {
    const at = Date.now();
    parentPort.postMessage({ at, took: await look() });
    await new Promise((done) => setTimeout(done, 5));
  }
  process.exit();
})();
`;

/** Sends requests one after the other while another client asks for its log, and looks how long that one waits. */
export async function sendAll(make: () => Sent[], port: number): Promise<BodyRun> {
  const folder = makeFolder();
  const server = await startServer(folder, port);
  const all = make();
  const wrong: string[] = [];
  const began: { readonly at: number; readonly what: string }[] = [];
  const waits = new Map<string, number>();
  let mostMb = 0;
  const looker = new Worker(LOOKER, {
    eval: true,
    workerData: `${server.address}/api/jobs/${OTHER}/events?since=2000000000`,
  });
  const calmMs = await new Promise<number>((done) =>
    looker.once('message', ({ calm }: { calm: number }) => done(calm)),
  );
  looker.on('message', ({ at, took }: { at: number; took: number }) => {
    // Whatever was on its way while it waited.
    const what = began.filter((b) => b.at <= at + took).at(-1)?.what ?? 'nothing';
    waits.set(what, Math.max(waits.get(what) ?? 0, took));
  });
  const watch = setInterval(() => {
    const resident = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'));
    mostMb = Math.max(mostMb, Number(resident?.[1] ?? 0) / 1024);
  }, 20);
  for (const one of all) {
    began.push({ at: Date.now(), what: one.what });
    const status = await send(server.address, one);
    if (status >= 500 && status !== 503)
      wrong.push(`${one.what}: ${status} ${one.method} ${one.path.slice(0, 120)} ${String(one.body).slice(0, 200)}`);
  }
  await new Promise((done) => setTimeout(done, 300));
  clearInterval(watch);
  looker.postMessage('over');
  await new Promise((done) => looker.once('exit', done));
  await server.stop();
  removeFolder(folder);
  const worst = [...waits].sort((a, b) => b[1] - a[1]).slice(0, TOLD);
  return { requests: all.length, wrong, longestMs: worst[0]?.[1] ?? 0, calmMs, mostMb, worst };
}
