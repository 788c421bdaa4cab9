import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FAMILIES, FAMILY_IDS } from '../finishes/families';
import type { StackLayer } from '../finishes/layers';
import { REFERENCE_LIBRARY } from '../materials';
import {
  additiveSuits,
  adviseAdditive,
  canWait,
  cupOf,
  LARGE_JOB_M2,
  PRODUCT_KINDS,
  productFor,
  productKindOf,
  reducerFor,
  reducerPace,
  STARTING_GUNS,
  STARTING_PRODUCTS,
  wayOf,
  wayTells,
  type Additive,
} from '.';

const clear = STARTING_PRODUCTS.find((p) => p.kind === 'clear')!;
const ground = STARTING_PRODUCTS.find((p) => p.kind === 'ground')!;
const temperature = fc.double({ min: -5, max: 45, noNaN: true });
const area = fc.double({ min: 0.1, max: 20, noNaN: true });
const additives: fc.Arbitrary<Additive[]> = fc.array(
  fc
    .record({ fromC: fc.integer({ min: 0, max: 30 }), span: fc.integer({ min: 3, max: 15 }), nth: fc.nat() })
    .map(({ fromC, span, nth }) => ({
      ...{ role: 'reducer' as const, name: `reducer ${nth}`, fromC, toC: fromC + span },
      ...{ densityGPerMl: 0.87, vocGPerL: 870, pricePerLitre: 14 },
    })),
  { minLength: 1, maxLength: 5 },
);

describe('a reducer or hardener for the booth', () => {
  it('is one of the shop’s that suits, with no warning; where none suits, the nearest with one', () => {
    fc.assert(
      fc.property(additives, temperature, area, (own, t, m2) => {
        const found = adviseAdditive(own, 'reducer', t, m2)!;
        expect(own).toContain(found.additive);
        const suits = own.filter((a) => additiveSuits(a, t, m2));
        expect(found.warning === null).toBe(suits.length > 0);
        if (suits.length) expect(suits).toContain(found.additive);
        else {
          const off = (a: Additive) => Math.max(a.fromC - t, t - a.toC);
          expect(off(found.additive)).toBe(Math.min(...own.map(off)));
        }
      }),
    );
  });

  it('is never a faster one for a large job than for a small one, nor in a warmer booth', () => {
    const middle = (a: Additive) => (a.fromC + a.toC) / 2;
    fc.assert(
      fc.property(additives, temperature, (own, t) => {
        const small = adviseAdditive(own, 'reducer', t, 1)!;
        const large = adviseAdditive(own, 'reducer', t, LARGE_JOB_M2)!;
        if (small.warning === null) expect(middle(large.additive)).toBeGreaterThanOrEqual(middle(small.additive));
      }),
    );
    const kept = clear.additives;
    let last = -Infinity;
    for (let t = 8; t <= 36; t++) {
      const at = middle(adviseAdditive(kept, 'hardener', t, 1)!.additive);
      expect(at).toBeGreaterThanOrEqual(last);
      last = at;
    }
  });

  it('is none where the shop has none of that role', () => {
    expect(adviseAdditive([], 'reducer', 20, 1)).toBeNull();
    expect(adviseAdditive(ground.additives, 'hardener', 20, 1)).toBeNull();
    expect(reducerFor({ ...ground, pours: [] }, 20, 1, undefined)).toBeNull();
  });

  it('is the one chosen by name, where the product has it', () => {
    const slow = ground.additives.find((a) => a.name.includes('slow'))!;
    expect(reducerFor(ground, 10, 1, slow.name)).toBe(slow);
    expect(reducerFor(ground, 10, 1, 'of another shop')).toBe(
      adviseAdditive(ground.additives, 'reducer', 10, 1)!.additive,
    );
  });

  it('makes the flash as long as its band is warmer: twice for ten degrees', () => {
    const [fast, medium, slow] = ground.additives as [Additive, Additive, Additive];
    expect(reducerPace(ground, null)).toBe(1);
    expect(reducerPace(ground, medium)).toBe(1);
    expect(reducerPace(ground, fast)).toBeLessThan(1);
    expect(reducerPace(ground, slow)).toBeGreaterThan(1);
    const warmer = { ...medium, fromC: medium.fromC + 10, toC: medium.toC + 10 };
    expect(reducerPace(ground, warmer)).toBeCloseTo(2, 12);
    expect(reducerPace({ additives: [] }, slow)).toBe(1);
  });
});

