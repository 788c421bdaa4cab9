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
import {
  exchange,
  keepEvent,
  keepSnapshot,
  keptEvents,
  readSnapshot,
  type BoothSnapshot,
  type KeptLog,
} from './boothStore';
import { newId } from '../../shared/newId';
import { shopNow } from '../../shared/clock';

/** The server is asked again this often while it is away, ms. */
const RETRY_MS = 2000;
/** With nothing to send, another device's taps are looked for once in so many of these. */
const QUIET_TICKS = 5;

export interface Booth {
  readonly snapshot: BoothSnapshot | null;
  readonly failure: string | null;
  readonly events: readonly BoothEvent[];
  /** Ids of the taps made on this device: only these are taken back here. */
  readonly own: ReadonlySet<string>;
  /** Taps the server has not got yet. */
  readonly unsent: number;
  /** Taps the server refused for good: they count for nothing, and are told. */
  readonly refused: KeptLog['refused'];
  readonly away: boolean;
  readonly tap: (event: Omit<BoothEvent, 'id' | 'at'>) => void;
}

/** A job in the booth: loaded from the server or, while it is away, from this device; taps are kept first and sent then. */
export function useBooth(jobId: string): Booth {
  const [snapshot, setSnapshot] = useState<BoothSnapshot | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [sendFault, setSendFault] = useState<string | null>(null);
  const [log, setLog] = useState<Pick<Booth, 'events' | 'own' | 'unsent' | 'refused'>>({
    events: [],
    own: new Set(),
    unsent: 0,
    refused: [],
  });
  const [away, setAway] = useState(false);
  const busy = useRef(false);
  const again = useRef(false);
  /** Something waits to be sent, or the server was away when it was last asked. */
  const owing = useRef(false);

  /** Takes in what this device has. Events only come, so what is shown already stays, also a tap that is just being written. */
  const look = useCallback(async () => {
    const kept = await keptEvents(jobId);
    setLog((old) => {
      const known = new Set([...kept.events, ...kept.refused.map((r) => r.event)].map((e) => e.id));
      const writing = old.events.filter((e) => !known.has(e.id));
      return {
        events: [...kept.events, ...writing],
        own: new Set([...kept.own, ...writing.map((e) => e.id)]),
        unsent: kept.unsent + writing.length,
        refused: kept.refused,
      };
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
      const full: BoothEvent = { ...event, id: newId(), at: Math.round(shopNow()) };
      // Seen at once, kept on this device, then sent.
      setLog((old) => ({
        ...old,
        events: [...old.events, full],
        own: new Set([...old.own, full.id]),
        unsent: old.unsent + 1,
      }));
      keepEvent(jobId, full).then(sync, () =>
        setSendFault('This device could not keep the last tap. Make room on it, reload, and tap again.'),
      );
    },
    [jobId, sync],
  );
  return { snapshot, failure: snapshot ? sendFault : failure, ...log, away, tap };
}
