import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { CURED, SAND_CLEAR, SAND_FOR_POLISH, SAND_TO_BREAK } from '../faults/ways';
import { effectOn } from '../jobs/effect';
import { ALL } from '../jobs/reach';
import type { MendReach, MendStep, WayKind } from '../jobs/mendSteps';
import type { JobPlan } from '../jobs/plan';
import type { JobState } from '../jobs/state';
import { sayList } from '../jobs/list';
import type { CardSaid } from '../letdown/advise';
import { differenceFrom, type EyeRead } from '../letdown/eye';
import { EYE_VIEWS, USUAL_CUTS, type EyeView } from '../letdown/eyeWords';
import { labsAt, toLabs } from '../letdown/fittedLadder';
import type { SpotState } from '../letdown/live';
import { amountChances, type Chances } from '../letdown/rule';
import { amountThere, anewChances, firstStopOf, lookSdOf, mendedChances, repairChances, wantedAnew } from './chances';
import { planFaded, type FadedPlan } from './faded';
import { coatOf, coatSteps, costOf, mendLayers, type MendCost, type Moment } from './steps';

/** A place that is off, with what is known of it. */
export interface WaysAsk {
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly mixId: string;
  readonly objectId: string;
  readonly moment: Moment;
  readonly card: CardSaid;
  readonly read: EyeRead;
  readonly spot: SpotState;
  /** Other places of the object that were looked at, with the areas they lie on. */
  readonly others: readonly (SpotState & { readonly areaIds: readonly string[] })[];
  /** Areas the place lies on. */
  readonly areaIds: readonly string[];
  readonly acrossCm: number;
  readonly atEdge: boolean;
  /** Its word, as it is kept: what was said of it. */
  readonly off: string;
  /** What one control coat does to the look there, Lab per angle of the card; null where it was not worked out. */
  readonly controlShift: readonly Lab[] | null;
  /** How its peel was called, and what lays the peel that is wanted; null where nobody said. */
  readonly peel: { readonly word: string; readonly matchedBy: string } | null;
  /** A length in the units of the shop. */
  readonly say: (cm: number) => string;
}

/** What a way promises where it works out. `inside`: what has to be matched is; `even`: nothing is seen between it and its neighbours. */
export type Promised = 'inside' | 'even';

export interface WayOut {
  readonly kind: WayKind | 'leave';
  readonly name: string;
  /** How it is done, a sentence or two. */
  readonly how: string;
  /** Where its coats end, and what it is held against while they go on. */
  readonly stop: string;
  readonly promise: Promised;
  /** Null where nobody can say. */
  readonly chances: Chances | null;
  /** What is said instead of a chance. */
  readonly unsaid: string;
  /** What it will look like, per angle of the card, and how far from what has to be matched, dE00. */
  readonly labs: readonly Lab[];
  readonly differences: readonly number[];
  /** Places it would still be told from. */
  readonly seen: readonly EyeView[];
  /** What it puts at risk around it. */
  readonly risk: string;
  /** Whether it can be taken back, and until when. */
  readonly back: string;
  readonly cost: MendCost;
  readonly areaIds: readonly string[];
  readonly steps: readonly MendStep[];
  /** Of faded coats. */
  readonly faded: FadedPlan | null;
}

const TRY_IT = 'nobody can say: try it on the card';
const NEVER_BACK = 'It can’t be taken back: what is on stays on.';
const UNTIL_CLEAR = 'Until it is cleared it wipes off the cured clear below; then no more.';

