import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FAMILIES } from '../finishes/families';
import { REFERENCE_LIBRARY } from '../materials/shop';
import { area, finish, object, plainPlan, PLAIN_SETTINGS } from '../testdata/jobs';
import type { PlannedCoat } from '../spraying/coatPlan';
import { isCounted, objectsOf, sprayAreas, spreadCount, type CellEdit } from './job';
import { BEFORE_CLEAR, jobLayers, laidOn, reachOf, waitBetween } from './laid';
import { ALL, NONE, reachFaults, reachM2, type Reach } from './reach';
import { shownStacks, stacksOfPick } from './stacks';

const candy = finish('main', 'cinder-candy', 'silver-fine', 3, { controlCoats: 1 });
const pearl = finish('stripe', 'lagoon-pearl', 'white', 2);
/** The family whose control coats are counted. */
const shift = finish('main', 'moon-face-shift', 'black', 3);
const coats = fc.double({ min: 0, max: 12, noNaN: true });

describe('layers of a job', () => {
  it('have ids of their own, the first finish’s as they are', () => {
    const layers = jobLayers([candy, { ...candy, id: 'second' }], []);
    expect(new Set(layers.map((l) => l.id)).size).toBe(layers.length);
    expect(layers.slice(0, candy.layers.length).map((l) => l.id)).toEqual(candy.layers.map((l) => l.id));
    expect(layers.at(-1)!.id).toBe(`second/${candy.layers.at(-1)!.id}`);
  });

  it('have the tone below a stripe locked, over its effect and under its clear, once', () => {
    const areas = [area('side'), area('stripe', { on: 'side', finishId: 'stripe' })];
    const [plain, striped] = [jobLayers([candy, pearl], [area('side')]), jobLayers([candy, pearl], areas)];
    expect(striped).toHaveLength(plain.length + 1);
    const own = striped.filter((l) => l.finishId === 'main').map((l) => l.kind);
    expect(own.indexOf('lock')).toBeGreaterThan(own.lastIndexOf('effect'));
    expect(own.indexOf('lock')).toBeLessThan(own.indexOf('clear'));
    // Where it is locked already it is not locked again.
    const locked = {
      ...candy,
      layers: candy.layers.flatMap((l) => (l.kind === 'clear' ? [{ ...l, id: 'x', kind: 'lock' as const }, l] : [l])),
    };
    expect(jobLayers([locked], areas).filter((l) => l.kind === 'lock')).toHaveLength(1);
  });
});

describe('a count', () => {
  it('is of the mix’s effect coats; its control coats are with them only where the family counts them', () => {
    const control = candy.layers.find((l) => l.style === 'control')!;
    const effect = candy.layers.find((l) => l.kind === 'effect' && l.style !== 'control')!;
    expect([isCounted(candy, effect), isCounted(candy, control)]).toEqual([true, false]);
    expect(isCounted(candy, { ...effect, materialId: 'lagoon-pearl' })).toBe(false);
    expect(FAMILIES[shift.family!].controlAfter).not.toBeNull();
    expect(shift.layers.filter((l) => isCounted(shift, l)).length).toBe(
      shift.layers.filter((l) => l.kind === 'effect').length,
    );
  });

  it('is spread over the layers that lay it and adds up to itself', () => {
    fc.assert(
      fc.property(coats, coats, coats, (count, first, second) => {
        const layers = [first, second].map((n, i) => ({
          ...candy.layers.find((l) => l.kind === 'effect')!,
          id: `l${i}`,
          coats: n,
        }));
        for (const mine of [candy, shift]) {
          const spread = spreadCount(mine, layers, count);
          const sum = [...spread.values()].reduce((s, v) => s + v, 0);
          for (const v of spread.values()) expect(v).toBeGreaterThanOrEqual(-1e-9);
          // Where the others alone are more, the first takes nothing and they stay as they are.
          expect(sum).toBeCloseTo(mine === candy ? Math.max(count, second) : count, 9);
        }
      }),
    );
  });
});

