import { eventOf, namedOf, TOLD_APART_MS, type JobEvent, type Told } from '@steady-gleam/core/jobs';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ApiFailure } from '../apiClient';
import { shopNow } from '../clock';
import { newId } from '../newId';
import { useReach } from '../reach';
import { keepEvent, keptEvents, type KeptLog, type LogOf } from './logStore';
import { exchangeOnce } from './post';

/** The server is asked again this often while it is away, ms. */
const RETRY_MS = 1000;
/** With nothing to send, another device's events are looked for once in so many of these. */
const QUIET_TICKS = 4;

/** The log of a job as this device knows it. */
export interface JobLog {
  readonly events: readonly JobEvent[];
  /** Ids of what was told on this device: only that is taken back here. */
  readonly own: ReadonlySet<string>;
  /** What the server has not got yet. */
  readonly unsent: number;
  /** What this device is still writing: lost if the page goes now. */
  readonly writing: number;
  /** What the server refused for good: it counts for nothing, and is told. */
  readonly refused: KeptLog['refused'];
  readonly away: boolean;
  readonly fault: string | null;
  /** Keeps events on this device, shows them at once, and sends them; several as one step, in their order. @returns their ids */
  readonly tell: (...events: readonly Told[]) => readonly string[];
}

/**
 * A log: kept on this device first and sent then, with what other devices told.
 * @param ownerId the job; of the run of a card its finish. @param onSent something new is known
 */
export function useLog(ownerId: string, ofCard = false, onSent?: () => void): JobLog {
  const of = useMemo((): LogOf => ({ ownerId, ofCard }), [ownerId, ofCard]);
  const [log, setLog] = useState<Pick<JobLog, 'events' | 'own' | 'unsent' | 'refused'>>({
    events: [],
    own: new Set(),
    unsent: 0,
    refused: [],
  });
  const [writing, setWriting] = useState(0);
  const { isAway } = useReach();
  const [fault, setFault] = useState<string | null>(null);
  /** Something waits to be sent, or the server was away when it was last asked. */
  const owing = useRef(false);
  const known = useRef(-1);
  const sent = useRef(onSent);
  useEffect(() => {
    sent.current = onSent;
  });

  /** Takes in what this device has. Events only come, so what is shown already stays, also one that is just being written. */
  const look = useCallback(async () => {
    const kept = await keptEvents(of);
    setLog((old) => {
      const there = new Set([...kept.events, ...kept.refused.map((r) => r.event)].map((e) => e.id));
      const writing = old.events.filter((e) => !there.has(e.id));
      return {
        events: [...kept.events, ...writing],
        own: new Set([...kept.own, ...writing.map((e) => e.id)]),
        unsent: kept.unsent + writing.length,
        refused: kept.refused,
      };
    });
    const count = kept.events.length - kept.unsent;
    if (known.current >= 0 && count !== known.current) sent.current?.();
    known.current = count;
    return kept.unsent;
  }, [of]);

  const sync = useCallback(async () => {
    let reached = true;
    try {
      await exchangeOnce(of);
      setFault(null);
    } catch (error) {
      reached = false;
      // Something else than an absent server is said; what was told stays on this device.
      setFault(error instanceof ApiFailure && !['offline', 'busy'].includes(error.code) ? error.message : null);
    }
    owing.current = (await look()) > 0 || !reached;
  }, [of, look]);

  useEffect(() => {
    const first = setTimeout(() => void look().then(() => sync()), 0);
    let ticks = 0;
    const timer = setInterval(() => {
      if (owing.current || ++ticks % QUIET_TICKS === 0) void sync();
    }, RETRY_MS);
    const wake = () => void sync();
    addEventListener('online', wake);
    document.addEventListener('visibilitychange', wake);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      removeEventListener('online', wake);
      document.removeEventListener('visibilitychange', wake);
    };
  }, [sync, look]);

  const tell = useCallback(
    (...told: readonly Told[]) => {
      const at = Math.round(shopNow());
      const full = told.map((e, i) =>
        eventOf({ ...e, cells: (e.cells ?? []).map(namedOf), id: newId(), at: at + i * TOLD_APART_MS }),
      );
      setLog((old) => ({
        ...old,
        events: [...old.events, ...full],
        own: new Set([...old.own, ...full.map((e) => e.id)]),
        unsent: old.unsent + full.length,
      }));
      setWriting((n) => n + full.length);
      Promise.all(full.map((e) => keepEvent(of, e)))
        .finally(() => setWriting((n) => n - full.length))
        .then(sync, () => setFault('This device could not keep the last tap. Make room on it, reload, and tap again.'));
      return full.map((e) => e.id);
    },
    [of, sync],
  );
  return { ...log, writing, away: isAway, fault, tell };
}
