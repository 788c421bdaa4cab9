import { useCallback, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { STYLES, type StyleId } from '@steady-gleam/core/finishes';
import type { Mix } from '@steady-gleam/core/looks';
import { canSweep } from '@steady-gleam/core/matching';

export interface Probe {
  readonly groundId: string;
  readonly coats: number;
}

/** A recipe the address asks for, for instance from the recipe search. */
export type StartMix = Partial<Pick<Mix, 'strength' | 'style' | 'controlCoats'>>;

interface Place {
  readonly probe: Probe | null;
  readonly angle: string | null;
}

function readPlace(params: URLSearchParams): Place {
  const groundId = params.get('ground');
  const coats = Number(params.get('coats'));
  return {
    probe: groundId && coats > 0 ? { groundId, coats } : null,
    angle: params.get('angle'),
  };
}

function readStart(params: URLSearchParams): StartMix {
  const strength = Number(params.get('strength'));
  const style = params.get('style');
  const control = params.get('control');
  return {
    ...(canSweep(strength) ? { strength } : {}),
    ...(style && style in STYLES ? { style: style as StyleId } : {}),
    ...(control ? { controlCoats: Math.min(4, Math.max(0, Number(control) || 0)) } : {}),
  };
}

/**
 * The probe's place and the angle shown. Kept here, so that quick keys never act on an old place, and written to the
 * address bar after every move. The probe is null until the painter moved it.
 */
export function useProbe(): Place & {
  start: StartMix;
  /** The mix the address should name from now on. */
  showMix: (mix: Mix) => void;
  moveTo: (p: Probe) => void;
  showAngle: (angle: string) => void;
} {
  const [params, setParams] = useSearchParams();
  const [place, setPlace] = useState<Place>(() => readPlace(params));
  const [mix, setMix] = useState<Mix | null>(null);
  const [start] = useState(() => readStart(params));
  const { probe, angle } = place;

  useEffect(() => {
    // The address as it stands now: two writes in one frame must not undo each other.
    const next = new URLSearchParams(location.search);
    if (probe) {
      next.set('ground', probe.groundId);
      next.set('coats', String(probe.coats));
    }
    if (angle !== null) next.set('angle', angle);
    if (mix) {
      next.set('strength', String(mix.strength));
      next.set('style', mix.style);
      next.set('control', String(mix.controlCoats));
    }
    setParams(next, { replace: true });
    // Only a move writes the address; setParams changes with every navigation.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [probe, angle, mix]);

  return {
    probe,
    angle,
    start,
    showMix: setMix,
    moveTo: useCallback((p: Probe) => setPlace((old) => ({ ...old, probe: p })), []),
    showAngle: useCallback((a: string) => setPlace((old) => ({ ...old, angle: a })), []),
  };
}
