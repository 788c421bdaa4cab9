import { CURED, SAND_CLEAR } from '../faults/ways';
import { type MendReach, type MendStep } from '../jobs/mendSteps';
import { ALL } from '../jobs/reach';
import { effectOn } from '../jobs/effect';
import { sayList } from '../jobs/list';
import { amountChances } from '../letdown/rule';
import { amountThere, mendedChances } from './chances';
import { type FadedPlan, planFaded } from './faded';
import { mendLayers, coatSteps, costOf } from './steps';
import {
  type WaysAsk,
  type WayOut,
  besideFilm,
  lookAt,
  reference,
  TRY_IT,
  looking,
  UNTIL_CLEAR,
  NEVER_BACK,
  overAreas,
} from './wayOut';

const fanOf = (plan: FadedPlan, i: number, from: string): MendReach => ({
  kind: 'fan',
  acrossCm: Math.max(1, plan.acrossCm + 2 * i * plan.stepCm),
  fadeCm: plan.fadeCm,
  m2: plan.m2,
  from,
});

/** Light coats of the mix on the place alone; after clear sanded first and cleared again. */
export function faded(q: WaysAsk): WayOut[] {
  const { plan, state, spot, moment } = q;
  const amount = amountThere(spot.spray, spot.wanted, q.card.window.inside);
  const layers = mendLayers(plan, state, q.areaIds[0] ?? '');
  // All of an area is no place to fade into it.
  if (!layers.effect || (moment !== 'finished' && wholeArea(q))) return [];
  const bare = coatSteps(plan, { layerId: layers.effect, style: 'light', coats: amount, reach: ALL });
  const beside = besideFilm(q);
  const film = amount * spot.wanted.rate;
  const fan = planFaded({
    ...{ besideFilm: Math.max(beside, spot.film), film: spot.film, laid: film, coats: bare.length },
    ...{ acrossCm: q.acrossCm, atEdge: q.atEdge },
    look: (n) => lookAt(q.card, n),
  });
  const own = bare.map((s, i): MendStep => (s.is === 'coat' ? { ...s, reach: fanOf(fan, i, spot.spot) } : s));
  const isCleared = moment === 'finished';
  const clear = isCleared && layers.clear ? clearAgain(q, layers.clear) : [];
  const steps = [...(isCleared ? [CURED, SAND_CLEAR] : []), ...own, ...clear];
  const n = own.length;
  const off = fan.beside > 0.3 ? `up to ${fan.beside.toFixed(1)} dE00 beside it` : 'little beside it';
  return [
    {
      kind: isCleared ? 'sand-effect' : 'faded',
      name: `${isCleared ? 'Sand, fade' : 'Fade'} ${n === 1 ? 'a light coat' : `${n} light coats`} in${isCleared ? ', clear again' : ''}`,
      how: `Same mix, whole for ${q.say(fan.acrossCm)} across, fading over ${q.say(fan.fadeCm)}${n > 1 && fan.stepCm ? `, each ${q.say(fan.stepCm)} further` : ''}; gun from what is right towards ${spot.spot}, overspray away from it.`,
      stop: `${reference(q)}; look then, and lay what that look says`,
      unsaid: TRY_IT,
      promise: 'inside',
      chances: mendedChances(amount, spot, q.card.window.inside),
      ...looking(q, lookAt(q.card, spot.film + film)),
      risk: `At the worst ${fan.worst.toFixed(1)} dE00 stay along it, ${off}${isCleared ? '; the clear ends at a break, or its edge shows' : ''}.`,
      back: isCleared ? UNTIL_CLEAR : NEVER_BACK,
      cost: costOf(plan, q.areaIds, spot.spot, steps),
      areaIds: q.areaIds,
      steps,
      faded: fan,
    },
  ];
}

export const clearAgain = (q: WaysAsk, layerId: string): MendStep[] =>
  coatSteps(q.plan, {
    layerId,
    style: q.plan.layers.find((l) => l.id === layerId)!.style,
    coats: mendLayers(q.plan, q.state, q.areaIds[0] ?? '').planned(layerId),
    reach: ALL,
  });
