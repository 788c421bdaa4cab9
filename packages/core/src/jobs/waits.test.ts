import { describe, it, expect } from '@jest/globals';
import fc from 'fast-check';
import { keptGaps } from '../booth';
import { STARTING_PRODUCTS, STARTING_GUNS, wayOf, wayTells } from '../products';
import { plainPlan, PLAIN_SETTINGS, finish, area } from '../testdata/jobs';
import { candy, waitsOf, bare, lineOf } from '../testdata/plans';
import type { JobFinish } from './job';
import { BEFORE_CLEAR } from './laid';
import type { JobPlan } from './planTypes';
import { jobState } from './state';
import { timeTasks } from './tasks';

describe('waits', () => {
  it('are the same in the booth and on the timeline, longer before clear', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 38, noNaN: true }), (temperatureC) => {
        const plan = plainPlan({ finishes: [candy], temperatureC });
        const tasks = timeTasks(plan, jobState(plan, [])).filter((t) => t.coatId !== null);
        waitsOf(plan).forEach((wait, k) => {
          expect(tasks[k + 1]!.after[0]!.min).toBe(wait);
          if (plan.cells[k]!.coat.kind === 'effect' && plan.cells[k + 1]!.coat.kind === 'clear')
            expect(wait).toBeGreaterThanOrEqual(20);
        });
      }),
    );
  });
  it('are 20 min and more before any two-pack clear over solvent base, an effect below it or not, tinted or not', () => {
    const over = (one: JobFinish, settings: object = {}) =>
      plainPlan({ finishes: [one], temperatureC: 30, settings: { ...PLAIN_SETTINGS, ...settings } });
    const plain = over(bare);
    const last = plain.cells.findLastIndex((c) => c.coat.kind === 'ground');
    expect(plain.cells[last]!.flashMinutes).toBeLessThan(BEFORE_CLEAR);
    expect(waitsOf(plain)[last]).toBe(BEFORE_CLEAR);
    const tinted = over(finish('main', 'smoke-tea-clear', 'gold', 2));
    const base = tinted.cells.findLastIndex((c) => c.coat.kind === 'ground');
    expect(tinted.cells[base + 1]!.coat.chemistry).toBe('two-pack');
    expect(waitsOf(tinted)[base]).toBe(BEFORE_CLEAR);
    // The painter's own figure takes its place.
    expect(waitsOf(over(bare, { beforeClearMinutes: 45 }))[last]).toBe(45);
    expect(waitsOf(over(bare, { beforeClearMinutes: 0 }))[last]).toBe(plain.cells[last]!.flashMinutes);
  });
  it('are used as they were typed, at any temperature, film and school', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 38, noNaN: true }),
        fc.double({ min: 0.5, max: 120, noNaN: true }),
        fc.nat(),
        (temperatureC, minutes, pick) => {
          const { cells } = plainPlan({ finishes: [candy], temperatureC });
          const k = pick % (cells.length - 1);
          const edits = { [cells[k]!.coatId]: { flashMinutes: minutes } };
          const edited = plainPlan({ finishes: [candy], temperatureC, settings: { ...PLAIN_SETTINGS, edits } });
          expect(waitsOf(edited)[k]).toBe(minutes);
          expect(edited.rows.find((r) => r.coat.id === cells[k]!.coatId)!.waitMinutes).toBe(minutes);
        },
      ),
    );
  });
  it('are told as the gap that is kept, not the flash it would have been', () => {
    const plan = plainPlan({ finishes: [bare], temperatureC: 30 });
    const gaps = keptGaps(timeTasks(plan, jobState(plan, [])), lineOf(plan));
    const waits = waitsOf(plan);
    plan.cells.slice(0, -1).forEach((c, k) => expect(gaps.get(c.coatId)).toBeGreaterThanOrEqual(waits[k]! - 1e-9));
    // After the last it stands before the bake, 15 min at the least.
    expect(gaps.get(plan.cells.at(-1)!.coatId)).toBeGreaterThanOrEqual(15);
  });
});
describe('cups', () => {
  it('of one mix at two strengths are two, each with its own pot life and mixing', () => {
    const two: JobFinish = {
      ...finish('main', 'smoke-tea-clear', 'gold', 1),
      layers: finish('main', 'smoke-tea-clear', 'gold', 1).layers.flatMap((l) =>
        l.kind === 'effect' ? [l, { ...l, id: 'stronger', strength: 1.5 }] : [l],
      ),
    };
    const short = { ...STARTING_PRODUCTS.find((p) => p.kind === 'tinted clear')!, id: 'short', potLifeMinutes: 30 };
    const plan = plainPlan({
      finishes: [two],
      products: [...STARTING_PRODUCTS, short],
      named: { stronger: 'short' },
      settings: { ...PLAIN_SETTINGS, bake: false },
    });
    const cups = plan.batches.filter((b) => b.name === 'Smoke tea tinted clear');
    expect(cups.map((c) => [c.id, c.potMinutes])).toEqual([
      ['effect', 150],
      ['stronger', 30],
    ]);
    expect(lineOf(plan).tasks.filter((t) => t.batch?.name === 'Smoke tea tinted clear')).toHaveLength(2);
  });
  it('are one product for all their coats, the control coat among them', () => {
    const slow = { ...STARTING_PRODUCTS.find((p) => p.kind === 'intercoat')!, id: 'slow', flashMinutes: 30 };
    const { cells } = plainPlan({
      finishes: [candy],
      products: [...STARTING_PRODUCTS, slow],
      named: { effect: slow.id },
    });
    const effect = cells.filter((c) => c.coat.kind === 'effect').map((c) => c.coat);
    expect(effect.map((c) => c.style)).toEqual(['wet', 'wet', 'control']);
    expect(effect.map((c) => c.flashMinutes)).toEqual([30, 30, 30]);
    expect(cells.filter((c) => c.coat.kind !== 'effect').some((c) => c.coat.flashMinutes === 30)).toBe(false);
  });
  it('follow the reducer: a slower one, asked for by size or chosen, flashes longer and keeps paint open longer', () => {
    const of = (areaM2: number, reducers: Record<string, string> = {}) =>
      plainPlan({ reducers, areas: [area('tub', { areaM2 })] });
    const effect = (plan: JobPlan) => plan.cells.find((c) => c.coat.kind === 'effect')!.flashMinutes;
    const chosen = of(2, { effect: 'Breakwater reducer, slow' });
    expect(effect(of(2))).toBeCloseTo(12, 9);
    expect(effect(chosen)).toBeGreaterThan(12 * 1.3);
    expect(chosen.air.openMinutes).toBeGreaterThan(of(2).air.openMinutes);
    // A large job asks for the slower one by itself.
    expect(effect(of(12))).toBeCloseTo(effect(chosen), 9);
    expect(effect(of(2, { effect: 'Breakwater reducer, fast' }))).toBeLessThan(12);
  });
});
describe('cans', () => {
  // Common practice (no source): 10 between light coats, 15 after a layer, 30 before the mid coat, 20 between clears.
  it('wait as cans do, lay light coats, are shaken first and never baked', () => {
    const gun = STARTING_GUNS.find((g) => g.kind === 'aerosol')!;
    const plan = plainPlan({ finishes: [candy], gun });
    const last = (kind: string) => plan.cells.findLast((c) => c.coat.kind === kind)!;
    expect(plan.cells.find((c) => c.coat.kind === 'ground')!.flashMinutes).toBeCloseTo(10, 6);
    expect(last('ground').flashMinutes).toBeCloseTo(30, 6);
    expect(last('sealer').flashMinutes).toBeCloseTo(15, 6);
    expect(plan.cells.find((c) => c.coat.kind === 'clear' && c.coat.counted)!.flashMinutes).toBeCloseTo(20, 6);
    for (const c of plan.cells.filter((o) => o.coat.kind !== 'clear' && o.coat.counted && o.coat.style !== 'control'))
      expect(c.coat.film).toBeLessThan(0.6);
    expect(new Set(plan.cells.map((c) => c.coat.distanceCm))).toEqual(new Set([28]));
    expect(plan.checks.map((c) => c.kind)).toContain('shake');
    expect(plan.checks.map((c) => c.kind)).not.toContain('bake');
    // The same film is laid as from a gun, in more coats.
    const film = (of: typeof plan) =>
      of.cells.filter((c) => c.coat.kind === 'ground').reduce((s, c) => s + c.coat.filmUm, 0);
    expect(film(plan)).toBeCloseTo(film(plainPlan({ finishes: [candy] })), 6);
    const way = wayOf(gun)!;
    expect(wayTells(way, 2, [])).toEqual([]);
    expect(wayTells(way, 3, [])[0]).toContain('at most 2 clears');
    expect(wayOf(STARTING_GUNS[0]!)).toBeNull();
  });
});
