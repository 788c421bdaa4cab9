import { describe, expect, it } from '@jest/globals';
import { filmOfSettings } from '../spraying/gunFilm';
import { area, finish, object, PLAIN_SETTINGS, plainPlan } from '../testdata/jobs';
import { letDownMl } from './amounts';
import { eventOf } from './events';
import { reachM2 } from './reach';
import { extraCell } from './plan';
import { type JobPlan } from './planTypes';
import { sayEvent } from './say';
import { jobState } from './state';
import { extraTold } from './tell';

describe('cells', () => {
  const coaches = () =>
    plainPlan({
      objects: [
        object('coach 1', { counts: [{ finishId: 'main', coats: 3, lookAfter: 2 }] }),
        object('coach 2', { counts: [{ finishId: 'main', coats: 4, lookAfter: null }] }),
      ],
      areas: [area('side 1', { objectId: 'coach 1' }), area('side 2', { objectId: 'coach 2' })],
    });
  const counted = (plan: JobPlan, areaId: string) =>
    plan.cells.filter((c) => c.areaId === areaId && c.coat.kind === 'effect' && c.coats > 0);
  it('give two like objects from one cup the counts their own targets ask for', () => {
    const plan = coaches();
    expect(counted(plan, 'side 1')).toHaveLength(3);
    expect(counted(plan, 'side 2')).toHaveLength(4);
    expect(new Set(plan.cells.filter((c) => c.coat.kind === 'effect').map((c) => c.coat.cupId)).size).toBe(1);
    expect(plan.checks.filter((c) => c.kind === 'look').map((c) => [c.objectId, c.coats])).toEqual([
      ['coach 1', 2],
      ['coach 2', 3],
    ]);
    // Both go to clear in one round.
    const clears = plan.cells.filter((c) => c.coat.kind === 'clear' && c.coat.counted && c.coat.number === 1);
    expect(new Set(clears.map((c) => c.round)).size).toBe(1);
    expect(plan.rows.filter((r) => r.coat.kind === 'effect').map((r) => r.cells.length)).toEqual([2, 2, 2, 1]);
  });
  it('are looked at before the coat that would pass the first stop, never after it', () => {
    const lookAt = (coats: number, lookAfter: number) =>
      plainPlan({
        objects: [object('coach 1', { counts: [{ finishId: 'main', coats, lookAfter }] })],
        areas: [area('side 1', { objectId: 'coach 1' })],
      }).checks.find((c) => c.kind === 'look')!.coats;
    expect(lookAt(3, 2.25)).toBe(2);
    expect(lookAt(2.5, 2.25)).toBe(2);
    expect(lookAt(3, 2.75)).toBe(2);
    expect(lookAt(4, 3)).toBe(3);
    // The card's first stop stands where nothing was said of the object.
    const byCard = plainPlan({
      finishes: [{ ...finish('main', 'lagoon-pearl', 'aqua-pastel', 4), firstStop: 2.5 }],
      areas: [area('tub')],
    });
    expect(byCard.checks.find((c) => c.kind === 'look')!.coats).toBe(2);
    // Less than a first coat: after that one, since none can be looked at before.
    expect(lookAt(3, 0.75)).toBe(1);
  });
  it('lay a stripe over the locked tone, masked, once, and clear over all', () => {
    const plan = plainPlan({
      finishes: [finish('main', 'lagoon-pearl', 'aqua-pastel', 3), finish('lines', 'cinder-candy', 'gold', 2)],
      areas: [area('tub'), area('stripe', { on: 'tub', finishId: 'lines', areaM2: 0.4 })],
    });
    const of = (id: string) => plan.cells.filter((c) => c.areaId === id);
    expect(new Set(of('stripe').map((c) => c.coat.kind))).toEqual(new Set(['ground', 'effect']));
    expect(of('tub').filter((c) => c.coat.kind === 'lock')).toHaveLength(1);
    expect(of('stripe').every((c) => c.areaM2 === 0.4)).toBe(true);
    const kinds = jobState(plan, []).steps.map((s) =>
      s.is === 'check' ? s.state.check.kind : `${s.state.cell.areaId} ${s.state.cell.coat.kind}`,
    );
    const order = ['tub lock', 'mask', 'stripe ground', 'stripe effect', 'unmask', 'tub clear'].map((k) =>
      kinds.indexOf(k),
    );
    expect(order.every((k) => k >= 0)).toBe(true);
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    expect(kinds.lastIndexOf('stripe effect')).toBeLessThan(kinds.indexOf('unmask'));
    // The base's clear waits for the last coat of the stripe; the stripe for the lock below it.
    const clear = of('tub').find((c) => c.coat.kind === 'clear')!;
    expect(clear.under.map((u) => u.areaId)).toEqual(['tub', 'stripe']);
    expect(of('stripe')[0]!.under[0]!.areaId).toBe('tub');
  });
  it('go as far as they are said to go: nowhere, on a spot, along a blend', () => {
    const door = { areaM2: 1.2, lengthCm: 120 };
    expect(reachM2({ kind: 'all' }, door)).toBe(1.2);
    expect(reachM2({ kind: 'none' }, door)).toBe(0);
    expect(reachM2({ kind: 'spot', m2: 0.1 }, door)).toBe(0.1);
    expect(reachM2({ kind: 'blend', endCm: 40, fadeCm: 20, stepCm: 0, from: 'left' }, door)).toBeCloseTo(0.3, 12);
    expect(reachM2({ kind: 'blend', endCm: 400, fadeCm: 20, stepCm: 0, from: 'left' }, door)).toBe(1.2);
    const plan = plainPlan({
      areas: [area('door'), area('wing')],
      settings: {
        ...PLAIN_SETTINGS,
        cells: [
          { areaId: 'wing', layerId: 'sealer', coats: 2, reach: { kind: 'spot', m2: 0.1 } },
          { areaId: 'wing', layerId: 'ground', coats: null, reach: { kind: 'none' } },
          {
            areaId: 'wing',
            layerId: 'effect',
            coats: null,
            reach: { kind: 'blend', endCm: 70, fadeCm: 30, stepCm: 10, from: 'door' },
          },
        ],
      },
    });
    const wing = plan.cells.filter((c) => c.areaId === 'wing');
    expect(wing.filter((c) => c.coat.kind === 'sealer').map((c) => c.areaM2)).toEqual([0.1, 0.1]);
    expect(wing.some((c) => c.coat.kind === 'ground')).toBe(false);
    // Each coat goes 10 cm further than the one below it, the last to where the blend ends.
    expect(wing.filter((c) => c.coat.kind === 'effect').map((c) => c.reach)).toMatchObject([
      { endCm: 50 },
      { endCm: 60 },
      { endCm: 70 },
    ]);
    expect(wing.findLast((c) => c.coat.kind === 'effect')!.areaM2).toBeCloseTo((2 * 55) / 140, 12);
    expect(plan.checks.find((c) => c.kind === 'tail')!.areaIds).toEqual(['wing']);
  });
  it('close jambs before the last coat outside, and hang loose parts before the effect', () => {
    const plan = plainPlan({ areas: [area('side'), area('jamb', { first: true }), area('cap', { loose: true })] });
    const steps = jobState(plan, []).steps.map((s) =>
      s.is === 'check' ? s.state.check.kind : `${s.state.cell.areaId} ${s.state.cell.coat.id}`,
    );
    const last = plan.cells.findLast((c) => c.areaId === 'side')!;
    const jamb = plan.cells.findLast((c) => c.areaId === 'jamb')!;
    expect(steps.indexOf('close')).toBeGreaterThan(steps.indexOf(`jamb ${jamb.coatId}`));
    expect(steps.indexOf('close')).toBeLessThan(steps.indexOf(`side ${last.coatId}`));
    expect(steps.indexOf('mount')).toBeLessThan(
      steps.indexOf(`cap ${plan.cells.find((c) => c.areaId === 'cap' && c.coat.kind === 'effect')!.coatId}`),
    );
  });
  it('take the card’s distance and pressure for its mix, and say both when they were changed', () => {
    const cards = {
      'cinder-candy': { gun: 'any', distanceCm: 20, pressureBar: 1.3, tipMm: null, overlap: null, turns: null },
    };
    const effect = (more: object = {}) =>
      plainPlan({ cards, settings: { ...PLAIN_SETTINGS, ...more } }).cells.find((c) => c.coat.kind === 'effect')!;
    expect(effect().coat).toMatchObject({ distanceCm: 20, pressureBar: 1.3 });
    const edits = { [effect().coatId]: { distanceCm: 15 } };
    expect(effect({ edits }).coat).toMatchObject({ distanceCm: 15, pressureBar: 1.3 });
    const clear = plainPlan({ cards }).cells.find((c) => c.coat.kind === 'clear')!;
    expect(clear.coat.distanceCm).not.toBe(20);
  });
  it('lay a tenth as a quarter coat of the mix let down 1:1: half its solids, twice its spray', () => {
    const plan = plainPlan();
    const plain = extraCell(plan, { id: 'x', layerId: 'effect', areaId: 'tub', coats: 0.125 })!;
    const thin = extraCell(plan, { id: 'x', layerId: 'effect', areaId: 'tub', coats: 0.125, letDown: true })!;
    expect(thin.coat.filmUm).toBeCloseTo(plain.coat.filmUm, 9);
    expect(thin.coat.volumeSolids).toBeCloseTo(plain.coat.volumeSolids / 2, 12);
    expect(thin.coat.name).toContain('let down 1:1');
    // By hand: (area x film / solids / 65 % + 15 ml) / 2, to the next 5.
    const wet = (thin.areaM2 * thin.coat.filmUm) / thin.coat.volumeSolids / 0.65 + 15;
    expect(letDownMl(thin, 0.65)).toBe(Math.ceil(wet / 10) * 5);
    const told = extraTold(jobState(plan, []), ['effect'], ['tub'], 0.125, false, () => 'x', true);
    const state = jobState(plan, [eventOf({ id: 'e', at: 1, ...told[0]! })]);
    expect(state.cells.find((c) => c.isExtra)!.cell.coat.name).toBe(thin.coat.name);
    expect(sayEvent(plan, state.history[0]!)).toContain('a mist coat of the mix let down 1:1 more');
  });
  it('have settings for an extra half coat that lay a half', () => {
    const plan = plainPlan();
    const full = plan.cells.findLast((c) => c.coat.kind === 'effect')!;
    const half = extraCell(plan, { id: 'x', layerId: 'effect', areaId: 'tub', coats: 0.5 })!;
    const lays = (c: typeof half) => filmOfSettings(plan.gun, c.coat, c.coat.volumeSolids);
    expect(half.coat.filmUm).toBeCloseTo(full.coat.filmUm / 2, 12);
    expect(lays(half) / lays(full)).toBeCloseTo(0.5, 1);
    expect(extraCell(plan, { id: 'x', layerId: 'nothing', areaId: 'tub', coats: 1 })).toBeNull();
  });
  it('of clear are left out where an area is uncleared, and the last one is satin where it is', () => {
    const areas = [area('out'), area('in', { clear: 'uncleared' }), area('sill', { clear: 'satin' })];
    const plan = plainPlan({ areas });
    const clears = (id: string) =>
      plan.cells.filter((c) => c.areaId === id && c.coat.kind === 'clear').map((c) => c.coat.name);
    expect(clears('in')).toEqual([]);
    expect(clears('out').some((n) => n.startsWith('satin'))).toBe(false);
    expect(clears('sill').filter((n) => n.startsWith('satin'))).toEqual([clears('sill').at(-1)]);
    expect(clears('sill')).toHaveLength(clears('out').length);
    // By hand it is cleared all the same.
    const clear = plan.layers.find((l) => l.kind === 'clear')!;
    const cells = [{ areaId: 'in', layerId: clear.id, coats: null, reach: { kind: 'all' as const } }];
    const asked = plainPlan({ areas, settings: { ...PLAIN_SETTINGS, cells } });
    expect(asked.cells.some((c) => c.areaId === 'in' && c.coat.kind === 'clear')).toBe(true);
  });
  it('with a grip coat are looked at right after it, where a fisheye still costs nothing', () => {
    const plan = plainPlan({ settings: { ...PLAIN_SETTINGS, grip: true } });
    const mist = plan.checks.find((c) => c.kind === 'mist')!;
    const grip = plan.cells.find((c) => c.coat.style === 'grip')!;
    expect(mist.after).toEqual([{ coatId: grip.coatId, areaId: grip.areaId }]);
    const next = plan.cells.find((c) => c.under.some((u) => u.coatId === grip.coatId))!;
    expect(next.checks).toContain(mist.id);
    expect(plainPlan().checks.some((c) => c.kind === 'mist')).toBe(false);
  });
  it('are planned and folded fast: 12 areas, 14 coats and 2,000 events in a blink', () => {
    const big = finish('main', 'lagoon-pearl', 'aqua-pastel', 7);
    const areas = Array.from({ length: 12 }, (_, i) => area(`a${i}`, { x: i % 4, y: i / 4 }));
    const plan = plainPlan({ finishes: [big], areas });
    expect(plan.cells.length).toBe(12 * 14);
  });
});
