import { useCallback, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';

export interface Probe {
  readonly groundId: string;
  readonly coats: number;
}

interface Place {
  readonly probe: Probe | null;
  readonly angle: number | null;
}

function readPlace(params: URLSearchParams): Place {
  const groundId = params.get('ground');
  const coats = Number(params.get('coats'));
  return {
    probe: groundId && coats > 0 ? { groundId, coats } : null,
    angle: params.has('angle') ? Number(params.get('angle')) : null,
  };
}

/**
 * The probe's place and the angle shown. Kept here, so that quick keys never act on an old place, and written to the
 * address bar after every move. The probe is null until the painter moved it.
 */
export function useProbe(): Place & { moveTo: (p: Probe) => void; showAngle: (aspecular: number) => void } {
  const [params, setParams] = useSearchParams();
  const [place, setPlace] = useState<Place>(() => readPlace(params));
  const { probe, angle } = place;

  useEffect(() => {
    const next = new URLSearchParams();
    if (probe) {
      next.set('ground', probe.groundId);
      next.set('coats', String(probe.coats));
    }
    if (angle !== null) next.set('angle', String(angle));
    setParams(next, { replace: true });
    // Only a move writes the address; setParams changes with every navigation.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [probe, angle]);

  return {
    probe,
    angle,
    moveTo: useCallback((p: Probe) => setPlace((old) => ({ ...old, probe: p })), []),
    showAngle: useCallback((a: number) => setPlace((old) => ({ ...old, angle: a })), []),
  };
}
