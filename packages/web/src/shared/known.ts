import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';
import { openDB, type DBSchema } from 'idb';
import { OWN_BUILD } from './ownBuild';

/** What this device knew when it last heard of the server, for while it is away. */
interface Known extends DBSchema {
  known: { key: string; value: { readonly build: string; readonly at: number; readonly state: DehydratedState } };
}

const [NAME, KEY] = ['steady-gleam-known', 'known'] as const;
/** What is known is written so long after it is told, no oftener than this, and is older than this of no use, ms. */
const [SOON_MS, WRITE_MS, KEPT_MS] = [200, 3_000, 30 * 86_400_000] as const;

const open = () =>
  openDB<Known>(NAME, 1, {
    upgrade: (db) => void db.createObjectStore('known'),
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  });

/** Answers that are kept, the newest of them. */
const MOST = 300;

/** Brings back what this device was told before, where nothing newer is here. Where nothing can be read, there is nothing. */
export async function bringBackKnown(client: QueryClient, now = Date.now()): Promise<void> {
  try {
    const db = await open();
    const kept = await db.get('known', KEY);
    db.close();
    // What another build kept may have another shape.
    if (kept && kept.build === OWN_BUILD && now - kept.at < KEPT_MS) hydrate(client, kept.state);
  } catch {
    // Without it the page asks the server, as ever.
  }
}

/** How a query stands whose answer is there, and nothing else of it. */
const NEVER_FAILED = {
  ...{ error: null, errorUpdateCount: 0, errorUpdatedAt: 0, fetchFailureCount: 0, fetchFailureReason: null },
  ...{ fetchMeta: null, isInvalidated: true, status: 'success' as const, fetchStatus: 'idle' as const },
};

/** Keeps what is known, a while after each change. @returns what ends it */
export function keepKnown(client: QueryClient): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let written = 0;
  const write = async () => {
    timer = null;
    written = Date.now();
    const { queries } = dehydrate(client, {
      shouldDehydrateMutation: () => false,
      // What was told stays known, also when it was asked again in vain.
      shouldDehydrateQuery: (query) => query.state.data !== undefined,
    });
    try {
      const db = await open();
      const before = await db.get('known', KEY);
      const all = new Map((before?.build === OWN_BUILD ? before.state.queries : []).map((q) => [q.queryHash, q]));
      for (const { queryKey, queryHash, dehydratedAt, state } of queries) {
        const { data, dataUpdatedAt, dataUpdateCount } = state;
        if ((all.get(queryHash)?.state.dataUpdatedAt ?? 0) > dataUpdatedAt) continue;
        const told = { ...NEVER_FAILED, data, dataUpdatedAt, dataUpdateCount };
        all.set(queryHash, { queryKey, queryHash, dehydratedAt: dehydratedAt ?? dataUpdatedAt, state: told });
      }
      const newest = [...all.values()].sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt).slice(0, MOST);
      await db.put('known', { build: OWN_BUILD, at: Date.now(), state: { mutations: [], queries: newest } }, KEY);
      db.close();
    } catch {
      // A full or refused store costs only what would be shown while the server is away.
    }
  };
  const stop = client.getQueryCache().subscribe((event) => {
    if (event.type !== 'updated' || event.action.type !== 'success') return;
    timer ??= setTimeout(() => void write(), Math.max(SOON_MS, written + WRITE_MS - Date.now()));
  });
  return () => {
    stop();
    if (timer) clearTimeout(timer);
  };
}

/** Forgets it: whoever signs out leaves nothing to be read. */
export async function forgetKnown(): Promise<void> {
  try {
    const db = await open();
    await db.clear('known');
    db.close();
  } catch {
    // Nothing is kept, then.
  }
}
