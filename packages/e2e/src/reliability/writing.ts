import { eventOf } from '@steady-gleam/core/jobs';
import { findMix } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';
import { randomUUID } from 'node:crypto';

/** The family of the mix that jobs are made with. */
export const FAMILY = findMix('cinder-candy').family;
/** A job of the demo that is written to. */
export const JOB = '1a47e000-0000-4000-8000-000000000fa0';

/** What is sent: under which id, where, and how it is found again. */
interface Entry {
  readonly id: string;
  readonly method: 'POST' | 'PATCH';
  readonly path: string;
  readonly body: unknown;
}

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** One of the kinds of things a shop enters. */
function entryOf(kind: number): Entry {
  const id = randomUUID();
  const at = new Date().toISOString();
  switch (kind) {
    case 0:
      return {
        ...{ id, method: 'POST', path: '/api/jobs' },
        body: { id, piece: `Piece ${id.slice(0, 8)}`, matching: 'another', family: FAMILY, mixId: 'cinder-candy' },
      };
    case 1:
      return {
        ...{ id, method: 'POST', path: `/api/jobs/${JOB}/readings` },
        body: {
          ...{
            id,
            kind: 'spot',
            rungCoats: 2,
            source: 'typed',
            label: id.slice(0, 8),
            objectId: null,
            state: 'cleared',
          },
          ...{ doubt: null, takenAt: at },
          readings: [{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 30, b: 20 }],
        },
      };
    case 2:
      return {
        id,
        method: 'POST',
        path: `/api/jobs/${JOB}/photos?${new URLSearchParams({ id, kind: 'job', takenAt: at })}`,
        body: PNG,
      };
    default:
      return {
        ...{ id, method: 'POST', path: `/api/jobs/${JOB}/events` },
        body: { events: [eventOf({ id, at: Date.now(), kind: 'note', text: 'a tap' })] },
      };
  }
}

/** Writers that go on through anything, and what they were told is stored. */
export interface Writers {
  readonly acknowledged: ReadonlySet<string>;
  /** Answers by status; 0 for none. */
  readonly answers: ReadonlyMap<number, number>;
  /** Ends once every writer's entry was answered. */
  readonly stop: () => Promise<void>;
}

/** Writes with so many hands at once, each entry again and again until it is acknowledged: as the booth does. @param addresses in turn */
export function startWriters(addresses: readonly string[], hands: number, seed: number): Writers {
  const random = createRandom(seed);
  const acknowledged = new Set<string>();
  const answers = new Map<number, number>();
  let over = false;
  const send = async ({ method, path, body }: Entry, address: string): Promise<number> => {
    try {
      const isFile = Buffer.isBuffer(body);
      const response = await fetch(`${address}${path}`, {
        method,
        headers: { 'Content-Type': isFile ? 'image/png' : 'application/json' },
        body: isFile ? new Uint8Array(body) : JSON.stringify(body),
        signal: AbortSignal.timeout(8_000),
      });
      await response.arrayBuffer();
      return response.status;
    } catch {
      return 0;
    }
  };
  const hand = async () => {
    while (!over) {
      const entry = entryOf(Math.floor(random() * 6));
      for (;;) {
        const status = await send(entry, addresses[Math.floor(random() * addresses.length)]!);
        answers.set(status, (answers.get(status) ?? 0) + 1);
        if (status >= 200 && status < 300) {
          acknowledged.add(entry.id);
          break;
        }
        if (status >= 400 && status < 500 && status !== 429)
          throw new Error(`${entry.method} ${entry.path} was answered ${status}.`);
        await new Promise((done) => setTimeout(done, 20 + random() * 60));
      }
    }
  };
  const running = Array.from({ length: hands }, hand);
  return {
    acknowledged,
    answers,
    stop: async () => {
      over = true;
      await Promise.all(running);
    },
  };
}

/** Ids of everything of these kinds that is stored, each as often as it is there. */
export async function storedIds(address: string): Promise<string[]> {
  const get = async (path: string): Promise<unknown> => (await fetch(`${address}${path}`)).json();
  const detail = (await get(`/api/jobs/${JOB}`)) as { photos: { id: string }[]; spots: { id: string }[] };
  const events = (await get(`/api/jobs/${JOB}/events`)) as { id: string }[];
  const jobs: { id: string }[] = [];
  for (let page = 0; ; page++) {
    const { rows, total } = (await get(`/api/jobs?page=${page}`)) as { rows: { id: string }[]; total: number };
    jobs.push(...rows);
    if (jobs.length >= total || !rows.length) break;
  }
  return [...detail.photos, ...detail.spots, ...events, ...jobs].map((r) => r.id);
}

/** What of the acknowledged is not there, and what is there more than once. */
export function compare(
  acknowledged: ReadonlySet<string>,
  stored: readonly string[],
): { lost: number; doubled: number } {
  const there = new Set(stored);
  return { lost: [...acknowledged].filter((id) => !there.has(id)).length, doubled: stored.length - there.size };
}
