import type { JobDetail, StoredGun, StoredMaterial, StoredProduct } from '@steady-gleam/contracts';
import { eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** Everything the booth needs of a job while the server is away. */
export interface BoothSnapshot {
  readonly detail: JobDetail;
  readonly own: readonly StoredMaterial[];
  readonly products: readonly StoredProduct[];
  readonly guns: readonly StoredGun[];
}

/** What was told on this device: not sent, known to the server, or refused by it for good. */
export const WAITING = 0;
export const SENT = 1;
export const REFUSED = 2;

export interface KeptEvent extends JobEvent {
  readonly jobId: string;
  readonly sent: typeof WAITING | typeof SENT | typeof REFUSED;
  /** It was tapped here, not on another device. */
  readonly own?: boolean;
  /** Why the server refused it. */
  readonly refusal?: string;
}

/** Something else than an event that is on its way to the server: a photo, a batch, what was left of one. */
export interface Parcel {
  readonly id: string;
  readonly kind: 'photo' | 'batch' | 'batch ended' | 'look' | 'readings';
  readonly jobId: string;
  /** What it is, as it is said. */
  readonly what: string;
  /** ms since 1970; parcels are sent in their order. */
  readonly at: number;
  readonly method: 'POST' | 'PATCH';
  readonly path: string;
  readonly type: string;
  readonly body: ArrayBuffer | string;
  /** Why the server refused it; null while it waits. */
  readonly refusal: string | null;
}

interface Kept extends DBSchema {
  snapshots: { key: string; value: BoothSnapshot };
  events: {
    key: string;
    value: KeptEvent;
    indexes: { job: string; state: [string, number]; sent: number };
  };
  /** By log: the sequence of the newest event of it that came from the server. */
  marks: { key: string; value: number };
  parcels: { key: string; value: Parcel };
}

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
  // An entry of either age goes in; that what comes out is the newer one can't be told to the compiler.
  return { ...eventOf(rest), ...rest, cells } as unknown as T;
}

/** What keeps what is told here. */
export interface Device {
  readonly eventsOf: (key: string) => Promise<KeptEvent[]>;
  readonly waitingOf: (key: string) => Promise<KeptEvent[]>;
  /** Of every log. */
  readonly allIn: (sent: KeptEvent['sent']) => Promise<KeptEvent[]>;
  readonly event: (id: string) => Promise<KeptEvent | undefined>;
  readonly putEvents: (events: readonly KeptEvent[]) => Promise<void>;
  readonly removeEvent: (id: string) => Promise<void>;
  readonly mark: (key: string) => Promise<number>;
  readonly setMark: (key: string, sequence: number) => Promise<void>;
  readonly snapshot: (key: string) => Promise<BoothSnapshot | undefined>;
  readonly putSnapshot: (key: string, snapshot: BoothSnapshot) => Promise<void>;
  /** In the order they were made. */
  readonly parcels: () => Promise<Parcel[]>;
  readonly putParcel: (parcel: Parcel) => Promise<void>;
  readonly removeParcel: (id: string) => Promise<void>;
}

/** Why this device keeps nothing across a reload; null where it does. */
export type StorageFault = 'newer' | 'refused';
let fault: StorageFault | null = null;
export const storageFault = (): StorageFault | null => fault;

const NAME = 'steady-gleam-booth';
const VERSION = 4;

async function openKept(onTaken: () => void, onClosed: () => void): Promise<IDBPDatabase<Kept>> {
  const db = await openDB<Kept>(NAME, VERSION, {
    // What it promises is waited for: the upgrade's own transaction stays open for it.
    // eslint-disable-next-line @typescript-eslint/no-misused-promises
    async upgrade(db, from, _to, tx) {
      if (from < 1) {
        db.createObjectStore('snapshots');
        db.createObjectStore('events', { keyPath: 'id' }).createIndex('job', 'jobId');
      }
      const events = tx.objectStore('events');
      if (from === 1) for (const kept of await events.getAll()) await events.put(carriedOver(kept));
      // A job that was kept for the booth is loaded anew; what was tapped is carried over.
      if (from > 0 && from < 3) await tx.objectStore('snapshots').clear();
      if (from < 4) {
        events.createIndex('state', ['jobId', 'sent']);
        events.createIndex('sent', 'sent');
        db.createObjectStore('marks');
        db.createObjectStore('parcels', { keyPath: 'id' });
      }
    },
    // A newer program in another tab wants to bring it up: this one lets go, and works on without.
    blocking: () => {
      db.close();
      onTaken();
    },
    terminated: onClosed,
  });
  return db;
}

