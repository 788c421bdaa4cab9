import { logApi, type StoredEvent } from '@steady-gleam/contracts';
import { plainEvent, type JobEvent } from '@steady-gleam/core/jobs';
import { ApiFailure, call, TAP_WAIT_MS } from '../apiClient';
import { device, REFUSED, SENT, WAITING, type BoothSnapshot, type KeptEvent } from './device';

export const keepSnapshot = async (jobId: string, snapshot: BoothSnapshot): Promise<void> =>
  (await device()).putSnapshot(jobId, snapshot);

export const readSnapshot = async (jobId: string): Promise<BoothSnapshot | undefined> =>
  (await device()).snapshot(jobId);

/** Whose log: a job's, or that of the run of a finish's card. */
export interface LogOf {
  /** The job, or the finish. */
  readonly ownerId: string;
  readonly ofCard: boolean;
}

const OF_CARD = 'card of ';
/** Under which a log is kept on this device. */
export const keyOf = ({ ownerId, ofCard }: LogOf): string => (ofCard ? `${OF_CARD}${ownerId}` : ownerId);
/** The log that is kept under a key. */
export const logUnder = (key: string): LogOf =>
  key.startsWith(OF_CARD) ? { ownerId: key.slice(OF_CARD.length), ofCard: true } : { ownerId: key, ofCard: false };

/** Writes an event on this device before anything else is done with it. */
export async function keepEvent(of: LogOf, event: JobEvent): Promise<void> {
  await (await device()).putEvents([{ ...event, jobId: keyOf(of), sent: WAITING, own: true }]);
}

/** Everything this device knows of a run. What the server refused counts for nothing, but is told with its reason. */
export interface KeptLog {
  readonly events: readonly JobEvent[];
  /** Ids of those tapped on this device. */
  readonly own: readonly string[];
  readonly unsent: number;
  readonly refused: readonly { readonly event: JobEvent; readonly reason: string }[];
}

export const reasonFor = (kept: KeptEvent): string => kept.refusal ?? 'The server refused it.';

export async function keptEvents(of: LogOf): Promise<KeptLog> {
  const rows = await (await device()).eventsOf(keyOf(of));
  const counted = rows.filter((r) => r.sent !== REFUSED);
  return {
    events: counted.map(plainEvent),
    own: counted.filter((r) => r.own ?? r.sent === WAITING).map((r) => r.id),
    unsent: rows.filter((r) => r.sent === WAITING).length,
    refused: rows.filter((r) => r.sent === REFUSED).map((r) => ({ event: plainEvent(r), reason: reasonFor(r) })),
  };
}

/** Most events in a request. */
const AT_ONCE = 200;

/** Answers that stay the same however often the same is sent. */
export const FOR_GOOD: readonly string[] = ['badRequest', 'conflict', 'notFound', 'tooLarge'];

/**
 * Sends what the server has not got, oldest first, and takes in what it has that is new here. An event is marked as sent only
 * when the server has answered; sent again after a lost answer it is stored once. A tap the server refuses for good is set aside
 * with its reason, so that it keeps back no other. @throws ApiFailure when the server is away
 */
export async function exchange(of: LogOf): Promise<void> {
  const here = await device();
  const key = keyOf(of);
  const params = { id: of.ownerId };
  const [adding, reading] = of.ofCard ? [logApi.addCardEvents, logApi.readCardLog] : [logApi.addEvents, logApi.readLog];
  const send = async (rows: readonly KeptEvent[]): Promise<readonly StoredEvent[]> => {
    // The log of a card is short, and another one when an earlier card is recalled: it is told whole.
    const since = of.ofCard ? 0 : await here.mark(key);
    return rows.length
      ? call(adding, { params, body: { events: rows.map(plainEvent), since }, waitMs: TAP_WAIT_MS })
      : call(reading, { params, body: { since }, waitMs: TAP_WAIT_MS });
  };
  const takeIn = async (log: readonly StoredEvent[], sent: readonly KeptEvent[]) => {
    const told = new Map(log.map((e) => [e.id, e]));
    const now = await Promise.all(
      log.map(async (e): Promise<KeptEvent> => {
        const known = await here.event(e.id);
        return { ...plainEvent(e), jobId: key, sent: SENT, own: known?.own ?? known?.sent === WAITING };
      }),
    );
    // What was there already is not told again.
    const rest = sent.filter((e) => !told.has(e.id)).map((e): KeptEvent => ({ ...e, sent: SENT, own: true }));
    if (now.length + rest.length) await here.putEvents([...now, ...rest]);
    if (log.length) await here.setMark(key, Math.max(...log.map((e) => e.sequence)));
  };
  for (;;) {
    const waiting = (await here.waitingOf(key)).sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)).slice(0, AT_ONCE);
    try {
      await takeIn(await send(waiting), waiting);
    } catch (error) {
      if (!(error instanceof ApiFailure && waiting.length && FOR_GOOD.includes(error.code))) throw error;
      // One of them is at fault: each by itself, and only that one is set aside.
      for (const one of waiting) {
        try {
          await takeIn(await send([one]), [one]);
        } catch (fault) {
          if (!(fault instanceof ApiFailure && FOR_GOOD.includes(fault.code))) throw fault;
          const refusal = Object.values(fault.fields)[0] ?? fault.message;
          await here.putEvents([{ ...one, sent: REFUSED, own: true, refusal }]);
        }
      }
    }
    if (waiting.length < AT_ONCE) return;
  }
}
