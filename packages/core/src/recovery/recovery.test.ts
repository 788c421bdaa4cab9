import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from '../colour/difference';
import { D65_10 } from '../colour/tristimulus';
import { FAULT_WAYS, FAULTS } from '../faults';
import { STYLES } from '../finishes/styles';
import {
  eventOf,
  jobState,
  laidOf,
  namedOf,
  START_AREAS,
  workOfJob,
  type JobEvent,
  type JobPlan,
  type JobState,
} from '../jobs';
import { answerCard } from '../letdown/answer';
import { labsAt, plainLadder, toLabs } from '../letdown/fittedLadder';
import { nominalTable } from '../letdown/advise';
import { liveState, sayEyeLook, wordOfVerdicts } from '../letdown/live';
import type { EyeView, Verdict } from '../letdown/eyeWords';
import { effectCoats, factorsToLabs } from '../matching/ladder';
import { findGround, findMix, libraryOf, prepareLibrary } from '../materials';
import { createRandom } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';
import { evaluateReference } from '../optics/stack';
import { STARTING_GUNS, STARTING_PRODUCTS } from '../products';
import { CORE_KINDS, foreignWorld, ownWorld, studyRepairs, type Kind, type Repair, type World } from '../study';
import {
  amountThere,
  coatSteps,
  costOf,
  mendLayers,
  mendTold,
  momentOf,
  planFaded,
  repairChances,
  spotReaches,
  stepsOfFault,
  waysOut,
  type Moment,
  type WayOut,
} from '.';

const shop = prepareLibrary();
const MIX = 'lagoon-pearl';
const GROUND = 'aqua-pastel';
const pick = { groundId: GROUND, coats: 3, style: 'wet' as const, strength: 1, controlCoats: 0 };
const area = (id: string, name: string, m2: number) => ({ ...START_AREAS[0]!, id, name, measures: { area: m2 } });

/** A coach with two sides and a lid, as it is planned. */
function planned(): JobPlan {
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
function runTo(plan: JobPlan, stop: (state: JobState) => boolean, events: readonly JobEvent[] = []): JobEvent[] {
  const all = [...events];
  for (let i = 0; i < 200; i++) {
    const state = jobState(plan, all);
    if (!state.next || stop(state)) return all;
    const about = { id: `e${++clock}`, at: clock * 60_000 };
    all.push(
      state.next.is === 'cell'
        ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(state.next.state.cell)] })
        : eventOf({ ...about, kind: 'check', checkId: state.next.state.check.id }),
    );
  }
  return all;
}
const atCheck = (kind: string) => (s: JobState) => s.next?.is === 'check' && s.next.state.check.kind === kind;
const put = (events: readonly JobEvent[], told: ReturnType<typeof mendTold>): JobEvent[] => [
  ...events,
  eventOf({ ...told, id: `e${++clock}`, at: clock * 60_000 }),
];