function byDatabase(db: () => Promise<IDBPDatabase<Kept>>): Device {
  return {
    eventsOf: async (key) => (await db()).getAllFromIndex('events', 'job', key),
    waitingOf: async (key) => (await db()).getAllFromIndex('events', 'state', [key, WAITING]),
    allIn: async (sent) => (await db()).getAllFromIndex('events', 'sent', sent),
    event: async (id) => (await db()).get('events', id),
    putEvents: async (events) => {
      const tx = (await db()).transaction('events', 'readwrite');
      await Promise.all([...events.map((e) => tx.store.put(e)), tx.done]);
    },
    removeEvent: async (id) => (await db()).delete('events', id),
    mark: async (key) => (await (await db()).get('marks', key)) ?? 0,
    setMark: async (key, sequence) => void (await (await db()).put('marks', sequence, key)),
    snapshot: async (key) => (await db()).get('snapshots', key),
    putSnapshot: async (key, snapshot) => void (await (await db()).put('snapshots', snapshot, key)),
    parcels: async () => (await (await db()).getAll('parcels')).sort((a, b) => a.at - b.at),
    putParcel: async (parcel) => void (await (await db()).put('parcels', parcel)),
    removeParcel: async (id) => (await db()).delete('parcels', id),
  };
}

/** Keeps for as long as the page is open: what there is where the browser keeps nothing. */
function inMemory(): Device {
  const events = new Map<string, KeptEvent>();
  const marks = new Map<string, number>();
  const snapshots = new Map<string, BoothSnapshot>();
  const parcels = new Map<string, Parcel>();
  const where = (is: (e: KeptEvent) => boolean) => Promise.resolve([...events.values()].filter(is));
  return {
    eventsOf: (key) => where((e) => e.jobId === key),
    waitingOf: (key) => where((e) => e.jobId === key && e.sent === WAITING),
    allIn: (sent) => where((e) => e.sent === sent),
    event: async (id) => events.get(id),
    putEvents: async (all) => all.forEach((e) => events.set(e.id, e)),
    removeEvent: async (id) => void events.delete(id),
    mark: async (key) => marks.get(key) ?? 0,
    setMark: async (key, sequence) => void marks.set(key, sequence),
    snapshot: async (key) => snapshots.get(key),
    putSnapshot: async (key, snapshot) => void snapshots.set(key, snapshot),
    parcels: async () => [...parcels.values()].sort((a, b) => a.at - b.at),
    putParcel: async (parcel) => void parcels.set(parcel.id, parcel),
    removeParcel: async (id) => void parcels.delete(id),
  };
}

let opened: Promise<Device> | null = null;

/** From now on in the page's memory. What waits in the store is the newer program's to send. */
function goOnWithout(why: StorageFault): Device {
  const memory = inMemory();
  fault = why;
  opened = Promise.resolve(memory);
  return memory;
}

async function openDevice(): Promise<Device> {
  let kept: Promise<IDBPDatabase<Kept>> | null = null;
  const db = () =>
    (kept ??= openKept(
      () => void goOnWithout('newer'),
      () => (kept = null),
    ));
  try {
    await db();
    return byDatabase(db);
  } catch (error) {
    return goOnWithout((error as { name?: string }).name === 'VersionError' ? 'newer' : 'refused');
  }
}

/** This device's own store; where the browser refuses one, or a newer program holds it, the page's memory. */
export const device = (): Promise<Device> => (opened ??= openDevice());

/** Asks the browser not to clear what is kept here when it runs out of room. Where it is not asked, or says no, all goes on. */
export async function askToPersist(): Promise<void> {
  try {
    if (!(await navigator.storage?.persisted())) await navigator.storage?.persist();
  } catch {
    // Of no consequence but for a device that runs full.
  }
}
