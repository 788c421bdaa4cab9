import { describe, it, expect } from '@jest/globals';
import fc from 'fast-check';
import { D65_10, de2000 } from '../colour';
import { FAULT_WAYS, FAULTS } from '../faults';
import { STYLES } from '../finishes';
import { jobState } from '../jobs';
import { plainLadder, nominalTable, toLabs, labsAt } from '../letdown';
import { factorsToLabs, effectCoats } from '../matching';
import { findGround, findMix } from '../materials';
import { createRandom } from '../numeric';
import { FIVE_ANGLES, evaluateReference } from '../optics';
import { type Kind, type World, type Repair, CORE_KINDS, studyRepairs, ownWorld, foreignWorld } from '../study';
import { of, MIX, GROUND, shop, planned, runTo, atCheck, put } from '../testdata/mends';
import { repairChances, amountThere } from './chances';
import { planFaded } from './faded';
import { spotReaches } from './reGround';
import { stepsOfFault, mendLayers, mendTold } from './steps';

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
