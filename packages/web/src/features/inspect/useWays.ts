import { TEXTURES, type Texture } from '@steady-gleam/core/finishes';
import type { JobPlan, JobState, SeenSpot } from '@steady-gleam/core/jobs';
import { isPeelWord } from '@steady-gleam/core/letdown';
import { waysOut, type Moment, type WayOut } from '@steady-gleam/core/recovery';
import { useUnits } from '../../shared/units';
import { useCompute } from '../../worker/useCompute';
import type { Live } from '../spray/useLive';
import type { Place } from './inspectModel';

/** The ways out there are now for a place of an object; null while its card has not spoken or nobody has looked there. */
export function useWays(
  plan: JobPlan,
  state: JobState,
  live: Live,
  q: {
    readonly mixId: string;
    readonly moment: Moment | null;
    readonly place: Place | null;
    readonly looks: readonly SeenSpot[];
    readonly acrossCm: number;
    readonly atEdge: boolean;
    readonly off: string;
    readonly texture: Texture | null;
  },
): readonly WayOut[] | null {
  const units = useUnits();
  const { answer } = live.count;
  const spot = live.state?.spots.find((s) => s.spot === q.place?.name) ?? null;
  const layers = plan.layers;
  const angles = answer?.card.sought.read.angles ?? null;
  const asksControl = spot?.zone === 'unlike' && angles !== null;
  const { value: shift } = useCompute(
    asksControl
      ? JSON.stringify(['control', layers, q.mixId, spot.film, angles.map((a) => [a.incidence, a.aspecular])])
      : null,
    (c) => c.controlShift(layers, q.mixId, spot!.film, angles!),
  );
  if (!answer || !spot || !q.moment || !q.place) return null;
  return waysOut({
    ...{ plan, state, mixId: q.mixId, objectId: live.objectId, moment: q.moment },
    ...{ card: answer.card, read: answer.read, spot, areaIds: q.place.areaIds },
    others: live.state!.spots.filter((s) => s !== spot).map((s) => ({ ...s, areaIds: live.areasOf(s.spot) })),
    ...{ acrossCm: q.acrossCm, atEdge: q.atEdge, off: q.off },
    peel: peelOf(q.looks, q.texture),
    controlShift: shift ?? null,
    say: (cm) => units.say('distance', cm),
  });
}

/** How the peel there was called, and what lays the one that is wanted: as the target's was, else as most makers leave it. */
function peelOf(looks: readonly SeenSpot[], texture: Texture | null) {
  const word = looks.findLast((l) => isPeelWord(l.hue))?.hue;
  const row = TEXTURES.find((t) => t.id === (texture ?? 'slight'))!;
  return word ? { word, matchedBy: row.matchedBy } : null;
}
