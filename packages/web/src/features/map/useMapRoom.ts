import type { Illuminant } from '@steady-gleam/core/colour';
import type { Mix } from '@steady-gleam/core/looks';
import type { MapPick, MatchMap } from '@steady-gleam/core/matching';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { angleKey } from '../../shared/angles';
import { mixOf, pickedCount, pickOf, targetOf } from '../../shared/jobModel';
import type { PageDetail } from '../../shared/useJob';
import { useWrittenLater } from '../../shared/useWrittenLater';
import { LIGHTS } from './MapControls';
import { mapExposures } from './mapModel';
import { useDesign } from './useDesign';
import { useMatchMap } from './useMatchMap';
import { useProbe } from './useProbe';

/** The address follows so long after the slider rests, ms; a navigation at every step would cost the picture its time. */
const ADDRESS_AFTER = 400;

/** What the map is about, and what is asked of it: mix, light, the angle shown and the place under the probe. */
export function useMapRoom(detail: PageDetail) {
  const { job, target: set } = detail;
  const [params] = useSearchParams();
  const read = useMemo(() => targetOf(set, detail), [set, detail]);
  const design = useDesign(detail, read.length === 0 && params.has('design'));
  const target = read.length ? read : design.from;
  const { probe, angle, start, showMix, moveTo, showAngle } = useProbe();
  const [startMix] = useState((): Mix => ({ ...mixOf(job), ...start }));
  const mix = useRef(startMix);
  const [light, setLight] = useState<Illuminant>('D65');
  const { shown, settled, error, ask } = useMatchMap(target);

  // Anything but the mix itself changed: the target, the materials, the light.
  useEffect(() => ask({ mix: mix.current, light }), [ask, light]);
  const onMix = useCallback(
    (next: Mix) => {
      mix.current = next;
      ask({ mix: next, light });
    },
    [ask, light],
  );

  // So that leaving and coming back loses nothing.
  useWrittenLater(settled && shown && shown.mix !== startMix ? shown.mix : null, ADDRESS_AFTER, showMix);

  const map = shown?.map ?? null;
  const exposures = useMemo(() => (map ? mapExposures(map, target) : []), [map, target]);
  const shownAt = Math.max(
    0,
    target.findIndex((t) => angleKey(t) === (angle ?? '45')),
  );
  const onStep = useCallback(
    (step: 'angle up' | 'angle down' | 'light') => {
      if (step === 'light') {
        setLight((old) => LIGHTS[(LIGHTS.findIndex((l) => l.id === old) + 1) % LIGHTS.length]!.id);
      } else {
        const next = shownAt + (step === 'angle up' ? 1 : -1);
        showAngle(angleKey(target[Math.min(target.length - 1, Math.max(0, next))]!));
      }
    },
    [target, shownAt, showAngle],
  );
  const place = probe ?? (map && placeOf(job, map));
  // One value as long as it is the same place: maps come with every step of the slider.
  const [groundId, coats] = [place?.groundId, place?.coats];
  const at = useMemo(
    (): MapPick | null => (groundId === undefined || coats === undefined ? null : { groundId, coats }),
    [groundId, coats],
  );

  return {
    ...{ target, design, startMix, light, shown, settled, error, exposures, shownAt, at },
    ...{ onMix, onStep, moveTo, showAngle, setLight },
  };
}

/** Where the probe stands before it was moved: at what is picked, or at the best place. */
function placeOf(job: PageDetail['job'], map: MatchMap): MapPick {
  if (!job.pick) return map.best;
  const coats = pickedCount(job);
  return { groundId: pickOf(job).groundId, coats: map.counts.includes(coats) ? coats : map.best.coats };
}

export type MapRoom = ReturnType<typeof useMapRoom>;