describe('what a layer is sprayed with', () => {
  const layer = (kind: StackLayer['kind'], id = 'l', materialId: string | null = null): StackLayer => ({
    ...{ id, kind, materialId, strength: 1, coats: 2, style: 'wet', filmUm: 10 },
  });

  it('follows from the layer, an effect’s from its mix', () => {
    expect(productKindOf(layer('ground'), REFERENCE_LIBRARY)).toBe('ground');
    expect(productKindOf(layer('lock'), REFERENCE_LIBRARY)).toBe('intercoat');
    for (const mix of REFERENCE_LIBRARY.systems) {
      const kind = productKindOf(layer('effect', 'l', mix.id), REFERENCE_LIBRARY);
      expect(PRODUCT_KINDS).toContain(kind);
      if (kind !== 'flake carrier') expect(kind).toBe(FAMILIES[mix.family].productKind);
    }
    expect(productKindOf(layer('effect', 'l', 'gone'), REFERENCE_LIBRARY)).toBe('mid coat');
  });

  it('is the product the job names, else the shop’s first of that kind, else none', () => {
    const named = { l: clear.id };
    expect(productFor(layer('ground'), REFERENCE_LIBRARY, STARTING_PRODUCTS, named)).toBe(clear);
    expect(productFor(layer('ground'), REFERENCE_LIBRARY, STARTING_PRODUCTS, { l: 'gone' })).toBe(ground);
    expect(productFor(layer('ground'), REFERENCE_LIBRARY, [clear], {})).toBeNull();
  });

  it('a shop begins with a product for every layer of every family', () => {
    const kinds = STARTING_PRODUCTS.map((p) => p.kind);
    for (const f of FAMILY_IDS) expect(kinds).toContain(FAMILIES[f].productKind);
    expect(new Set(STARTING_PRODUCTS.map((p) => p.id)).size).toBe(STARTING_PRODUCTS.length);
    // Every further number of a ratio is something, and the product has something to pour for it.
    for (const p of STARTING_PRODUCTS)
      for (const role of p.pours) expect(p.additives.some((a) => a.role === role)).toBe(true);
  });

  it('comes out of one cup with what is the same stuff at the same strength', () => {
    const layers = [
      { ...layer('ground', 'a', 'white') },
      { ...layer('effect', 'b', 'lagoon-pearl') },
      { ...layer('effect', 'c', 'lagoon-pearl'), strength: 0.5 },
      { ...layer('effect', 'd', 'lagoon-pearl') },
      { ...layer('ground', 'e', 'white'), strength: 0.5 },
    ];
    expect(layers.map((l) => cupOf(l, layers))).toEqual(['a', 'b', 'c', 'b', 'a']);
    expect(cupOf(layer('clear', 'z'), layers)).toBe('z');
  });
});

describe('a can instead of a gun', () => {
  it('has a way of its own; guns have none', () => {
    for (const gun of STARTING_GUNS) expect(wayOf(gun) !== null).toBe(gun.kind === 'aerosol');
    const way = wayOf({ kind: 'aerosol' })!;
    expect(way.caution).toMatch(/isocyanates/);
    expect(way.caution).toMatch(/sheet and local rules/);
  });

  // Common practice (no source).
  it('waits least between light coats of a layer and longest before the mid coat', () => {
    expect(canWait('ground', false, 'ground')).toBe(10);
    expect(canWait('ground', true, 'effect')).toBe(30);
    expect(canWait('effect', true, 'clear')).toBe(15);
    expect(canWait('clear', false, 'clear')).toBe(20);
  });

  it('speaks against a third clear and tells of two-pack cans, and else says nothing', () => {
    const way = wayOf({ kind: 'aerosol' })!;
    expect(wayTells(way, way.mostClears, [ground])).toEqual([]);
    expect(wayTells(way, 3, [ground])).toEqual([expect.stringContaining('at most 2 clears')]);
    expect(wayTells(way, 2, [clear])).toEqual([expect.stringContaining('same day')]);
  });
});
