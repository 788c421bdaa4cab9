import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { CURED, SAND_FOR_POLISH } from '../faults/ways';
import { ALL } from '../jobs/reach';
import type { MendStep } from '../jobs/mendSteps';
import { coatOf, coatSteps, costOf, mendLayers } from './steps';
import {
  type WaysAsk,
  type WayOut,
  TRY_IT,
  NEVER_BACK,
  UNKNOWN,
  reference,
  looking,
  lookAt,
  leave,
  EVEN,
  A_MINUTE,
  overAreas,
} from './wayOut';
import { faded, allOver, richen, clearAgain } from './fadedWays';
import { groundSpot, reGround } from './reGround';

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