/** The area a place is all of; undefined for a place on one. */
const wholeArea = ({ plan, areaIds, spot }: WaysAsk) =>
  plan.areas.find((a) => areaIds.includes(a.id) && a.name === spot.spot);
/** Everything that was looked at is short, on the object or on the one area that was called so: a coat over all of it. */
export function allOver(q: WaysAsk): WayOut[] {
  const { spot, plan, state, mixId, objectId } = q;
  const area = wholeArea(q);
  const others = area ? q.others.filter((o) => o.areaIds.includes(area.id)) : q.others;
  const all = [spot, ...others];
  if (q.moment === 'finished' || all.some((s) => s.zone !== 'short' || s.spray <= 0)) return [];
  if (!area && !others.length) return [];
  const amount = Math.min(...all.map((s) => s.spray));
  const effect = effectOn(plan, state, mixId, objectId);
  const areaIds = area ? [area.id] : effect.areaIds;
  const layer = plan.layers.find((l) => l.id === effect.layerIds[0]);
  if (!layer) return [];
  const steps = coatSteps(plan, {
    layerId: layer.id,
    style: amount < 0.75 ? 'light' : layer.style,
    coats: amount,
    reach: ALL,
  });
  return [
    {
      kind: 'all',
      name: `${Number(amount.toFixed(1))} of a coat more over all${area ? ` of ${area.name}` : ''}`,
      how: area
        ? 'It was called short as a whole: over the whole of it, up to its own edges.'
        : 'Everything that was looked at is short: over the whole of it, walked side by side.',
      stop: `${reference(q)}; look at the darkest place first`,
      unsaid: TRY_IT,
      promise: 'inside',
      chances: mendedChances(amount, spot, q.card.window.inside),
      ...looking(q, lookAt(q.card, spot.film + amount * spot.wanted.rate)),
      risk: 'Every place moves; what was not looked at may go over.',
      back: NEVER_BACK,
      cost: costOf(plan, areaIds, spot.spot, steps),
      areaIds,
      steps,
      faded: null,
    },
  ];
}

/** What is over stays; what lies beside it is laid up to it. Only where it is ours and may still get a coat. */
export function richen(q: WaysAsk): WayOut[] {
  const { plan, state, spot, others, mixId, objectId } = q;
  if (q.moment === 'finished' || spot.zone !== 'over') return [];
  // A place that is over itself gets none either.
  const beside = besideFilm(q);
  const effect = effectOn(plan, state, mixId, objectId);
  const over = overAreas(q);
  const areaIds = effect.areaIds.filter((a) => !over.has(a));
  const layer = plan.layers.find((l) => l.id === effect.layerIds[0]);
  const missing = spot.film - beside;
  if (!areaIds.length || !layer || missing <= 0.05) return [];
  const rate = spot.wanted.rate;
  const amount = Number((missing / rate).toFixed(1));
  if (amount <= 0) return [];
  const steps = coatSteps(plan, {
    layerId: layer.id,
    style: amount < 0.75 ? 'light' : layer.style,
    coats: amount,
    reach: ALL,
  });
  const width = (spot.wanted.window[1] - spot.wanted.window[0]) / 2;
  const sd = Math.hypot(
    spot.sd,
    ...others
      .filter((o) => o.zone === 'matched')
      .slice(0, 1)
      .map((o) => o.sd),
  );
  const look = looking(q, lookAt(q.card, spot.film));
  return [
    {
      kind: 'richen',
      name: 'Richen what lies beside it',
      how: `${Number(amount.toFixed(1))} of a coat on ${sayList(areaIds.map((a) => plan.areas.find((p) => p.id === a)!.name))}, up to ${spot.spot}; none on ${spot.spot}. Only if they are yours.`,
      stop: `Stop when they look like ${spot.spot}`,
      unsaid: TRY_IT,
      promise: 'even',
      chances: amountChances(amount, { film: missing, sd, rate, window: [-width, width] }),
      ...look,
      risk: `All of it then is ${(-spot.wanted.film).toFixed(1)} coats beyond what had to be matched: ${Math.max(...look.differences).toFixed(1)} dE00 at the worst angle.`,
      back: NEVER_BACK,
      cost: costOf(plan, areaIds, '', steps),
      areaIds,
      steps,
      faded: null,
    },
  ];
}
