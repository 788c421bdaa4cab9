import { HEALTH_PATH } from '@steady-gleam/contracts';
import { ApiFailure, request, TAP_WAIT_MS } from '../apiClient';
import { onReach, reachNow } from '../reach';
import { device, REFUSED, WAITING, type KeptEvent, type Parcel } from './device';
import { exchange, FOR_GOOD, keyOf, logUnder, reasonFor, type LogOf } from './logStore';

/** Something the server refused for good, set aside on this device. */
export interface SetAside {
  readonly id: string;
  readonly jobId: string;
  readonly what: string;
  readonly reason: string;
  /** As it would be exported. */
  readonly content: KeptEvent | Parcel;
}

/** Everything on its way from this device, of all jobs. */
export interface PostState {
  /** By job, or by the key of a card's log. */
  readonly waiting: ReadonlyMap<string, number>;
  readonly parcels: readonly Parcel[];
  readonly setAside: readonly SetAside[];
  /** A fault of the program's in sending; null while there is none. */
  readonly fault: string | null;
}

/** The queue is looked at this often, and again so long after the server was away, ms. */
const [TICK_MS, AFTER_AWAY_MS] = [1000, 500] as const;
/** With nothing to send, the server that was away is asked for this often, ms; and how long for an answer. */
const [PROBE_MS, PROBE_WAIT_MS] = [1500, 3000] as const;

/** How long a photo may take on its way, ms. */
const PHOTO_WAIT_MS = 30_000;

let state: PostState = { waiting: new Map(), parcels: [], setAside: [], fault: null };
const listeners = new Set<() => void>();
/** Called when something that is no event arrived: what shows it asks anew. */
const arrivals = new Set<(parcel: Parcel) => void>();

