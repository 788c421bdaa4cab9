import { describe, expect, it } from '@jest/globals';
import type { StackLayer } from '../finishes/layers';
import { REFERENCE_LIBRARY } from '../materials/shop';
import { cellMl, cupsOf, groupsOf, LEFT_IN_GUN_ML, letDownMl } from './amounts';
import { eventOf } from './events';
import type { Cell, JobLayer } from './job';
import { ALL } from './reach';
import type { PlannedCoat } from '../spraying/coatPlan';
import { namesOf, nextCoatTold, enoughTold, extraTold } from './tell';

const layer = (id: string, kind: StackLayer['kind'], materialId: string, strength = 1): JobLayer => ({
  ...{ id, kind, materialId, coats: 2, style: 'wet', strength, filmUm: 10, finishId: 'main' },
  counted: kind === 'effect',
});
const coatOf = (layerId: string, n: number, about: { um?: number; cup?: string }): PlannedCoat => ({
  ...{ id: `${layerId}-${n}`, layerId, cupId: about.cup ?? layerId, kind: 'effect', name: layerId },
  ...{ number: n, of: 2, style: 'wet', film: 1, filmUm: about.um ?? 10, counted: true, walk: false },
  ...{ chemistry: 'solvent', flashMinutes: 10, flashAsIs: false, led: null, typedFlash: null, volumeSolids: 0.25 },
  ...{ recoatMinutes: null, potLifeMinutes: null, caution: '' },
  ...{ overlap: 0.66, distanceCm: 18, pressureBar: 2, turns: 2, tipMm: 1.3, speedCmS: 40 },
});
const cell = (
  layerId: string,
  areaId: string,
  n: number,
  about: { um?: number; m2?: number; coats?: number; cup?: string } = {},
): Cell => ({
  ...{ layerId, areaId, coatId: `${layerId}-${n}`, areaM2: about.m2 ?? 2, coats: about.coats ?? 1 },
  ...{ objectId: 'it', finishId: 'main', reach: ALL, round: `${layerId}-${n}`, under: [], checks: [] },
  ...{ flashMinutes: 10, typed: false, recoatMinutes: null },
  coat: coatOf(layerId, n, about),
});

describe('what comes out of a cup', () => {
  const layers = [
    layer('ground', 'ground', 'aqua-pastel'),
    layer('one', 'effect', 'lagoon-pearl'),
    layer('two', 'effect', 'lagoon-pearl'),
  ];
  const cells = [
    cell('one', 'lid', 1),
    cell('one', 'lid', 2),
    cell('two', 'lid', 3, { cup: 'one', um: 5, coats: 0.5 }),
    cell('one', 'rail', 1, { m2: 1 }),
  ];

  it('layers of the same stuff share one; coats are of the area that gets most, m2 count each area once', () => {
    const [cup, ...others] = cupsOf({ layers, cells });
    expect(others).toEqual([]);
    expect(cup).toMatchObject({ id: 'one', coats: 2.5, areaM2: 3, kind: 'effect' });
    expect(cup!.layers.map((l) => l.id)).toEqual(['one', 'two']);
    // um x m2 is ml of solids.
    expect(cup!.solidMl).toBeCloseTo(10 * 2 + 10 * 2 + 5 * 2 + 10 * 1, 12);
  });

  it('a hand that lays more takes more of that mix, and of no other', () => {
    const of = (hand: Parameters<typeof groupsOf>[2]) =>
      groupsOf({ layers, cells }, REFERENCE_LIBRARY, hand)[0]!.solidMl;
    expect(of({ mixId: 'lagoon-pearl', film: 1.2 })).toBeCloseTo(1.2 * 60, 12);
    expect(of({ mixId: 'cinder-candy', film: 1.2 })).toBeCloseTo(60, 12);
    expect(of(null)).toBeCloseTo(60, 12);
  });

  it('a cell takes its film by its solids and by what lands; a coat let down takes half of it and of what stays in the gun, to the next 5', () => {
    expect(cellMl(cells[0]!, 0.5)).toBeCloseTo((2 * 10) / 0.25 / 0.5, 12);
    expect(letDownMl(cells[0]!, 0.5)).toBe(Math.ceil((160 + LEFT_IN_GUN_ML) / 2 / 5) * 5);
    expect(letDownMl(cells[0]!, 0.5)).toBe(90);
  });
});

