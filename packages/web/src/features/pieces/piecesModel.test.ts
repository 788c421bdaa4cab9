import { describe, expect, it } from '@jest/globals';
import { areasSchema } from '@steady-gleam/contracts';
import { START_AREAS } from '@steady-gleam/core/jobs';
import fc from 'fast-check';
import { areaTyped, blankArea, checkedPieces, SHAPES, typedOf, withLikeObject, type TypedPieces } from './piecesModel';

const coach = { id: 'coach', name: 'Coach 1', counts: [] };
const start: TypedPieces = {
  objects: [coach],
  areas: [
    typedOf({ ...blankArea('side', coach.id).area, name: 'Side 1', measures: { width: 2, height: 1.2 }, x: 1, y: 2 }),
    typedOf({
      ...blankArea('stripe', coach.id, { shape: 'area', on: 'side' }).area,
      name: 'Stripe',
      measures: { area: 0.3 },
    }),
  ],
};
const ids = () => {
  let n = 0;
  return () => `new-${++n}`;
};
const faultsOf = (pieces: TypedPieces) => {
  const found = checkedPieces(pieces);
  return found.ok ? {} : found.faults;
};

describe('pieces as they are typed', () => {
  it('come out as they went in', () => {
    for (const area of START_AREAS) {
      const { measures, ...rest } = areaTyped(typedOf(area));
      expect(rest).toEqual({ ...area, measures: undefined });
      for (const [name] of SHAPES[area.shape].asks) expect(measures[name]).toBe(area.measures[name]);
    }
    expect(checkedPieces(start)).toMatchObject({ ok: true, value: { objects: [coach] } });
  });

  it('ask of each shape just what it is made of, and forget what another shape had', () => {
    const shapes = Object.keys(SHAPES) as (keyof typeof SHAPES)[];
    fc.assert(
      fc.property(fc.constantFrom(...shapes), fc.constantFrom(...shapes), (was, is) => {
        const asked = SHAPES[was].asks.map(([name]) => [name, 1.5] as const);
        const typed = typedOf({ ...blankArea('a', 'o', { shape: was }).area, measures: Object.fromEntries(asked) });
        const turned = areaTyped({ ...typed, area: { ...typed.area, shape: is } });
        expect(Object.keys(turned.measures).sort()).toEqual(SHAPES[is].asks.map(([name]) => name).sort());
      }),
    );
  });

  it('name what is wrong at its field', () => {
    expect(faultsOf({ objects: [{ ...coach, name: '' }], areas: start.areas })['objects.0.name']).toMatch(/Name/);
    const broken = start.areas.map((t, i) => (i ? t : { ...t, count: 'two', measures: { ...t.measures, width: '' } }));
    const faults = faultsOf({ ...start, areas: broken });
    expect(faults['areas.0.count']).toBe('A whole number.');
    expect(faults['areas.0.measures.width']).toBe('A number.');
    expect(faultsOf({ objects: [coach, { ...coach, id: 'b', name: 'Door' }], areas: start.areas })).toEqual({
      'objects.1.name': 'Nothing is sprayed on Door: give it an area, or take it out.',
    });
  });

  it('never fall over; what is taken holds to what the server takes', () => {
    const text = fc.oneof(fc.string(), fc.constantFrom('', '0', '-3', '1,5', '2.5', '1e9', 'NaN'));
    let taken = 0;
    fc.assert(
      fc.property(text, text, text, (count, width, height) => {
        const [side, stripe] = start.areas as [(typeof start.areas)[0], (typeof start.areas)[0]];
        const found = checkedPieces({ ...start, areas: [{ ...side, count, measures: { width, height } }, stripe] });
        if (!found.ok) return Object.values(found.faults).forEach((said) => expect(said).toMatch(/\.$/));
        taken++;
        expect(areasSchema.isValidSync(found.value.areas)).toBe(true);
      }),
      { numRuns: 500, examples: [['2', '1,5', '2.5']] },
    );
    expect(taken).toBeGreaterThan(0);
  });

  it('get an object more like another: its areas under ids of their own, none placed, a stripe on its own side', () => {
    const more = withLikeObject(start, 'coach', ids());
    expect(more.objects.map((o) => o.name)).toEqual(['Coach 1', 'Coach 2']);
    const own = more.areas.slice(2).map((t) => t.area);
    expect(own.map((a) => [a.name, a.x, a.y])).toEqual([
      ['Side 2', null, null],
      ['Stripe 2', null, null],
    ]);
    expect(own[1]!.on).toBe(own[0]!.id);
    expect(new Set(more.areas.map((t) => t.area.id)).size).toBe(4);
    expect(own.every((a) => a.objectId === more.objects[1]!.id)).toBe(true);
    // What was there stays as it was.
    expect(more.areas.slice(0, 2)).toEqual(start.areas);
    expect(checkedPieces(more).ok).toBe(true);
    const third = withLikeObject(more, more.objects[1]!.id, () => crypto.randomUUID());
    expect(third.objects[2]!.name).toBe('Coach 3');
    expect(third.areas).toHaveLength(6);
  });
});