const of = {
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
function seenAs(on: number, said: Readonly<Record<string, readonly (readonly [EyeView, Verdict])[]>>) {
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

function waysFor(
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
const everywhere = (v: Verdict) =>
  (['sun face', 'sun flop', 'shade', 'low light'] as const).map((view) => [view, v] as const);
/** Layers that get colour on an area by a way. */
const colours = (plan: JobPlan, w: WayOut) =>
  w.steps.filter((s) => s.is === 'coat' && plan.layers.find((l) => l.id === s.layerId)!.kind === 'effect');

describe('a mend in the run', () => {
  const plan = planned();
  const before = runTo(plan, atCheck('lamp'));
  const { effect, ground, clear } = mendLayers(plan, jobState(plan, before), 'left');

  it('goes right on what lies there, before what was to follow, and is looked at before anything else', () => {
    const steps = coatSteps(plan, {
      layerId: effect!,
      style: 'light',
      coats: 0.5,
      reach: spotReaches(20, true, 'nose').effect,
    });
    const mend = { way: 'faded' as const, spot: 'nose', off: 'lighter', views: ['low light' as const], steps };
    let events = put(before, mendTold(jobState(plan, before), ['left'], mend, 'Fade a light coat in'));
    let state = jobState(plan, events);
    expect(state.next?.is === 'cell' && state.next.state.cell.areaId).toBe('left');
    expect(state.next?.is === 'cell' && state.next.state.cell.reach.kind).toBe('fan');
    expect(state.total).toBe(jobState(plan, before).total + 1);
    events = runTo(plan, (s) => s.next?.is === 'check', events);
    state = jobState(plan, events);
    expect(state.next?.is === 'check' && state.next.state.check.views).toEqual(['low light']);
    // The lamp before clear is asked again behind it, and clear waits for both.
    events = runTo(plan, atCheck('lamp'), events);
    expect(atCheck('lamp')(jobState(plan, events))).toBe(true);
    const end = jobState(
      plan,
      runTo(plan, () => false, events),
    );
    expect(end.next).toBeNull();
    expect(end.done).toBe(end.total);
    // On one place only: the side itself still counts its three.
    const coats = (events: readonly JobEvent[]) =>
      jobState(plan, events)
        .areas.find((a) => a.areaId === 'left')!
        .layers.find((l) => l.layerId === effect)!.coats;
    const all = runTo(plan, () => false, events);
    expect(coats(all)).toBe(3);
    // Whatever passes a log on keeps the place; where one has lost it, the plan knows.
    expect(all.flatMap((e) => e.cells.map(namedOf))).toEqual(all.flatMap((e) => e.cells));
    expect(all.some((e) => e.cells.some((c) => 'spot' in c && c.spot === 'nose'))).toBe(true);
    const lost = all.map((e) => ({ ...e, cells: e.cells.map((c) => ({ ...c, spot: undefined })) }));
    expect(coats(lost)).toBe(3);
  });

  it('that makes ground anew counts the colour from there, and leaves the other areas alone', () => {
    const steps = [
      ...coatSteps(plan, { layerId: ground!, style: 'wet', coats: 2, reach: { kind: 'all' }, anew: true }),
      ...coatSteps(plan, { layerId: effect!, style: 'wet', coats: 2, reach: { kind: 'all' } }),
    ];
    const told = mendTold(
      jobState(plan, before),
      ['left'],
      { way: 'reground', spot: 'Left side', off: 'darker', views: [], steps },
      'x',
    );
    const coats = (events: readonly JobEvent[], id: string) =>
      jobState(plan, events)
        .areas.find((a) => a.areaId === id)!
        .layers.find((l) => l.layerId === effect)!.coats;
    let events = put(before, told);
    expect(coats(events, 'left')).toBe(3);
    events = runTo(plan, (s) => s.next?.is === 'cell' && s.next.state.cell.layerId === effect, events);
    expect(coats(events, 'left')).toBe(0);
    events = runTo(plan, atCheck('lamp'), events);
    expect(coats(events, 'left')).toBe(2);
    expect(coats(events, 'right')).toBe(3);
    const film = (id: string) => jobState(plan, events).areas.find((a) => a.areaId === id)!.filmUm;
    expect(film('left')).toBeGreaterThan(film('right'));
  });

  it('through the clear is looked at before it is cleared again, and stands before clear until then', () => {
    const done = runTo(plan, () => false);
    const id = plan.objects[0]!.id;
    const way = waysFor(done, plan, { nose: everywhere('lighter'), 'Left side': everywhere('match') }).find(
      (w) => w.kind === 'sand-effect',
    )!;
    const mend = {
      way: 'sand-effect' as const,
      spot: 'nose',
      off: 'lighter',
      views: ['low light' as const],
      steps: way.steps,
    };
    const begun = put(done, mendTold(jobState(plan, done), ['left'], mend, way.name));
    const events = runTo(plan, (s) => s.next?.is === 'check' && !!s.next.state.check.views, begun);
    const state = jobState(plan, events);
    // At the look the mended side has effect on top, the other is still cleared.
    expect(momentOf(plan, state, MIX, id, ['left'])).not.toBe('finished');
    expect(momentOf(plan, state, MIX, id, ['right'])).toBe('finished');
    const clears = state.cells.filter((s) => s.cell.coatId.startsWith('mend/') && s.cell.coat.kind === 'clear');
    expect(clears.length).toBeGreaterThan(0);
    expect(clears.every((s) => !s.open && s.sprayedAt === null)).toBe(true);
    expect(
      jobState(
        plan,
        runTo(plan, () => false, events),
      ).next,
    ).toBeNull();
  });

  it('again at the same place is looked at once, behind the last of it and still before what follows', () => {
    const steps = coatSteps(plan, {
      ...{ layerId: effect!, style: 'light' as const, coats: 0.4 },
      reach: spotReaches(20, true, 'nose').effect,
    });
    const mend = { way: 'faded' as const, spot: 'nose', off: 'lighter', views: ['sun flop' as const], steps };
    const looks = (e: readonly JobEvent[]) => jobState(plan, e).checks.filter((c) => c.check.views);
    const once = put(before, mendTold(jobState(plan, before), ['left'], mend, 'x'));
    const atLook = runTo(plan, (s) => s.next?.is === 'check', once);
    const twice = put(atLook, mendTold(jobState(plan, atLook), ['left'], mend, 'x'));
    expect(looks(twice)).toHaveLength(1);
    expect(looks(twice)[0]!.due).toBe(false);
    expect(jobState(plan, twice).next?.is).toBe('cell');
    const end = runTo(plan, () => false, twice);
    expect(jobState(plan, end).next).toBeNull();
    expect(looks(end)[0]!.is).toBe('passed');
    // A look that is over stays; the next mend gets its own.
    const passed = runTo(plan, atCheck('lamp'), once);
    expect(looks(put(passed, mendTold(jobState(plan, passed), ['left'], mend, 'x')))).toHaveLength(2);
  });

  it('is the same for events in any order, and gone when it is taken back', () => {
    const steps = coatSteps(plan, { layerId: clear!, style: 'wet', coats: 1, reach: { kind: 'all' } });
    const events = runTo(
      plan,
      () => false,
      put(
        before,
        mendTold(
          jobState(plan, before),
          ['left', 'lid'],
          { way: 'fault', spot: 's', off: 'o', views: ['lamp'], steps },
          'x',
        ),
      ),
    );
    const said = (s: JobState) => JSON.stringify([s.cells, s.checks, s.areas, s.next]);
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (mixed) => {
        expect(said(jobState(plan, mixed))).toBe(said(jobState(plan, events)));
      }),
      { numRuns: 12 },
    );
    const mend = events.find((e) => e.kind === 'mend')!;
    const undone = [...before, mend, eventOf({ id: 'u', at: 1e12, kind: 'undo', text: mend.id })];
    expect(said(jobState(plan, undone))).toBe(said(jobState(plan, before)));
  });

  it('of any coats adds just their film, and asks for them once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('light' as const, 'wet' as const, 'control' as const),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        (style, coats) => {
          const steps = coatSteps(plan, { layerId: effect!, style, coats, reach: { kind: 'all' } });
          const film = steps.reduce((s, c) => s + (c.is === 'coat' ? c.share * STYLES[c.style].film : 0), 0);
          expect(Math.abs(film - coats)).toBeLessThan(0.01 * steps.length);
          const events = put(
            before,
            mendTold(jobState(plan, before), ['left'], { way: 'all', spot: '', off: '', views: [], steps }, 'x'),
          );
          const state = jobState(plan, events);
          expect(state.total).toBe(jobState(plan, before).total + steps.length);
          expect(costOf(plan, ['left'], '', steps).coats).toBe(steps.length);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('ways out', () => {
  const plan = planned();
  const moments: Readonly<Record<Moment, JobEvent[]>> = {
    'under way': runTo(
      plan,
      (s) => s.next?.is === 'cell' && s.next.state.cell.coat.kind === 'effect' && s.next.state.cell.coat.number === 3,
    ),
    'last chance': runTo(plan, atCheck('lamp')),
    finished: runTo(plan, () => false),
  };

  it('are told apart by the moment: through the clear only when it is on', () => {
    for (const [name, events] of Object.entries(moments))
      expect(momentOf(plan, jobState(plan, events), MIX, plan.objects[0]!.id)).toBe(name);
    const short = { nose: everywhere('lighter'), 'Left side': everywhere('match') };
    const kinds = (m: Moment) => waysFor(moments[m], plan, short).map((w) => w.kind);
    expect(kinds('last chance')).toEqual(expect.arrayContaining(['faded', 'leave', 'reground']));
    expect(kinds('finished')).toEqual(expect.arrayContaining(['sand-effect', 'leave', 'reground']));
    expect(kinds('finished')).not.toContain('faded');
    const through = waysFor(moments.finished, plan, short).find((w) => w.kind === 'sand-effect')!;
    const layers = through.steps.map((s) =>
      s.is === 'work' ? s.kind : plan.layers.find((l) => l.id === s.layerId)!.kind,
    );
    expect(layers.slice(0, 2)).toEqual(['dry', 'sand']);
    expect(layers.at(-1)).toBe('clear');
  });

  it('never lay a coat on a place that is darker than wanted, unless it is ground again first', () => {
    const verdict = fc.constantFrom<Verdict>('much lighter', 'lighter', 'match', 'darker', 'much darker');
    const view = fc.constantFrom<EyeView>('sun face', 'sun flop', 'shade', 'low light', 'lamp');
    fc.assert(
      fc.property(
        fc.constantFrom<Moment>('under way', 'last chance', 'finished'),
        fc.uniqueArray(fc.tuple(view, verdict), { selector: ([v]) => v, minLength: 1 }),
        fc.uniqueArray(fc.tuple(view, verdict), { selector: ([v]) => v, minLength: 1 }),
        (moment, own, others) => {
          const said = { 'Left side': own, 'Right side': others };
          const [spot] = seenAs(3, said);
          for (const w of waysFor(moments[moment], plan, said)) {
            const anew = w.steps.findIndex((s) => s.is === 'coat' && s.anew);
            if (spot!.zone !== 'over' || !w.areaIds.includes('left')) continue;
            // A coat of effect on it comes only behind ground that begins anew.
            w.steps.forEach((s, i) => {
              if (s.is === 'coat' && plan.layers.find((l) => l.id === s.layerId)!.kind === 'effect')
                expect(anew >= 0 && anew < i).toBe(true);
            });
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  it('richen only what is not over itself, and only before clear', () => {
    const said = { 'Left side': everywhere('much darker'), 'Right side': everywhere('match') };
    const ways = waysFor(moments['last chance'], plan, said);
    const richen = ways.find((w) => w.kind === 'richen')!;
    expect(richen.promise).toBe('even');
    expect(richen.areaIds).not.toContain('left');
    expect(colours(plan, richen).length).toBeGreaterThan(0);
    expect(waysFor(moments.finished, plan, said).some((w) => w.kind === 'richen')).toBe(false);
  });

  it('lay nothing over all of an area that has another place on it which is over, however that is called', () => {
    const said = {
      'Left side': everywhere('much darker'),
      nose: everywhere('darker'),
      'Right side': everywhere('match'),
    };
    const lies = { nose: ['lid'], 'Right side': ['right'] };
    const richen = waysFor(moments['last chance'], plan, said, ['left'], lies).find((w) => w.kind === 'richen')!;
    expect(richen.areaIds).toEqual(['right']);
    const unlike = [
      ['sun face', 'lighter'],
      ['sun flop', 'darker'],
    ] as const;
    const kinds = (nose: Verdict) =>
      waysFor(moments['last chance'], plan, { 'Left side': unlike, nose: everywhere(nose) }, ['left'], {
        nose: ['left'],
      }).map((w) => w.kind);
    expect(kinds('match')).toContain('control');
    expect(kinds('darker')).not.toContain('control');
  });

  it('over a whole area that is short: a coat over all of it, unless a place on it is not short', () => {
    const all = (nose: Verdict) =>
      waysFor(moments['last chance'], plan, { 'Left side': everywhere('lighter'), nose: everywhere(nose) }, ['left'], {
        nose: ['left'],
      });
    const way = all('lighter').find((w) => w.kind === 'all')!;
    expect(way.areaIds).toEqual(['left']);
    expect(way.steps.every((s) => s.is === 'coat' && s.reach.kind === 'all')).toBe(true);
    expect(all('lighter').some((w) => w.kind === 'faded')).toBe(false);
    expect(all('match').some((w) => w.kind === 'all')).toBe(false);
  });

  it('say what each comes to: chances that sum to one, a strip per angle, and what it costs', () => {
    for (const said of [{ nose: everywhere('lighter') }, { nose: everywhere('much darker') }] as const)
      for (const events of Object.values(moments))
        for (const w of waysFor(events, plan, said)) {
          if (w.chances) expect(w.chances.under + w.chances.in + w.chances.over).toBeCloseTo(1, 6);
          expect(w.labs).toHaveLength(FIVE_ANGLES.length);
          expect(w.differences).toHaveLength(FIVE_ANGLES.length);
          if (w.kind === 'leave') expect(w.cost.coats).toBe(0);
          else {
            expect(w.cost.ml).toBeGreaterThan(0);
            expect(w.cost.minutes).toBeGreaterThan(0);
            expect(w.risk && w.back).toBeTruthy();
          }
        }
  });
});

describe('faded coats', () => {
  const ladder = plainLadder(nominalTable(of), 1);
  const look = (film: number) => toLabs(labsAt(ladder, film));

  it('leave no more to be seen than there was, and put little on what is right', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.integer({ min: 4, max: 80 }),
        fc.integer({ min: 1, max: 3 }),
        (film, missing, acrossCm, coats) => {
          const plan = planFaded({
            besideFilm: film + missing,
            film,
            laid: missing,
            coats,
            acrossCm,
            atEdge: true,
            look,
          });
          expect(plan.worst).toBeLessThan(Math.max(...plan.before));
          expect(plan.worst).toBeLessThan(0.6 * Math.max(...plan.before) + 0.15);
          expect(plan.beside).toBeLessThanOrEqual(plan.worst + 1e-9);
          expect(plan.filmAfter[0]! - plan.filmBefore[0]!).toBeCloseTo(missing, 6);
          // An edge has one side.
          const round = planFaded({
            besideFilm: film + missing,
            film,
            laid: missing,
            coats,
            acrossCm,
            atEdge: false,
            look,
          });
          expect(round.m2 / plan.m2).toBeCloseTo(2, 1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('look as the reference tier has them, within 0.5 dE00 at every place', () => {
    let worst = 0;
    for (const [mixId, groundId, style] of [
      [MIX, GROUND, 'wet'],
      ['moonmilk-pearl', 'white', 'medium'],
      ['cinder-candy', 'silver-fine', 'wet'],
      ['smoke-tea-clear', 'gold', 'wet'],
    ] as const) {
      const ground = shop.ground(findGround(groundId));
      const recipe = { coat: shop.coat(findMix(mixId), 1), style: STYLES[style] };
      const { optics } = shop.model(FIVE_ANGLES);
      const own = plainLadder(nominalTable({ model: shop.model(FIVE_ANGLES), ground, recipe, viewing: D65_10 }), 1);
      const plan = planFaded({
        ...{ besideFilm: 2.6, film: 2, laid: 0.6, coats: 2, acrossCm: 24, atEdge: true },
        look: (n) => toLabs(labsAt(own, n)),
      });
      for (let i = 0; i < plan.places.length; i += 6) {
        const film = plan.filmAfter[i]!;
        const true_ = factorsToLabs(
          evaluateReference(optics, ground, [...ground.coats, ...effectCoats(recipe, film)]),
          D65_10,
        );
        toLabs(labsAt(own, film)).forEach((lab, g) => (worst = Math.max(worst, de2000(true_[g]!, lab))));
      }
    }
    expect(worst).toBeLessThan(0.5);
  });
});

describe('what a way promises', () => {
  it('falls and rises with what is laid: less is short, more is over', () => {
    const wanted = { film: 0.8, sd: 0.15, rate: 1, window: [-0.3, 0.3] as const };
    const at = [0, 0.4, 0.8, 1.2, 1.6].map((q) => repairChances(q, wanted, true));
    for (let i = 1; i < at.length; i++) {
      expect(at[i]!.under).toBeLessThanOrEqual(at[i - 1]!.under + 1e-9);
      expect(at[i]!.over).toBeGreaterThanOrEqual(at[i - 1]!.over - 1e-9);
    }
    expect(at[2]!.in).toBeGreaterThan(Math.max(at[0]!.in, at[4]!.in));
    expect(amountThere(0, wanted, true)).toBeGreaterThan(0.3);
    expect(amountThere(0, wanted, true)).toBeLessThan(1);
  });

  it('is kept: painters of two truths, places off by a missed pass, mended as advised', () => {
    const of_ = (world: (kind: Kind, k: number) => World, seed: number): Repair[] =>
      CORE_KINDS.flatMap((kind, k) => studyRepairs(world(kind, k), seed + k, shop, { each: 8, now: () => 0 }));
    const [own, foreign] = [
      [0, 1, 2].flatMap((i) => of_((kind, k) => ownWorld(shop, kind, createRandom(500 + 10 * k + i)), 40 + 10 * i)),
      of_((kind, k) => foreignWorld(shop, kind, createRandom(900 + k), 250), 60),
    ];
    const repairs = [...own, ...foreign];
    expect(repairs.length).toBeGreaterThan(250);
    const mean = (of: readonly Repair[], f: (r: Repair) => number) => of.reduce((s, r) => s + f(r), 0) / of.length;
    const more = (of: readonly Repair[]) => mean(of, (r) => r.promised) - mean(of, (r) => (r.inside ? 1 : 0));
    // Of a truth of another kind about as many end inside as was promised; of the program's own kind more, never fewer.
    expect(Math.abs(more(foreign))).toBeLessThan(0.1);
    expect(more(own)).toBeLessThan(0.02);
    expect(more(own)).toBeGreaterThan(-0.2);
    const sure = repairs.filter((r) => r.promised >= 0.75);
    expect(sure.length).toBeGreaterThan(20);
    expect(mean(sure, (r) => (r.inside ? 1 : 0))).toBeGreaterThan(0.75);
    // What was called short never goes over often.
    const faded = repairs.filter((r) => r.way === 'faded');
    expect(faded.length).toBeGreaterThan(40);
    expect(mean(faded, (r) => (r.over ? 1 : 0))).toBeLessThan(0.1);
  });
});

describe('ways out of faults', () => {
  const plan = planned();

  it('stand for every fault of the table, before clear and after it as the table says, and run to the end', () => {
    expect(Object.keys(FAULT_WAYS).sort()).toEqual(FAULTS.map((f) => f.id).sort());
    const [before, after] = [runTo(plan, atCheck('lamp')), runTo(plan, () => false)];
    for (const fault of FAULTS) {
      const ways = FAULT_WAYS[fault.id]!;
      expect([fault.id, ways.before.length > 0]).toEqual([fault.id, fault.before !== null]);
      expect([fault.id, ways.after.length > 0]).toEqual([fault.id, fault.after !== null]);
      for (const [events, list] of [
        [before, ways.before],
        [after, ways.after],
      ] as const)
        for (const way of list) {
          const state = jobState(plan, events);
          const steps = stepsOfFault(plan, mendLayers(plan, state, 'left'), way, spotReaches(15, false, 'spot'));
          expect(steps.length).toBeGreaterThanOrEqual(way.steps.length);
          const mend = { way: 'fault' as const, spot: fault.name, off: fault.name, views: ['lamp' as const], steps };
          const run = put(events, mendTold(state, ['left'], mend, way.name));
          const begun = jobState(plan, run);
          // The mend comes first, and the run ends after it.
          const first = begun.next;
          expect(first?.is === 'cell' ? first.state.cell.coatId : first?.state.check.id).toMatch(/^mend\//);
          const end = jobState(
            plan,
            runTo(plan, () => false, run),
          );
          expect(end.next).toBeNull();
          expect(end.done).toBe(end.total);
        }
    }
  });
});
