import {
  sprayApi,
  type JobDetail,
  type StoredGun,
  type StoredMaterial,
  type StoredProduct,
} from '@steady-gleam/contracts';
import type { BoothEvent } from '@steady-gleam/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ApiFailure, call } from '../../shared/apiClient';

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

interface KeptEvent extends BoothEvent {
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

const plain = ({ id, at, kind, coatId, pieceId, text }: KeptEvent): BoothEvent => ({
  id,
  at,
  kind,
  coatId,
  pieceId,
  text,
});

let opened: Promise<IDBPDatabase<Kept>> | null = null;
const open = () =>
  (opened ??= openDB<Kept>('steady-gleam-booth', 1, {
    upgrade(db) {
      db.createObjectStore('snapshots');
      db.createObjectStore('events', { keyPath: 'id' }).createIndex('job', 'jobId');
    },
  }));

export async function keepSnapshot(jobId: string, snapshot: BoothSnapshot): Promise<void> {
  await (await open()).put('snapshots', snapshot, jobId);
}

export async function readSnapshot(jobId: string): Promise<BoothSnapshot | undefined> {
  return (await open()).get('snapshots', jobId);
}

/** Writes an event on this device before anything else is done with it. */
export async function keepEvent(jobId: string, event: BoothEvent): Promise<void> {
  await (await open()).put('events', { ...event, jobId, sent: WAITING, own: true });
}

/** Everything this device knows of a run. What the server refused counts for nothing, but is told with its reason. */
export interface KeptLog {
  readonly events: readonly BoothEvent[];
  /** Ids of those tapped on this device. */
  readonly own: readonly string[];
  readonly unsent: number;
  readonly refused: readonly { readonly event: BoothEvent; readonly reason: string }[];
}

export async function keptEvents(jobId: string): Promise<KeptLog> {
  const rows = await (await open()).getAllFromIndex('events', 'job', jobId);
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
export async function exchange(jobId: string): Promise<void> {
  const db = await open();
  const send = (rows: readonly KeptEvent[]) =>
    (rows.length
      ? call(sprayApi.addBooth, { params: { id: jobId }, body: { events: rows.map(plain) } })
      : call(sprayApi.readBooth, { params: { id: jobId } })) as Promise<BoothEvent[]>;
  const takeIn = async (log: readonly BoothEvent[]) => {
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
