import {
  type JobDetail,
  logApi,
  type StoredGun,
  type StoredMaterial,
  type StoredProduct,
} from '@steady-gleam/contracts';
import { eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ApiFailure, call } from '../apiClient';

/** Everything the booth needs of a job while the server is away. */
export interface BoothSnapshot {
  readonly detail: JobDetail;
  readonly own: readonly StoredMaterial[];
  readonly products: readonly StoredProduct[];
  readonly guns: readonly StoredGun[];
}

/** A tap on this device: not sent, known to the server, or refused by it for good. */
const WAITING = 0;
const SENT = 1;
const REFUSED = 2;

interface KeptEvent extends JobEvent {
  readonly jobId: string;
  readonly sent: typeof WAITING | typeof SENT | typeof REFUSED;
  /** It was tapped here, not on another device. */
  readonly own?: boolean;
  /** Why the server refused it. */
  readonly refusal?: string;
}

interface Kept extends DBSchema {
  snapshots: { key: string; value: BoothSnapshot };
  events: { key: string; value: KeptEvent; indexes: { job: string } };
}

const plain = ({ id, at, kind, cells, layerId, checkId, coats, look, mend, text }: KeptEvent): JobEvent => ({
  id,
  at,
  kind,
  cells,
  layerId,
  checkId,
  coats,
  look,
  ...(mend ? { mend } : {}),
  text,
});

/** A tap as an earlier program kept it. */
interface OldTap {
  readonly id: string;
  readonly at: number;
  readonly kind: JobEvent['kind'];
  readonly coatId: string | null;
  readonly pieceId: string | null;
  readonly text: string;
}

/** What an earlier program kept on this device, as it is kept now: no tap that was not sent yet is lost. */
export function carriedOver<T extends object>(kept: T | (T & OldTap)): T {
  if (!('pieceId' in kept)) return kept;
  const { coatId, pieceId, ...rest } = kept;
  const cells = coatId && pieceId ? [{ coatId, areaId: pieceId }] : [];
  return { ...eventOf(rest), ...rest, cells } as unknown as T;
}

let opened: Promise<IDBPDatabase<Kept>> | null = null;
const open = () =>
  (opened ??= openDB<Kept>('steady-gleam-booth', 3, {
    async upgrade(db, from, _to, tx) {
      if (from < 1) {
        db.createObjectStore('snapshots');
        db.createObjectStore('events', { keyPath: 'id' }).createIndex('job', 'jobId');
        return;
      }
      // A job that was kept for the booth is loaded anew; what was tapped is carried over.
      await tx.objectStore('snapshots').clear();
      if (from > 1) return;
      const events = tx.objectStore('events');
      for (const kept of await events.getAll()) await events.put(carriedOver(kept));
    },
  }));

export async function keepSnapshot(jobId: string, snapshot: BoothSnapshot): Promise<void> {
  await (await open()).put('snapshots', snapshot, jobId);
}

export async function readSnapshot(jobId: string): Promise<BoothSnapshot | undefined> {
  return (await open()).get('snapshots', jobId);
}

/** Whose log: a job's, or that of the run of a finish's card. */
export interface LogOf {
  /** The job, or the finish. */
  readonly ownerId: string;
  readonly ofCard: boolean;
}
/** Under which a log is kept on this device. */
const keyOf = ({ ownerId, ofCard }: LogOf): string => (ofCard ? `card of ${ownerId}` : ownerId);

/** Writes an event on this device before anything else is done with it. */
export async function keepEvent(of: LogOf, event: JobEvent): Promise<void> {
  await (await open()).put('events', { ...event, jobId: keyOf(of), sent: WAITING, own: true });
}

/** Everything this device knows of a run. What the server refused counts for nothing, but is told with its reason. */
export interface KeptLog {
  readonly events: readonly JobEvent[];
  /** Ids of those tapped on this device. */
  readonly own: readonly string[];
  readonly unsent: number;
  readonly refused: readonly { readonly event: JobEvent; readonly reason: string }[];
}

export async function keptEvents(of: LogOf): Promise<KeptLog> {
  const rows = await (await open()).getAllFromIndex('events', 'job', keyOf(of));
  const counted = rows.filter((r) => r.sent !== REFUSED);
  return {
    events: counted.map(plain),
    own: counted.filter((r) => r.own ?? r.sent === WAITING).map((r) => r.id),
    unsent: rows.filter((r) => r.sent === WAITING).length,
    refused: rows
      .filter((r) => r.sent === REFUSED)
      .map((r) => ({ event: plain(r), reason: r.refusal ?? 'The server refused it.' })),
  };
}

/** Most events in a request. */
const AT_ONCE = 200;

/** Answers that stay the same however often the same is sent. */
const FOR_GOOD: readonly string[] = ['badRequest', 'conflict', 'notFound', 'tooLarge'];

/**
 * Sends what the server has not got, oldest first, and takes in what it has. An event is marked as sent only when the server
 * has answered; sent again after a lost answer it is stored once. A tap the server refuses for good is set aside with its
 * reason, so that it keeps back no other. @throws ApiFailure when the server is away
 */
export async function exchange(of: LogOf): Promise<void> {
  const db = await open();
  const jobId = keyOf(of);
  const params = { id: of.ownerId };
  const [adding, reading] = of.ofCard ? [logApi.addCardEvents, logApi.readCardLog] : [logApi.addEvents, logApi.readLog];
  const send = (rows: readonly KeptEvent[]) =>
    (rows.length ? call(adding, { params, body: { events: rows.map(plain) } }) : call(reading, { params })) as Promise<
      JobEvent[]
    >;
  const takeIn = async (log: readonly JobEvent[]) => {
    const tx = db.transaction('events', 'readwrite');
    await Promise.all(
      log.map(async (e) => {
        const known = await tx.store.get(e.id);
        await tx.store.put({ ...e, jobId, sent: SENT, own: known?.own ?? known?.sent === WAITING });
      }),
    );
    await tx.done;
  };
  for (;;) {
    const rows = await db.getAllFromIndex('events', 'job', jobId);
    const waiting = rows
      .filter((r) => r.sent === WAITING)
      .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))
      .slice(0, AT_ONCE);
    try {
      await takeIn(await send(waiting));
    } catch (error) {
      if (!(error instanceof ApiFailure && waiting.length && FOR_GOOD.includes(error.code))) throw error;
      // One of them is at fault: each by itself, and only that one is set aside.
      for (const one of waiting) {
        try {
          await takeIn(await send([one]));
        } catch (fault) {
          if (!(fault instanceof ApiFailure && FOR_GOOD.includes(fault.code))) throw fault;
          const refusal = Object.values(fault.fields)[0] ?? fault.message;
          await db.put('events', { ...one, sent: REFUSED, own: true, refusal });
        }
      }
    }
    if (waiting.length < AT_ONCE) return;
  }
}