/** The ways out there are now for a place, the ones that end best first; what is darker than wanted never gets a coat there. */
export function waysOut(q: WaysAsk): WayOut[] {
  const { zone } = q.spot;
  const ways = [leave(q)];
  if (zone === 'short') ways.push(...faded(q), ...allOver(q));
  if (zone === 'unlike') ways.push(...control(q));
  if (zone === 'over' || zone === 'unlike') ways.push(...richen(q), ...groundSpot(q));
  if (zone === 'over' || zone === 'unlike' || zone === 'short') ways.push(...reGround(q));
  if (q.peel && q.moment === 'finished') ways.push(...otherPeel(q, q.peel));
  // An hour of work is worth a few in a hundred; what only ends even is worth less than what matches.
  const worth = (w: WayOut): number =>
    (w.chances?.in ?? UNKNOWN) - A_MINUTE * w.cost.minutes - (w.promise === 'even' ? EVEN : 0);
  return ways.sort((a, b) => worth(b) - worth(a));
}

/** How ways are put in order: a chance nobody knows, a minute of work, ending even rather than inside; ours. */
const [UNKNOWN, A_MINUTE, EVEN] = [0.4, 0.002, 0.1] as const;

/** What a film of the card looks like. */
const lookAt = (card: CardSaid, film: number): Lab[] => toLabs(labsAt(card.ladder, Math.max(0, film)));

/** Rest of a way that follows from how it looks in the end. */
function looking(q: WaysAsk, labs: readonly Lab[]) {
  const wanted = q.card.sought.read.angles.map((a) => a.lab);
  const cuts = q.read.cuts ?? USUAL_CUTS;
  return {
    labs,
    differences: labs.map((lab, g) => de2000(wanted[g]!, lab)),
    seen: EYE_VIEWS.filter((v) => differenceFrom(v, q.read.aspecular, labs, wanted) > cuts.little),
  };
}

const free: MendCost = { coats: 0, ml: 0, minutes: 0 };

function leave(q: WaysAsk): WayOut {
  const look = looking(q, lookAt(q.card, q.spot.film));
  return {
    kind: 'leave',
    name: 'Leave it',
    how: `It was called ${q.off || 'off'}.${look.seen.length ? '' : ' By the card so little film is missing that few eyes tell it.'}`,
    stop: '',
    unsaid: TRY_IT,
    promise: 'inside',
    chances: q.spot.zone === 'unlike' ? null : repairChances(0, q.spot.wanted, q.card.window.inside),
    ...look,
    risk: 'Nothing.',
    back: 'Everything stays open that is open now.',
    cost: free,
    areaIds: q.areaIds,
    steps: [],
    faded: null,
  };
}

/** Places that may be held against while coats go on: those that match, else what has to be matched. */
const reference = (q: WaysAsk): string => {
  const good = q.others.find((o) => o.zone === 'matched');
  return good ? `Stop when it looks like ${good.spot}` : 'Stop when it looks like what has to be matched';
};

/** Film on what lies beside a place: of the places that match, else what matches by the card. */
function besideFilm(q: WaysAsk): number {
  const good = q.others.filter((o) => o.zone === 'matched');
  return good.length ? good.reduce((s, o) => s + o.film, 0) / good.length : q.spot.film + q.spot.wanted.film;
}

const fanOf = (plan: FadedPlan, i: number, from: string): MendReach => ({
  kind: 'fan',
  acrossCm: Math.max(1, plan.acrossCm + 2 * i * plan.stepCm),
  fadeCm: plan.fadeCm,
  m2: plan.m2,
  from,
});

