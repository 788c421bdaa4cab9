import { describe, expect, it } from '@jest/globals';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import fc from 'fast-check';
import { set } from 'react-hook-form';
import type { Faults } from '../../shared/checkWith';
import {
  ADDITIVE_FIELDS,
  checkGun,
  checkProduct,
  EMPTY_ADDITIVE,
  GUN_FIELDS,
  gunToTyped,
  PRODUCT_FIELDS,
  productToTyped,
  sayRatio,
} from './shelfForms';

const product = STARTING_PRODUCTS.find((p) => p.additives.length > 1)!;
const gun = STARTING_GUNS[0]!;

/** What is said at each field of a product that is typed so. */
const faultsOf = (more: Readonly<Record<string, string>>): Faults => {
  const typed = structuredClone(productToTyped(product));
  for (const [path, text] of Object.entries(more)) set(typed, path, text);
  const found = checkProduct(product.id, typed);
  return found.ok ? {} : found.faults;
};

describe('a product and a gun as they are typed', () => {
  it('come out as they went in, whatever is open or in percent', () => {
    for (const p of STARTING_PRODUCTS) {
      const found = checkProduct(p.id, productToTyped(p));
      expect(found).toMatchObject({ ok: true, value: p });
    }
    for (const g of STARTING_GUNS) expect(checkGun(g.id, gunToTyped(g))).toMatchObject({ ok: true, value: g });
  });

  it('keep every figure that can be typed', () => {
    const share = fc.integer({ min: 1, max: 10_000 }).map((n) => n / 10_000);
    fc.assert(
      fc.property(
        share,
        share,
        fc.option(fc.integer({ min: 5, max: 3000 }), { nil: null }),
        (solids, water, recoat) => {
          const p = { ...product, volumeSolids: Math.max(0.05, solids), waterShare: water / 2, recoatMinutes: recoat };
          const found = checkProduct(p.id, productToTyped(p));
          if (!found.ok) throw new Error(JSON.stringify(found.faults));
          expect(found.value.volumeSolids).toBeCloseTo(p.volumeSolids, 12);
          expect(found.value.waterShare).toBeCloseTo(p.waterShare, 12);
          expect(found.value.recoatMinutes).toBe(recoat);
        },
      ),
    );
  });

  it('have a field for everything a form can change', () => {
    const own = (item: object, besides: readonly string[]) =>
      Object.keys(item)
        .filter((k) => !besides.includes(k))
        .sort();
    expect(PRODUCT_FIELDS.map((f) => f.name).sort()).toEqual(own(product, ['id', 'additives']));
    expect(GUN_FIELDS.map((f) => f.name).sort()).toEqual(own(gun, ['id']));
    expect(ADDITIVE_FIELDS.map((f) => f.name).sort()).toEqual(own(EMPTY_ADDITIVE, []));
  });

  it('that are wrong are named where they stand, in the unit they are typed in', () => {
    expect(faultsOf({ 'item.name': '  ' })['item.name']).toMatch(/\.$/);
    expect(faultsOf({ 'item.volumeSolids': '140' })['item.volumeSolids']).toContain('100 %');
    expect(faultsOf({ 'item.volumeSolids': 'half' })['item.volumeSolids']).toBe(
      'The volume solids must be in percent, 1 to 100.',
    );
    expect(faultsOf({ 'item.ratio': '4:x' })['item.ratio']).toMatch(/\.$/);
    expect(faultsOf({ 'additives.1.toC': 'warm' })['additives.1.toC']).toMatch(/number/);
    expect(Object.keys(faultsOf({ 'additives.0.name': '' }))).toEqual(['additives.0.name']);
    // Too many of them belong to no single field: it is said of the whole.
    const many = {
      ...productToTyped(product),
      additives: Array.from({ length: 21 }, () => productToTyped(product).additives[0]!),
    };
    expect(checkProduct(product.id, many)).toEqual({ ok: false, faults: { '': 'Twenty additives at most.' } });
    // What may be left empty says nothing.
    expect(faultsOf({ 'item.recoatMinutes': '', 'item.potLifeMinutes': ' ', 'item.densityGPerMl': '' })).toEqual({});
  });

  it('never fall over, whatever is typed', () => {
    const typed = productToTyped(product);
    const names = [
      ...Object.keys(typed.item).map((k) => `item.${k}`),
      ...typed.additives.flatMap((a, i) => Object.keys(a).map((k) => `additives.${i}.${k}`)),
    ];
    const text = fc.oneof(fc.string(), fc.double().map(String), fc.constantFrom('', '-1', '1e9', '½', '4:2:1', '1,5'));
    fc.assert(
      fc.property(fc.constantFrom(...names), text, (name, written) => {
        for (const said of Object.values(faultsOf({ [name]: written }))) expect(said).toMatch(/[.?]$/);
      }),
      { numRuns: 400 },
    );
  });

  it('say a ratio in one line', () => {
    expect(sayRatio({ ...product, ratio: '1' })).toBe('as it is');
    expect(sayRatio({ ...product, ratio: '4:2:1' })).toBe('4:2:1');
  });
});