describe('layers on an area', () => {
  const laid = (
    a: ReturnType<typeof area>,
    more: { cells?: CellEdit[]; counts?: { finishId: string; coats: number | null; lookAfter: null }[] } = {},
  ) => {
    const areas = [area('side'), a];
    const q = {
      finishes: [candy, pearl],
      objects: [object('it', { counts: more.counts ?? [] })],
      settings: { ...PLAIN_SETTINGS, cells: more.cells ?? [] },
    };
    return laidOn(a, q, jobLayers(q.finishes, areas));
  };

  it('go from what all share to what lies over all', () => {
    const phases = laid(area('tub')).map((l) => l.phase);
    expect(phases).toEqual([...phases].sort((x, y) => x - y));
    expect(new Set(phases)).toEqual(new Set([0, 1, 3]));
  });

  it('of a stripe are its own tone alone: primer, lock and clear it has from below', () => {
    const stripe = laid(area('stripe', { on: 'side', finishId: 'stripe' }));
    for (const { layer, reach, phase } of stripe) {
      expect(reach).toEqual(layer.kind === 'sealer' || layer.kind === 'clear' ? NONE : ALL);
      if (layer.kind === 'effect') expect(phase).toBe(2);
    }
  });

  it('have the object’s own count, and before all what the painter said of this very area', () => {
    const counts = [{ finishId: 'main', coats: 5, lookAfter: null }];
    const effect = (of: ReturnType<typeof laid>) => of.find((l) => l.layer.kind === 'effect' && l.layer.counted)!;
    expect(effect(laid(area('tub'))).coats).toBe(3);
    expect(effect(laid(area('tub'), { counts })).coats).toBe(5);
    const cells: CellEdit[] = [
      { areaId: 'tub', layerId: effect(laid(area('tub'))).layer.id, coats: 1.5, reach: { kind: 'spot', m2: 0.2 } },
    ];
    expect(effect(laid(area('tub'), { counts, cells }))).toMatchObject({
      coats: 1.5,
      reach: { kind: 'spot', m2: 0.2 },
    });
    expect(effect(laid(area('lid'), { counts, cells })).coats).toBe(5);
  });

  it('a hidden one that stays uncleared gets no clear', () => {
    const clear = laid(area('inside', { clear: 'uncleared' })).find((l) => l.layer.kind === 'clear')!;
    expect(clear.reach).toEqual(NONE);
    expect(laid(area('inside', { clear: 'satin' })).find((l) => l.layer.kind === 'clear')!.reach).toEqual(ALL);
  });
});