/** Light coats of the mix on the place alone; after clear sanded first and cleared again. */
function faded(q: WaysAsk): WayOut[] {
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

const clearAgain = (q: WaysAsk, layerId: string): MendStep[] =>
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
function allOver(q: WaysAsk): WayOut[] {
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

/** Areas with a place on them that is over: no coat goes on all of one. */
const overAreas = (q: WaysAsk): ReadonlySet<string> =>
  new Set([
    ...(q.spot.zone === 'over' ? q.areaIds : []),
    ...q.others.flatMap((o) => (o.zone === 'over' ? o.areaIds : [])),
  ]);

/** What is over stays; what lies beside it is laid up to it. Only where it is ours and may still get a coat. */
function richen(q: WaysAsk): WayOut[] {
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

/** Thin ground over the place, and the effect fanned out over it. */
function groundSpot(q: WaysAsk): WayOut[] {
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
function reGround(q: WaysAsk): WayOut[] {
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

/** A control coat from further away: it lifts the face and darkens the flop. */
function control(q: WaysAsk): WayOut[] {
  const { plan, state, spot, controlShift } = q;
  const layers = mendLayers(plan, state, q.areaIds[0] ?? '');
  const over = overAreas(q);
  if (q.moment === 'finished' || !layers.effect || !controlShift || q.areaIds.some((a) => over.has(a))) return [];
  const now = lookAt(q.card, spot.film);
  const labs = now.map((lab, g): Lab => {
    const by = controlShift[g]!;
    return [Math.max(0, lab[0] + by[0]), lab[1] + by[1], lab[2] + by[2]];
  });
  const layer = plan.layers.find((l) => l.id === layers.effect)!;
  const steps = coatSteps(plan, { layerId: layer.id, style: 'control', coats: coatOf(layer, 'control'), reach: ALL });
  return [
    {
      kind: 'control',
      name: 'A control coat from twice as far',
      how: 'Over the whole side: the flakes lie flatter, the face is lifted and the flop goes darker. Try it on the card first.',
      stop: reference(q),
      unsaid: TRY_IT,
      promise: 'inside',
      chances: null,
      ...looking(q, labs),
      risk: `It moves all of it by ${Math.max(...labs.map((lab, g) => de2000(now[g]!, lab))).toFixed(1)} dE00 at the most.`,
      back: NEVER_BACK,
      cost: costOf(plan, q.areaIds, '', steps),
      areaIds: q.areaIds,
      steps,
      faded: null,
    },
  ];
}

/** Under clear its peel is off: rougher is sanded and polished down to its neighbour, flatter is cleared again as that lays. */
function otherPeel(q: WaysAsk, { word, matchedBy }: NonNullable<WaysAsk['peel']>): WayOut[] {
  const { plan, spot } = q;
  const layers = mendLayers(plan, q.state, q.areaIds[0] ?? '');
  const look = looking(q, lookAt(q.card, spot.film));
  const unsaid = 'its colour stays as it is';
  const shared = { promise: 'inside' as const, chances: null, unsaid, ...look, areaIds: q.areaIds, faded: null };
  if (word === 'rougher') {
    const steps: MendStep[] = [
      CURED,
      SAND_FOR_POLISH,
      { is: 'work', kind: 'polish', text: 'Up to the gloss beside it, not flatter than it.', minutes: 0 },
    ];
    return [
      {
        ...shared,
        kind: 'polish',
        name: 'Sand and polish there',
        how: `The clear alone, down to the peel of what lies beside it. Colour does not change. Next time: ${matchedBy}.`,
        stop: 'Stop when a lamp looks as it does beside it',
        risk: 'Edges and lines rub through first; clear that is gone is gone.',
        back: 'Not what was sanded off; it can be cleared again.',
        cost: costOf(plan, q.areaIds, spot.spot, steps),
        steps,
      },
    ];
  }
  if (word !== 'flatter' || !layers.clear) return [];
  const steps: MendStep[] = [
    CURED,
    { is: 'work', kind: 'sand', text: 'P1000, wet, only to give it tooth.', minutes: 0 },
    { is: 'work', kind: 'set', text: `For its peel: ${matchedBy}.`.slice(0, 300), minutes: 0 },
    ...clearAgain(q, layers.clear),
  ];
  return [
    {
      ...shared,
      kind: 'polish',
      name: 'Clear again with more peel',
      how: `Sanded for tooth, then as that peel is laid: ${matchedBy}.`,
      stop: 'Try it on paper first; stop when a lamp looks as it does beside it',
      risk: 'All of the area is cleared again, to a break.',
      back: 'It sands and polishes flat again.',
      cost: costOf(plan, q.areaIds, spot.spot, steps),
      steps,
    },
  ];
}
