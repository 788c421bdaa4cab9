import { describe, expect, it } from '@jest/globals';
import { REFERENCE_LIBRARY } from '../materials/shop';
import { STARTING_GUNS } from '../products/guns';
import { STARTING_PRODUCTS } from '../products/products';
import { cupOf } from '../products/productOf';
import { markOf, recorded } from '../testdata/known';
import { plainPlan } from '../testdata/jobs';
import { MIN, randomJob, wholeRun } from '../testdata/runs';
import { cellMl, cupsOf, groupsOf, letDownMl } from './amounts';
import { sayCheck } from './sayCheck';
import { effectOn } from './effect';
import { inForce, type JobEvent } from './events';
import { onThere, seenOf, unseenOf } from './evidence';
import { waitBetween } from './laid';
import { type JobPlan } from './planTypes';
import { sayAreas, sayCell, sayCheckOf, sayEvent, sayOn, sayStep } from './say';
import { jobState } from './state';
import { coatsAt, coatsOn, foundOn, solidsOn } from './whatIsOn';
import { type JobState } from './stateTypes';
import { jobTimeline } from './tasks';
import { enoughTold, extraTold, namesOf, nextCoatTold } from './tell';
import { doneOf, filmOf, fullCoatOf, planAgainstCard, runOf, workOfCard, workOfJob } from './work';

/*
 * Figures of jobs by chance, as they were when they were recorded. A change that is not meant shows here; one that is meant is recorded
 * anew (`npm run unit -- -u known`) and told in CHANGELOG.md as one that changes figures.
 */
const LONG = 40;
const known = Array.from({ length: 30 }, (_, i) => {
  const plan = plainPlan(randomJob(1000 + i));
  return { plan, events: wholeRun(plan, 500 + i, 4 + ((i * 5) % LONG)) };
});

const ids = () => {
  let n = 0;
  return () => `new${n++}`;
};

const planned = (plan: JobPlan) => ({
  cells: plan.cells,
  checks: plan.checks.map((c) => [c, sayCheckOf(plan, c), sayCheck(c, 'it', 'the side', ['wet the floor'])]),
  waits: plan.cells.slice(1).map((c, i) => waitBetween(plan, plan.cells[i]!, c)),
  layers: plan.layers.map((l) => [l, cupOf(l, plan.layers)]),
  cups: cupsOf(plan),
  ml: plan.cells.map((c) => [cellMl(c, 0.55), letDownMl(c, 0.55)]),
  groups: [groupsOf(plan, REFERENCE_LIBRARY), groupsOf(plan, REFERENCE_LIBRARY, { mixId: 'cinder-candy', film: 0.8 })],
  rows: plan.rows,
  batches: plan.batches,
  said: [
    sayAreas(
      plan,
      plan.areas.map((a) => a.id),
    ),
    plan.cells.map((c) => sayCell(plan, c)),
  ],
});

const stands = (plan: JobPlan, events: readonly JobEvent[], state: JobState) => {
  const layerIds = plan.layers.map((l) => l.id);
  const areaIds = plan.areas.map((a) => a.id);
  const mixId = plan.finishes[0]!.mixId;
  return {
    state,
    steps: state.steps.map((s) => sayStep(plan, s)),
    said: [sayOn(state), inForce(events).map((e) => sayEvent(plan, e))],
    on: areaIds.map((a) => [
      layerIds.map((l) => coatsOn(state, l, [a])),
      coatsAt(state, layerIds, [a], 'left'),
      foundOn(state, a)?.id,
    ]),
    solids: solidsOn(state, (c) => c.coat.kind === 'effect'),
    effect: plan.objects.map((o) => effectOn(plan, state, mixId, o.id)),
    seen: plan.objects.map((o) => seenOf(plan, state, o.id).map((s) => [s, onThere(plan, state, o.id, s)])),
    unseen: unseenOf(plan, state),
    film: filmOf(plan, state),
    run: runOf(plan, state),
    done: doneOf(plan, state, mixId, '2026-01-02T03:04:05.000Z'),
    told: [
      nextCoatTold(state, ['effect'], areaIds, ids()),
      extraTold(state, ['clear'], areaIds.slice(0, 1), 0.5, true, ids(), true),
      enoughTold(state, ['effect', 'ground'], areaIds, 'enough'),
      namesOf(plan, areaIds),
    ],
    time: jobTimeline(plan, state, { now: 500 * MIN, startAt: 3 * MIN, mixedAt: new Map() }),
  };
};

