import { CURED, SAND_CLEAR, SAND_TO_BREAK } from '../faults/ways';
import { type MendStep, type MendReach } from '../jobs/mendSteps';
import { ALL } from '../jobs/reach';
import { sayList } from '../jobs/list';
import { wantedAnew, firstStopOf, anewChances, lookSdOf } from './chances';
import { clearAgain } from './fadedWays';
import { mendLayers, coatSteps, coatOf, costOf } from './steps';
import { type WaysAsk, type WayOut, reference, TRY_IT, looking, lookAt, UNTIL_CLEAR, NEVER_BACK } from './wayOut';

/** Thin ground over the place, and the effect fanned out over it. */
export function groundSpot(q: WaysAsk): WayOut[] {
  const { plan, state, spot } = q;
  const layers = mendLayers(plan, state, q.areaIds[0] ?? '');
  const ground = plan.layers.find((l) => l.id === layers.ground);
  if (!ground || !layers.effect) return [];
  const wanted = wantedAnew(spot.film, spot.wanted);
  const k = firstStopOf(wanted);
  const reach = spotReaches(q.acrossCm, q.atEdge, spot.spot);
  const isCleared = q.moment === 'finished';
  const steps: MendStep[] = [
    ...(isCleared ? [CURED, SAND_CLEAR] : []),
    ...coatSteps(plan, {
      ...{ layerId: ground.id, style: 'light' as const, reach: reach.ground, anew: true },
      coats: THIN_COATS * coatOf(ground, 'light'),
    }),
    ...coatSteps(plan, { layerId: layers.effect, style: 'light', coats: k, reach: reach.effect }),
    ...(isCleared && layers.clear ? clearAgain(q, layers.clear) : []),
  ];
  return [
    {
      kind: 'ground-spot',
      name: 'Back to the ground there',
      how: `Thin ground over ${spot.spot}, no further than it has to; then the effect fanned out beyond it in light coats, to ${Number(k.toFixed(2))} coats, then look.`,
      stop: `${reference(q)}; the last of it by what is seen`,
      unsaid: TRY_IT,
      promise: 'inside',
      // A fan of light coats over a spot is less even than a side that is walked.
      chances: anewChances(
        { ...wanted, sd: Math.hypot(wanted.sd, FANNED_SHARE * wanted.film) },
        lookSdOf(spot),
        q.card.window.inside,
      ),
      ...looking(q, lookAt(q.card, spot.film + spot.wanted.film)),
      risk: 'Ground that runs past the effect shows as a halo; the effect goes wider than the ground, onto what is right.',
      back: isCleared ? UNTIL_CLEAR : NEVER_BACK,
      cost: costOf(plan, q.areaIds, spot.spot, steps),
      areaIds: q.areaIds,
      steps,
      faded: null,
    },
  ];
}

/** Light coats of ground over a place; common practice (no source). */
const THIN_COATS = 2;
/** What light coats fanned out over a spot scatter by, as a share of their film; ours. */
const FANNED_SHARE = 0.06;
/** How far thin ground and the effect over it fade beyond a place, cm; common practice (no source). */
const [GROUND_FADE, EFFECT_BEYOND, EFFECT_FADE] = [5, 6, 12] as const;
/** Reaches for thin ground over a place and the effect fanned out beyond it. */
export function spotReaches(
  acrossCm: number,
  atEdge: boolean,
  from: string,
): { readonly ground: MendReach; readonly effect: MendReach } {
  const side = atEdge ? 0.5 : 1;
  const m2 = (radius: number) => Number(((Math.PI * radius ** 2 * side) / 1e4).toFixed(4));
  const half = acrossCm / 2;
  return {
    ground: { kind: 'fan', acrossCm, fadeCm: GROUND_FADE, m2: m2(half + GROUND_FADE / 2), from },
    effect: {
      kind: 'fan',
      acrossCm: acrossCm + 2 * EFFECT_BEYOND,
      fadeCm: EFFECT_FADE,
      m2: m2(half + EFFECT_BEYOND + EFFECT_FADE / 2),
      from,
    },
  };
}

/** Ground, effect and what lay over them anew, to a break. */
export function reGround(q: WaysAsk): WayOut[] {
  const { plan, state, spot } = q;
  const layers = mendLayers(plan, state, q.areaIds[0] ?? '');
  const layer = plan.layers.find((l) => l.id === layers.effect);
  if (!layers.ground || !layers.effect || !layer) return [];
  const wanted = wantedAnew(spot.film, spot.wanted);
  const k = firstStopOf(wanted);
  const isCleared = q.moment === 'finished';
  const steps: MendStep[] = [
    ...(isCleared ? [CURED] : []),
    SAND_TO_BREAK,
    ...coatSteps(plan, {
      ...{ layerId: layers.ground, style: plan.layers.find((l) => l.id === layers.ground)!.style },
      ...{ coats: layers.planned(layers.ground), reach: ALL, anew: true },
    }),
    ...coatSteps(plan, { layerId: layers.effect, style: layer.style, coats: k, reach: ALL }),
    ...(isCleared && layers.clear ? clearAgain(q, layers.clear) : []),
  ];
  const names = sayList(q.areaIds.map((a) => plan.areas.find((p) => p.id === a)?.name ?? ''));
  return [
    {
      kind: 'reground',
      name: `Re-ground ${names} to its break`,
      how: `Sanded, ground and effect anew on all of ${names}: ${Number(k.toFixed(2))} coats, then look, as today’s hand lays them.`,
      stop: `${reference(q)}; the last of it by what is seen`,
      unsaid: TRY_IT,
      promise: 'inside',
      chances: anewChances(wanted, lookSdOf(spot), q.card.window.inside),
      ...looking(q, lookAt(q.card, spot.film + spot.wanted.film)),
      risk: `All of ${names} anew; what lies beyond the break stays as it is, and is masked.`,
      back: 'Until it is sanded everything stays open; then it is done to the end.',
      cost: costOf(plan, q.areaIds, spot.spot, steps),
      areaIds: q.areaIds,
      steps,
      faded: null,
    },
  ];
}