export const postNow = (): PostState => state;
export function onPost(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function onArrival(listener: (parcel: Parcel) => void): () => void {
  arrivals.add(listener);
  return () => arrivals.delete(listener);
}

/** What waits, in all. */
export const waitingIn = ({ waiting, parcels }: PostState): number =>
  [...waiting.values()].reduce((sum, n) => sum + n, 0) + parcels.filter((p) => p.refusal === null).length;

/** Looks through what this device keeps. */
export async function lookAgain(fault: string | null = state.fault): Promise<void> {
  const here = await device();
  const [events, refused, parcels] = await Promise.all([here.allIn(WAITING), here.allIn(REFUSED), here.parcels()]);
  const waiting = new Map<string, number>();
  for (const { jobId } of events) waiting.set(jobId, (waiting.get(jobId) ?? 0) + 1);
  state = {
    ...{ waiting, parcels, fault },
    setAside: [
      ...refused.map((e) => ({ id: e.id, jobId: e.jobId, what: `a tap: ${e.kind}`, reason: reasonFor(e), content: e })),
      ...parcels
        .filter((p) => p.refusal !== null)
        .map((p) => ({ id: p.id, jobId: p.jobId, what: p.what, reason: p.refusal!, content: p })),
    ],
  };
  for (const l of listeners) l();
}

const running = new Map<string, { again: boolean; readonly done: Promise<void> }>();

/** {@link exchange}, one after the other for each log: who asks while one runs gets what comes after it. */
export function exchangeOnce(of: LogOf): Promise<void> {
  const key = keyOf(of);
  const now = running.get(key);
  if (now) {
    now.again = true;
    return now.done;
  }
  const own = { again: false, done: Promise.resolve() };
  const run = async () => {
    try {
      do {
        own.again = false;
        await exchange(of);
      } while (own.again);
    } finally {
      running.delete(key);
      await lookAgain();
    }
  };
  own.done = run();
  running.set(key, own);
  return own.done;
}

let sendingParcels: Promise<void> | null = null;
/** Answers to what was refused while its form is open, by parcel. */
const refusals = new Map<string, ApiFailure>();

/** A parcel is refused too where it was changed elsewhere meanwhile, and where this device may look only. */
const FOR_GOOD_OF_PARCELS: readonly string[] = [...FOR_GOOD, 'stale', 'notWorkable', 'lookOnly'];

/** One tab of this device at a time, where the browser can see to it: a parcel that was sent is not sent by another one. */
async function alone(work: () => Promise<void>): Promise<void> {
  const { locks } = globalThis.navigator ?? {};
  await (locks ? locks.request('steady-gleam-post', work) : work());
}

async function sendParcels(): Promise<void> {
  const here = await device();
  for (const parcel of await here.parcels()) {
    if (parcel.refusal !== null) continue;
    const { kind, method, path, body, type } = parcel;
    try {
      await request(
        path,
        { method, body, headers: { 'Content-Type': type } },
        kind === 'photo' ? PHOTO_WAIT_MS : TAP_WAIT_MS,
      );
      await here.removeParcel(parcel.id);
      for (const l of arrivals) l(parcel);
    } catch (error) {
      if (!(error instanceof ApiFailure && FOR_GOOD_OF_PARCELS.includes(error.code))) throw error;
      // Another tab has sent it meanwhile, and what it answers to now is its own.
      if (!(await here.parcels()).some((p) => p.id === parcel.id)) continue;
      refusals.set(parcel.id, error);
      await here.putParcel({ ...parcel, refusal: Object.values(error.fields)[0] ?? error.message });
    }
  }
}

/** Sends the parcels that wait, in their order. @throws ApiFailure when the server is away */
export function sendParcelsOnce(): Promise<void> {
  sendingParcels ??= alone(sendParcels).finally(async () => {
    sendingParcels = null;
    await lookAgain();
  });
  return sendingParcels;
}

/** Keeps a parcel here, then tries to send it within the time of a tap. @returns whether it arrived; false while it waits. @throws ApiFailure where it is refused */
export async function post(parcel: Omit<Parcel, 'refusal'>): Promise<boolean> {
  const here = await device();
  // It is shown as waiting only when it has to wait: what arrives at once is told by the server's own answer.
  await here.putParcel({ ...parcel, refusal: null });
  try {
    // One that is on its way already may have begun before this one was laid to it.
    if (sendingParcels) await sendingParcels.catch(() => undefined);
    await sendParcelsOnce();
  } catch (error) {
    if (!(error instanceof ApiFailure)) throw error;
    return false;
  }
  const left = (await here.parcels()).find((p) => p.id === parcel.id);
  if (!left || left.refusal === null) return left === undefined;
  // Who is standing before the form is told there; it waits for nothing.
  await here.removeParcel(parcel.id);
  await lookAgain();
  const refused = refusals.get(parcel.id) ?? new ApiFailure('badRequest', left.refusal);
  refusals.delete(parcel.id);
  throw refused;
}

/** Lets something go that was set aside. */
export async function forget({ id, content }: SetAside): Promise<void> {
  const here = await device();
  if ('path' in content) await here.removeParcel(id);
  else await here.removeEvent(id);
  await lookAgain();
}

/** Sends everything of every job that waits. @throws ApiFailure when the server is away */
async function sendAll(): Promise<void> {
  const logs = [...new Set((await (await device()).allIn(WAITING)).map((e) => e.jobId))];
  for (const key of logs) await exchangeOnce(logUnder(key));
  await sendParcelsOnce();
}

/** Sends what waits for as long as the page is open, whatever page it is. @returns what ends it */
export function startPost(): () => void {
  let isBusy = false;
  let next = 0;
  let probed = 0;
  const tick = async () => {
    if (isBusy || Date.now() < next) return;
    isBusy = true;
    try {
      if (waitingIn(state) > 0) await sendAll();
      else if (reachNow().isAway && Date.now() - probed > PROBE_MS) {
        probed = Date.now();
        await request(HEALTH_PATH, { method: 'GET' }, PROBE_WAIT_MS);
      }
      if (state.fault) await lookAgain(null);
    } catch (error) {
      next = Date.now() + AFTER_AWAY_MS;
      const isPassing = error instanceof ApiFailure && ['offline', 'busy', 'tooMany', 'locked'].includes(error.code);
      const fault = isPassing ? null : error instanceof Error ? error.message : String(error);
      if (fault !== state.fault) await lookAgain(fault);
    } finally {
      isBusy = false;
    }
  };
  void lookAgain().then(tick);
  const timer = setInterval(() => void tick(), TICK_MS);
  const wake = () => {
    next = 0;
    void tick();
  };
  addEventListener('online', wake);
  document.addEventListener('visibilitychange', wake);
  const stopReach = onReach((now, before) => {
    if (before.isLocked && !now.isLocked) wake();
  });
  return () => {
    clearInterval(timer);
    removeEventListener('online', wake);
    document.removeEventListener('visibilitychange', wake);
    stopReach();
  };
}