describe('what the desk tells', () => {
  const state = (cells: readonly Cell[], on: readonly string[] = [], leftOut: readonly string[] = []) => ({
    cells: cells.map((c) => ({
      ...{ cell: c, sprayedAt: on.includes(c.coatId) ? 1 : null, leftOut: leftOut.includes(c.coatId) ? 'no' : null },
    })),
  });
  const cells = [cell('ground', 'lid', 1), cell('one', 'lid', 1), cell('one', 'lid', 2)];
  let ids = 0;
  const newId = () => `new-${++ids}`;
  const coats = (told: ReturnType<typeof nextCoatTold>) => told.flatMap((t) => (t.cells ?? []).map((c) => c.coatId));

  it('the next coat with what must lie under it; once that is on, the coat alone', () => {
    expect(coats(nextCoatTold(state(cells), ['one'], ['lid'], newId))).toEqual(['ground-1', 'one-1']);
    expect(coats(nextCoatTold(state(cells, ['ground-1']), ['one'], ['lid'], newId))).toEqual(['one-1']);
    expect(coats(nextCoatTold(state(cells, ['ground-1', 'one-1']), ['one'], ['lid'], newId))).toEqual(['one-2']);
    expect(coats(nextCoatTold(state(cells, ['ground-1'], ['one-1']), ['one'], ['lid'], newId))).toEqual(['one-2']);
    // The first that is planned is told at once, though nothing lies under it.
    expect(coats(nextCoatTold(state(cells), ['ground'], ['lid'], newId))).toEqual(['ground-1']);
  });

  it('a coat more where none is planned any more: both that it is wanted and that it is on', () => {
    const told = nextCoatTold(state(cells, ['ground-1', 'one-1', 'one-2']), ['one'], ['lid'], newId);
    expect(told.map((t) => t.kind)).toEqual(['extra', 'sprayed']);
    expect(told[1]!.cells).toEqual([expect.objectContaining({ areaId: 'lid', layerId: 'one', coats: 1, filmUm: 10 })]);
    expect(extraTold(state(cells), ['one'], ['lid'], 0.5, false, newId)).toHaveLength(1);
    expect(extraTold(state(cells), ['one'], ['lid'], 0.5, true, newId)[1]!.cells).toEqual([
      expect.objectContaining({ filmUm: 5 }),
    ]);
    expect(extraTold(state(cells), [], ['lid'], 1, true, newId)).toEqual([]);
    expect(extraTold(state(cells), ['one'], ['nowhere'], 1, true, newId)).toEqual([]);
  });

  it('enough: what is left of the layer there is left out, nothing where nothing is left', () => {
    const told = enoughTold(state(cells, ['ground-1', 'one-1']), ['one'], ['lid'], 'enough');
    expect(told).toEqual([{ kind: 'skip', cells: [{ coatId: 'one-2', areaId: 'lid' }], text: 'enough' }]);
    expect(enoughTold(state(cells, ['one-1', 'one-2']), ['one'], ['lid'], 'enough')).toEqual([]);
    expect(enoughTold(state(cells), ['one'], ['rail'], 'enough')).toEqual([]);
    expect(eventOf({ id: 'x', at: 1, ...told[0]! }).kind).toBe('skip');
  });

  it('areas by their names', () => {
    const plan = { areas: [{ id: 'lid', name: 'Lid' }] };
    expect(namesOf(plan, ['lid'])).toEqual(['Lid']);
  });
});
