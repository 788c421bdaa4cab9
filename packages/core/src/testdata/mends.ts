import { D65_10 } from '../colour';
import { STYLES } from '../finishes';
import { START_AREAS, type JobPlan, workOfJob, type JobState, type JobEvent, jobState, eventOf, laidOf } from '../jobs';
import { answerCard, type EyeView, type Verdict, wordOfVerdicts, liveState } from '../letdown';
import { sayEyeLook } from '../letdown/live';
import { prepareLibrary, libraryOf, findGround, findMix } from '../materials';
import { FIVE_ANGLES } from '../optics';
import { STARTING_PRODUCTS, STARTING_GUNS } from '../products';
import type { mendTold } from '../recovery';
import { type WayOut, momentOf, waysOut } from '../recovery';

export const shop = prepareLibrary();
export const MIX = 'lagoon-pearl';
export const GROUND = 'aqua-pastel';
const pick = { groundId: GROUND, coats: 3, style: 'wet' as const, strength: 1, controlCoats: 0 };
const area = (id: string, name: string, m2: number) => ({ ...START_AREAS[0]!, id, name, measures: { area: m2 } });
/** A coach with two sides and a lid, as it is planned. */
export function planned(): JobPlan {
  return workOfJob({
    job: {
      ...{ piece: 'Coach', mixId: MIX, pick, stacks: null, objects: null, mixing: null, plan: null },
      areas: [area('left', 'Left side', 2), area('right', 'Right side', 2), area('lid', 'Lid', 0.4)],
    },
    ...{ card: null, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS },
  })!.plan;
}
let clock = 0;
/** Everything up to a step, as it happens when nothing goes wrong. */
export function runTo(plan: JobPlan, stop: (state: JobState) => boolean, events: readonly JobEvent[] = []): JobEvent[] {
  const all = [...events];
  for (let i = 0; i < 200; i++) {
    const state = jobState(plan, all);
    if (!state.next || stop(state)) return all;
    const about = { id: `e${++clock}`, at: clock * 60000 };
    all.push(
      state.next.is === 'cell'
        ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(state.next.state.cell)] })
        : eventOf({ ...about, kind: 'check', checkId: state.next.state.check.id }),
    );
  }
  return all;
}

export const atCheck = (kind: string) => (s: JobState) => s.next?.is === 'check' && s.next.state.check.kind === kind;
export const put = (events: readonly JobEvent[], told: ReturnType<typeof mendTold>): JobEvent[] => [
  ...events,
  eventOf({ ...told, id: `e${++clock}`, at: clock * 60000 }),
];
export const of = {
  model: shop.model(FIVE_ANGLES),
  ground: shop.ground(findGround(GROUND)),
  recipe: { coat: shop.coat(findMix(MIX), 1), style: STYLES.wet },
  viewing: D65_10,
};
/** A card judged by eye: three coats match, two are lighter, four are darker. */
const answer = answerCard(of, {
  ...{ target: null, bare: null, rungs: [], handHeld: false, believed: {} },
  verdicts: [2, 3, 4].flatMap((coats) =>
    (['sun face', 'shade', 'sun flop'] as const).map((view) => ({
      ...{ coats, view },
      verdict: coats < 3 ? 'lighter' : coats > 3 ? 'darker' : 'match',
    })),
  ),
})!;
/** Places of the left side as an eye called them after so many coats. */
export function seenAs(on: number, said: Readonly<Record<string, readonly (readonly [EyeView, Verdict])[]>>) {
  const looks = Object.entries(said).map(([spot, list]) => {
    const verdicts = list.map(([view, verdict]) => ({ coats: on, view, verdict }));
    const word = wordOfVerdicts(
      list.map(([, v]) => v),
      [],
      list.map(([v]) => v),
    );
    return { spot, says: sayEyeLook(answer.card, answer.read, verdicts, on, word), word };
  });
  return liveState(answer.card, on, looks).spots;
}

export function waysFor(
  events: readonly JobEvent[],
  plan: JobPlan,
  said: Readonly<Record<string, readonly (readonly [EyeView, Verdict])[]>>,
  areaIds = ['left'],
  lies: Readonly<Record<string, readonly string[]>> = {},
): WayOut[] {
  const state = jobState(plan, events);
  const moment = momentOf(plan, state, MIX, plan.objects[0]!.id)!;
  const [spot, ...others] = seenAs(3, said);
  return waysOut({
    ...{ plan, state, mixId: MIX, objectId: plan.objects[0]!.id, moment, card: answer.card, read: answer.read },
    ...{ spot: spot!, areaIds, acrossCm: 20, atEdge: true, off: 'off' },
    others: others.map((o) => ({ ...o, areaIds: lies[o.spot] ?? [] })),
    peel: null,
    controlShift: FIVE_ANGLES.map((_, g) => [g < 2 ? 1 : -1, 0, 0] as const),
    say: (cm) => `${cm} cm`,
  });
}

export const everywhere = (v: Verdict) =>
  (['sun face', 'sun flop', 'shade', 'low light'] as const).map((view) => [view, v] as const);
/** Layers that get colour on an area by a way. */
export const colours = (plan: JobPlan, w: WayOut) =>
  w.steps.filter((s) => s.is === 'coat' && plan.layers.find((l) => l.id === s.layerId)!.kind === 'effect');
