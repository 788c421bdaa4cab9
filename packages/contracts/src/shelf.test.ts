import { describe, expect, it } from '@jest/globals';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { gunSchema } from './guns';
import { productSchema, sheetPath } from './products';
import { said } from './testdata/said';

const product = STARTING_PRODUCTS.find((p) => p.additives.length > 1 && p.pours.length === 2)!;
const gun = STARTING_GUNS[0]!;
const of = (more: object) => said(productSchema, { ...product, ...more });

describe('a product by its sheet', () => {
  it('is taken as every shop begins with it', () => {
    for (const p of STARTING_PRODUCTS) expect(productSchema.validateSync(p)).toEqual(p);
    for (const g of STARTING_GUNS) expect(gunSchema.validateSync(g)).toEqual(g);
  });

  it('has to say what each further number of its ratio is', () => {
    expect(of({ ratio: '4:1:1' })).toEqual({});
    expect(of({ ratio: '4:1' })).toEqual({
      ratio: 'Say for every further number of the ratio whether it is hardener or reducer.',
    });
    expect(of({ ratio: '1', pours: [] })).toEqual({});
    expect(of({ ratio: '4:x' })['ratio']).toMatch(/\.$/);
    expect(of({ ratio: '' })['ratio']).toContain('1 for a product that is poured as it is');
    expect(of({ ratio: '1:'.repeat(30) + '1' })['ratio']).toContain('40 letters');
  });

  it('has additives whose bands are bands', () => {
    const [first, ...others] = product.additives;
    const banded = (fromC: number, toC: number) => of({ additives: [{ ...first!, fromC, toC }, ...others] });
    expect(banded(10, 20)).toEqual({});
    expect(banded(20, 10)).toEqual({ 'additives[0].toC': 'The highest temperature lies above the lowest.' });
    expect(banded(20, 20)).toEqual({ 'additives[0].toC': 'The highest temperature lies above the lowest.' });
    expect(of({ additives: Array.from({ length: 21 }, () => first) })).toEqual({
      additives: 'Twenty additives at most.',
    });
    expect(of({ additives: [{ ...first!, role: 'glue' }] })['additives[0].role']).toBe(
      'An additive is a hardener or a reducer.',
    );
  });

  it('is not more water and exempt solvent than there is room for', () => {
    expect(of({ waterShare: 0.6, exemptShare: 0.3 })).toEqual({});
    expect(of({ waterShare: 0.6, exemptShare: 0.5 })).toEqual({
      exemptShare: 'Water and exempt solvent together stay under 0.98.',
    });
  });

  it('may have no recoat window, pot life or density, and no field nobody knows', () => {
    expect(of({ recoatMinutes: null, potLifeMinutes: null, densityGPerMl: null })).toEqual({});
    expect(of({ colour: 'red' })).not.toEqual({});
    expect(of({ volumeSolids: 'half' })).toEqual({ volumeSolids: 'The volume solids must be a fraction, 0.01 to 1.' });
  });

  it('has its sheet at an address of its own, under the file’s name', () => {
    expect(sheetPath('a b')).toBe('/api/products/a%20b/sheet');
    expect(sheetPath('7', 'Groyne & co.pdf')).toBe('/api/products/7/sheet?name=Groyne+%26+co.pdf');
  });
});

describe('a gun', () => {
  it.each([
    ['tipMm', 0],
    ['pressureBar', 12],
    ['fanCm', 0],
    ['distanceCm', 100],
    ['speedCmS', 1],
    ['flowMlMin', 0],
    ['transfer', 1.2],
    ['lossMl', -1],
    ['turns', 0],
  ] as const)('with a %s of %s is refused there', (field, v) => {
    expect(Object.keys(said(gunSchema, { ...gun, [field]: v }))).toEqual([field]);
  });

  it('is of a kind there is', () => {
    expect(said(gunSchema, { ...gun, kind: 'roller' })).toEqual({ kind: 'Choose the kind of gun.' });
  });
});
