import {
  sprayApi,
  type JobDetail,
  type StoredGun,
  type StoredMaterial,
  type StoredProduct,
} from '@steady-gleam/contracts';
import type { BoothEvent } from '@steady-gleam/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { call } from '../../shared/apiClient';

/** Everything the booth needs of a job while the server is away. */
export interface BoothSnapshot {
  readonly detail: JobDetail;
  readonly own: readonly StoredMaterial[];
  readonly products: readonly StoredProduct[];
  readonly guns: readonly StoredGun[];
}

interface Kept extends DBSchema {
  snapshots: { key: string; value: BoothSnapshot };
  events: { key: string; value: BoothEvent & { jobId: string; sent: 0 | 1 }; indexes: { job: string } };
}

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
  await (await open()).put('events', { ...event, jobId, sent: 0 });
}

export async function keptEvents(jobId: string): Promise<{ events: BoothEvent[]; unsent: number }> {
  const rows = await (await open()).getAllFromIndex('events', 'job', jobId);
  return {
    events: rows.map(({ id, at, kind, coatId, pieceId, text }) => ({ id, at, kind, coatId, pieceId, text })),
    unsent: rows.filter((r) => !r.sent).length,
  };
}

/** Most events in a request. */
const AT_ONCE = 200;

/**
 * Sends what the server has not got, oldest first, and takes in what it has. An event is marked as sent only when the server
 * has answered; sent again after a lost answer it is stored once. @throws ApiFailure when the server is away
 */
export async function exchange(jobId: string): Promise<void> {
  const db = await open();
  for (;;) {
    const rows = await db.getAllFromIndex('events', 'job', jobId);
    const waiting = rows
      .filter((r) => !r.sent)
      .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))
      .slice(0, AT_ONCE);
    const events = waiting.map(({ id, at, kind, coatId, pieceId, text }) => ({ id, at, kind, coatId, pieceId, text }));
    const log = (
      waiting.length
        ? await call(sprayApi.addBooth, { params: { id: jobId }, body: { events } })
        : await call(sprayApi.readBooth, { params: { id: jobId } })
    ) as BoothEvent[];
    const tx = db.transaction('events', 'readwrite');
    await Promise.all(log.map((e) => tx.store.put({ ...e, jobId, sent: 1 })));
    await tx.done;
    if (waiting.length < AT_ONCE) return;
  }
}
