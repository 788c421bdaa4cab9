import {
  api,
  materialsApi,
  shopApi,
  type StoredGun,
  type StoredMaterial,
  type StoredProduct,
} from '@steady-gleam/contracts';
import type { BoothEvent } from '@steady-gleam/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiFailure, call } from '../../shared/apiClient';
import { computeRemote } from '../../worker/useCompute';
import { exchange, keepEvent, keepSnapshot, keptEvents, readSnapshot, type BoothSnapshot } from './boothStore';

/** The server is asked again this often while it is away, ms. */
const RETRY_MS = 2000;
/** With nothing to send, another device's taps are looked for once in so many of these. */
const QUIET_TICKS = 5;

export interface Booth {
  readonly snapshot: BoothSnapshot | null;
  readonly failure: string | null;
  readonly events: readonly BoothEvent[];
  /** Taps the server has not got yet. */
  readonly unsent: number;
  readonly away: boolean;
  readonly tap: (event: Omit<BoothEvent, 'id' | 'at'>) => void;
}

/** A job in the booth: loaded from the server or, while it is away, from this device; taps are kept first and sent then. */
export function useBooth(jobId: string): Booth {
  const [snapshot, setSnapshot] = useState<BoothSnapshot | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [sendFault, setSendFault] = useState<string | null>(null);
  const [log, setLog] = useState<{ events: readonly BoothEvent[]; unsent: number }>({ events: [], unsent: 0 });
  const [away, setAway] = useState(false);
  const busy = useRef(false);
  const again = useRef(false);
  /** Something waits to be sent, or the server was away when it was last asked. */
  const owing = useRef(false);

  /** Takes in what this device has. Events only come, so what is shown already stays, also a tap that is just being written. */
  const look = useCallback(async () => {
    const kept = await keptEvents(jobId);
    setLog((old) => {
      const known = new Set(kept.events.map((e) => e.id));
      const writing = old.events.filter((e) => !known.has(e.id));
      return { events: [...kept.events, ...writing], unsent: kept.unsent + writing.length };
    });
    return kept.unsent;
  }, [jobId]);

  const sync = useCallback(async () => {
    if (busy.current) {
      again.current = true;
      return;
    }
    busy.current = true;
    try {
      do {
        again.current = false;
        let reached = true;
        try {
          await exchange(jobId);
          setSendFault(null);
        } catch (error) {
          reached = false;
          // Something else than an absent server is the program's fault: it is said, and the taps stay on this device.
          setSendFault(error instanceof ApiFailure && error.code !== 'offline' ? error.message : null);
        }
        setAway(!reached);
        owing.current = (await look()) > 0 || !reached;
      } while (again.current);
    } finally {
      busy.current = false;
    }
  }, [jobId, look]);

  useEffect(() => {
    let gone = false;
    const load = async () => {
      await look();
      try {
        const [detail, own, products, guns] = await Promise.all([
          call(api.readJob, { params: { id: jobId } }),
          call(materialsApi.list) as unknown as Promise<StoredMaterial[]>,
          call(shopApi.listProducts) as unknown as Promise<StoredProduct[]>,
          call(shopApi.listGuns) as unknown as Promise<StoredGun[]>,
        ]);
        const fresh = { detail, own, products, guns };
        await keepSnapshot(jobId, fresh);
        if (!gone) setSnapshot(fresh);
      } catch (error) {
        const kept = await readSnapshot(jobId);
        if (gone) return;
        if (kept) setSnapshot(kept);
        else setFailure(error instanceof Error ? error.message : String(error));
      }
    };
    void load().then(() => sync());
    let ticks = 0;
    const timer = setInterval(() => {
      if (owing.current || ++ticks % QUIET_TICKS === 0) void sync();
    }, RETRY_MS);
    const wake = () => void sync();
    addEventListener('online', wake);
    document.addEventListener('visibilitychange', wake);
    return () => {
      gone = true;
      clearInterval(timer);
      removeEventListener('online', wake);
      document.removeEventListener('visibilitychange', wake);
    };
  }, [jobId, sync, look]);

  useEffect(() => {
    if (snapshot) void computeRemote().setMaterials(snapshot.own.map((m) => m.material));
  }, [snapshot]);

  const tap = useCallback(
    (event: Omit<BoothEvent, 'id' | 'at'>) => {
      const full: BoothEvent = { ...event, id: crypto.randomUUID(), at: Date.now() };
      // Seen at once, kept on this device, then sent.
      setLog((old) => ({ events: [...old.events, full], unsent: old.unsent + 1 }));
      keepEvent(jobId, full).then(sync, () =>
        setSendFault('This device could not keep the last tap. Make room on it, reload, and tap again.'),
      );
    },
    [jobId, sync],
  );
  return { snapshot, failure: snapshot ? sendFault : failure, events: log.events, unsent: log.unsent, away, tap };
}
