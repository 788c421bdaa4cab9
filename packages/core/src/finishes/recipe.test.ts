import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FAMILIES, FAMILY_IDS } from './families';
import { countOf, countsControl, startRecipe, thenLaid, withCount } from './recipe';
import { layerFilmUm, LAYER_FILM_UM, laidFilmsUm, laidFilmUm, type StackLayer } from './layers';
import { andControl, STYLES } from './styles';
import { TEXTURES } from './texture';
import { BLEND_WIDER, DEFAULT_TOLERANCES, defaultTolerance, familyTable, limitAt } from './tolerances';

const family = fc.constantFrom(...FAMILY_IDS);
const count = fc.double({ min: 0, max: 12, noNaN: true });

describe('counts of a recipe', () => {
  it('are what the recipe was made with, in every family', () => {
    fc.assert(
      fc.property(family, count, (f, n) => {
        const recipe = withCount(f, startRecipe(f), n);
        expect(countOf(f, recipe)).toBeCloseTo(n, 9);
        expect(recipe.coats).toBeGreaterThanOrEqual(0);
        expect(recipe.controlCoats).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  it('go on as control coats where the family counts them, and only there', () => {
    for (const f of FAMILY_IDS) {
      const after = FAMILIES[f].controlAfter;
      expect(countsControl(f)).toBe(after !== null);
      expect(thenLaid(f)).toEqual(after === null ? null : { after, style: STYLES.control });
      if (after !== null)
        expect(withCount(f, startRecipe(f), after + 2)).toMatchObject({ coats: after, controlCoats: 2 });
    }
  });

  it('control coats are said after the coats', () => {
    expect([0, -1, 0.5, 1, 2, 2.55].map(andControl)).toEqual([
      '',
      '',
      ' and a control coat',
      ' and a control coat',
      ' and 2 control coats',
      ' and 2.5 control coats',
    ]);
  });
});

describe('film of layers', () => {
  const layer = (kind: StackLayer['kind'], more: Partial<StackLayer> = {}): StackLayer => ({
    ...{ id: kind, kind, materialId: null, coats: 2, style: 'wet', strength: 1, filmUm: LAYER_FILM_UM[kind] },
    ...more,
  });

  it('is coats times a full coat’s, less where they are laid lighter', () => {
    expect(layerFilmUm(layer('clear'))).toBe(56);
    expect(layerFilmUm(layer('effect', { style: 'medium' }))).toBeCloseTo(13.5, 12);
    for (const style of Object.values(STYLES)) expect(style.film).toBeLessThanOrEqual(1);
  });

  it('that is laid and not counted is that of the grip and the tack coat, where there is something to grip', () => {
    const stack = [layer('ground'), layer('effect'), layer('clear')];
    const counted = stack.map(layerFilmUm);
    expect(laidFilmsUm(stack, { grip: false, tack: false })).toEqual(counted);
    const more = [0, STYLES.grip.film * LAYER_FILM_UM.effect, STYLES.tack.film * LAYER_FILM_UM.clear];
    laidFilmsUm(stack, { grip: true, tack: true }).forEach((um, i) =>
      expect(um).toBeCloseTo(counted[i]! + more[i]!, 12),
    );
    // Once each: a second effect grips on the first.
    const twice = [...stack.slice(0, 2), layer('effect'), ...stack.slice(2), layer('clear')];
    expect(laidFilmUm(twice, { grip: true, tack: true })).toBeCloseTo(
      twice.map(layerFilmUm).reduce((a, b) => a + b) + more[1]! + more[2]!,
      9,
    );
    expect(laidFilmUm([layer('ground')], { grip: true, tack: true })).toBe(layerFilmUm(layer('ground')));
  });
});

describe('limits of a match', () => {
  const limits = (more: object = {}) => ({ meeting: 'edge' as const, own: [], source: '', ...more });

  it('are the job’s own, else the family’s with what the shop set, else the usual one', () => {
    const table = familyTable({ 45: 1.2, 15: 1.6 }, [{ aspecular: 45, limit: 0.9 }]);
    expect(table).toEqual({ 45: 0.9, 15: 1.6 });
    expect(limitAt(45, table, null)).toBe(0.9);
    expect(limitAt(45, table, limits({ own: [{ aspecular: 45, limit: 2 }] }))).toBe(2);
    expect(limitAt(62, table, null)).toBe(defaultTolerance(62));
    expect(familyTable({ 45: 1 }, null)).toEqual({ 45: 1 });
  });

  it('are wider where it is blended, all by the same', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(DEFAULT_TOLERANCES).map(Number)), (aspecular) => {
        const edge = limitAt(aspecular, DEFAULT_TOLERANCES, limits());
        expect(edge).toBe(defaultTolerance(aspecular));
        expect(limitAt(aspecular, DEFAULT_TOLERANCES, limits({ meeting: 'blend' }))).toBeCloseTo(
          edge * BLEND_WIDER,
          12,
        );
      }),
    );
  });

  it('every family has some for the angles its instruments read, strictest where the eye is', () => {
    for (const f of FAMILY_IDS) {
      const own = FAMILIES[f].limits;
      for (const angle of [15, 25, 45, 75, 110]) expect(own[angle]).toBeGreaterThan(0);
      expect(own[45]).toBe(Math.min(...[15, 25, 45, 75, 110].map((a) => own[a]!)));
    }
  });
});

describe('peel', () => {
  it('steps from flat to strong, each deeper and told in its own words', () => {
    TEXTURES.slice(1).forEach((t, i) => {
      expect(t.depth).toBeGreaterThan(TEXTURES[i]!.depth);
      expect(t.dimpleMm).toBeGreaterThan(TEXTURES[i]!.dimpleMm);
    });
    expect(new Set(TEXTURES.map((t) => t.told)).size).toBe(TEXTURES.length);
    for (const t of TEXTURES) expect(t.matchedBy).toMatch(/clear/);
  });
});