describe('how far a coat goes', () => {
  const blend: Reach = { kind: 'blend', endCm: 60, fadeCm: 20, stepCm: 10, from: 'edge' };
  const coat = (number: number, of: number) => ({ number, of }) as PlannedCoat;

  it('in a blend is a step further each, the last one to the end', () => {
    const ends = [1, 2, 3].map((n) => reachOf(blend, coat(n, 3)));
    expect(ends.map((r) => r.kind === 'blend' && r.endCm)).toEqual([40, 50, 60]);
    expect(reachOf(ALL, coat(1, 3))).toBe(ALL);
    // A fade is never longer than the blend itself.
    expect(reachOf({ ...blend, endCm: 25 }, coat(1, 3))).toMatchObject({ endCm: 5, fadeCm: 5 });
  });

  it('is of no more than the area, and of nothing where it does not go', () => {
    const tub = area('tub');
    fc.assert(
      fc.property(
        coats,
        fc.double({ min: 1, max: 400, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (m2, endCm, fadeCm) => {
          for (const reach of [
            { kind: 'spot', m2 },
            { ...blend, endCm, fadeCm },
          ] as Reach[]) {
            const size = reachM2(reach, tub);
            expect(size).toBeGreaterThanOrEqual(0);
            expect(size).toBeLessThanOrEqual(tub.areaM2);
          }
        },
      ),
    );
    expect([reachM2(ALL, tub), reachM2(NONE, tub)]).toEqual([tub.areaM2, 0]);
    expect(reachFaults(blend, tub)).toEqual([]);
    expect(reachFaults({ ...blend, endCm: 200 }, tub)).toEqual([{ rule: 'beyond', limit: tub.lengthCm }]);
    expect(reachFaults({ ...blend, fadeCm: 70 }, tub)).toEqual([{ rule: 'longFade', limit: 60 }]);
    expect(reachFaults({ kind: 'spot', m2: 9 }, tub)).toEqual([{ rule: 'wholeArea', limit: tub.areaM2 }]);
  });
});

describe('the wait between two coats', () => {
  it('under two-pack clear is long enough for the solvent below to leave, unless it was typed', () => {
    const plan = plainPlan();
    const at = plan.cells.findIndex((c, i) => c.coat.kind === 'effect' && plan.cells[i + 1]?.coat.kind === 'clear');
    const [below, clear] = [plan.cells[at]!, plan.cells[at + 1]!];
    expect(waitBetween(plan, { ...below, flashMinutes: 5, typed: false }, clear)).toBe(BEFORE_CLEAR);
    expect(waitBetween(plan, { ...below, flashMinutes: 45, typed: false }, clear)).toBe(45);
    expect(waitBetween(plan, { ...below, flashMinutes: 5, typed: true }, clear)).toBe(5);
    expect(waitBetween(plan, { ...below, flashMinutes: 5, typed: false }, below)).toBe(5);
  });
});

describe('areas and objects', () => {
  const row = (id: string, more: object = {}) => ({
    ...{ id, name: id, shape: 'panel' as const, measures: { width: 2, height: 1 }, count: 1, x: null, y: null },
    ...{ mounting: 'object' as const, first: false, objectId: 'it', finishId: null, on: null },
    ...more,
  });

  it('have their size from their shape, a place of their own, and the first finish where none is named', () => {
    const areas = sprayAreas(
      [row('a'), row('b', { finishId: 'gone' }), row('c', { mounting: 'stand', count: 3 })],
      [candy],
    );
    expect(areas.map((a) => a.areaM2)).toEqual([2, 2, 6]);
    expect(areas.every((a) => a.finishId === 'main' && a.lengthCm === 200)).toBe(true);
    expect(new Set(areas.map((a) => `${a.x} ${a.y}`)).size).toBe(3);
    expect(areas.map((a) => a.loose)).toEqual([false, false, true]);
  });

  it('lie on another that is there and lies on none itself', () => {
    const areas = sprayAreas(
      [row('a'), row('b', { on: 'a' }), row('c', { on: 'b' }), row('d', { on: 'gone' }), row('e', { on: 'e' })],
      [candy],
    );
    expect(areas.map((a) => a.on)).toEqual([null, 'a', null, null, null]);
  });

  it('while none were entered the piece itself is the one object', () => {
    expect(objectsOf({ objects: null, piece: 'Tub 9' })).toEqual([
      { id: expect.any(String), name: 'Tub 9', counts: [] },
    ]);
    const own = [object('lid')];
    expect(objectsOf({ objects: own, piece: 'Tub 9' })).toBe(own);
  });
});

describe('stacks a film section shows', () => {
  it('are those of the pick while nothing is on, then what is laid, tone by tone', () => {
    const pick = { groundId: 'white', coats: 2, strength: 1, style: 'wet' as const, controlCoats: 0 };
    const planned = stacksOfPick('lagoon-pearl', pick, REFERENCE_LIBRARY);
    expect(shownStacks(null, planned)).toBe(planned);
    const [base, tone] = [planned[0]!.layers[0]!, planned[0]!.layers[1]!];
    const film = [
      { finishId: 'main', layer: base, onUm: 25, plannedUm: 25 },
      { finishId: 'stripe', layer: tone, onUm: 0, plannedUm: 12 },
      { finishId: 'main', layer: tone, onUm: 12, plannedUm: 24 },
    ];
    expect(shownStacks(film, planned)).toEqual([
      { id: 'main', layers: [base, tone] },
      { id: 'stripe', layers: [tone] },
    ]);
    expect(() => stacksOfPick('gone', pick, REFERENCE_LIBRARY)).toThrow(/called gone/);
  });
});
