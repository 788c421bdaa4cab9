import type { Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Compute } from './computeTypes';
import { onMaterials } from './materialsOf';
import { startWorker } from './startWorker';

const remotes: (Remote<Compute> | null)[] = [null, null];

/** One of the page's two workers. The first answers single questions; maps and searches are shared between both. */
export function computeRemote(which: 0 | 1 = 0): Remote<Compute> {
  const known = remotes[which];
  if (known) return known;
  const made = startWorker();
  remotes[which] = made;
  onMaterials((materials) => void made.setMaterials(materials));
  return made;
}

export interface Computed<T> {
  readonly value: T | null;
  /** The value belongs to an earlier request; a newer one is on its way. */
  readonly stale: boolean;
  readonly error: string | null;
}

/**
 * Computes in the worker, newest request wins: while one runs, only the latest that came in waits. The last value stays
 * until the next is there, so a picture never blinks while a slider moves.
 * @param key identifies the request; null computes nothing and keeps what was there.
 */
export function useCompute<T>(key: string | null, run: (compute: Remote<Compute>) => Promise<T>): Computed<T> {
  const [done, setDone] = useState<{ key: string; value: T } | null>(null);
  const [failed, setFailed] = useState<{ key: string; message: string } | null>(null);
  const wanted = useRef<{ key: string; run: typeof run } | null>(null);
  const busy = useRef(false);
  const mounted = useRef(true);

  useEffect(() => {
    mounted.current = true;
    return () => {
      mounted.current = false;
    };
  }, []);

  useEffect(() => {
    if (key === null) return;
    wanted.current = { key, run };
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      while (wanted.current && mounted.current) {
        const now = wanted.current;
        wanted.current = null;
        try {
          const value = await now.run(computeRemote());
          if (mounted.current) setDone({ key: now.key, value });
        } catch (error) {
          if (mounted.current)
            setFailed({ key: now.key, message: error instanceof Error ? error.message : String(error) });
        }
      }
      busy.current = false;
    })();
    // `run` is a closure over what `key` spells out.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);

  return {
    value: done?.value ?? null,
    stale: done?.key !== key,
    error: failed && failed.key === key ? failed.message : null,
  };
}