describe('figures of known jobs', () => {
  it('the plan of the first is as it was, coat by coat', () => {
    const { plan } = known[0]!;
    expect(
      plan.cells.map((c) => recorded([c.coat.name, c.areaId, c.coats, c.areaM2, c.coat.filmUm, c.flashMinutes])),
    ).toMatchSnapshot();
    expect(plan.checks.map((c) => sayCheckOf(plan, c))).toMatchSnapshot();
  });
  it('its run is as it was, step by step', () => {
    const { plan, events } = known.find((k) => k.events.length > 25)!;
    const state = jobState(plan, events);
    expect(inForce(events).map((e) => sayEvent(plan, e))).toMatchSnapshot();
    expect([sayOn(state), state.steps.map((s) => sayStep(plan, s))]).toMatchSnapshot();
    expect(recorded(filmOf(plan, state).map((f) => [f.layer.kind, f.onUm, f.plannedUm]))).toMatchSnapshot();
  });
  it('every plan has the mark it had', () => {
    expect(
      known.map(({ plan }) => Object.entries(planned(plan)).map(([k, v]) => `${k} ${markOf(v)}`)),
    ).toMatchSnapshot();
  });
  it('every run has the mark it had, at its end and on its way', () => {
    const marks = known.flatMap(({ plan, events }) =>
      [events.length, Math.ceil(events.length / 2)].map((n) => {
        const some = events.slice(0, n);
        return Object.entries(stands(plan, some, jobState(plan, some))).map(([k, v]) => `${k} ${markOf(v)}`);
      }),
    );
    expect(marks).toMatchSnapshot();
  });
  it('is told apart from its card as it was', () => {
    const mixId = 'cinder-candy';
    const plan = plainPlan();
    const coat = fullCoatOf(plan, mixId)!;
    expect(recorded([coat.name, coat.filmUm, coat.pressureBar, coat.distanceCm])).toMatchSnapshot();
    const card = { gun: 'another', pressureBar: 1.2, tipMm: 1.8, distanceCm: 25, overlap: 0.5, turns: null };
    expect(recorded(planAgainstCard(card, plan, mixId))).toMatchSnapshot();
    expect(planAgainstCard(card, plan, 'lagoon-pearl')).toEqual([]);
  });
  it('a job and a card as they are stored are planned as they were', () => {
    const pick = { groundId: 'silver-fine', strength: 1.2, style: 'medium', coats: 2.5, controlCoats: 1 } as const;
    const card = {
      ...{ gun: STARTING_GUNS[1]!.name, pressureBar: 1.6, rungs: [2, 1, 3], firstStop: 2 },
      settings: { tipMm: 1.4, distanceCm: 18, overlap: 0.7, turns: 2 },
    };
    const mixing = {
      ...{ products: {}, reducers: {}, gunId: STARTING_GUNS[1]!.id, temperatureC: 26, humidity: 0.7 },
    };
    const rows = [null, pick].flatMap((picked) =>
      [null, card].flatMap((sprayed) =>
        [null, mixing].map((mixed) => ({
          job: {
            ...{ piece: 'tub 5', mixId: 'cinder-candy', pick: picked, stacks: null, objects: null, areas: null },
            ...{ mixing: mixed, plan: null },
          },
          card: sprayed,
          ...{ library: REFERENCE_LIBRARY, products: STARTING_PRODUCTS, guns: STARTING_GUNS },
        })),
      ),
    );
    expect(
      rows.map((q) =>
        [workOfJob(q), workOfCard(q)].map((w) => (w ? `${w.gun.name} ${markOf(planned(w.plan))}` : null)),
      ),
    ).toMatchSnapshot();
  });
});
