import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

export interface Probe {
  readonly groundId: string;
  readonly coats: number;
}

/** The probe's place and the angle shown, kept in the address bar. Null until the painter moved the probe. */
export function useProbe(): {
  probe: Probe | null;
  angle: number | null;
  moveTo: (p: Probe) => void;
  showAngle: (aspecular: number) => void;
} {
  const [params, setParams] = useSearchParams();
  const groundId = params.get('ground');
  const coats = Number(params.get('coats'));
  const set = useCallback(
    (entries: Record<string, string>) =>
      setParams(
        (old) => {
          const next = new URLSearchParams(old);
          for (const [k, v] of Object.entries(entries)) next.set(k, v);
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  return {
    probe: groundId && coats > 0 ? { groundId, coats } : null,
    angle: params.has('angle') ? Number(params.get('angle')) : null,
    moveTo: useCallback((p: Probe) => set({ ground: p.groundId, coats: String(p.coats) }), [set]),
    showAngle: useCallback((a: number) => set({ angle: String(a) }), [set]),
  };
}
