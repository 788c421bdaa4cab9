import { describe, expect, it } from '@jest/globals';
import { stackFilmUm, STYLES, type StackLayer, type StyleId } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import fc from 'fast-check';
import { unitsOf } from '../units';
import { callLayer, filmFigures, fillOf, isFlaked, sayLayer, sayWholeLayer } from './filmFigures';

const layer = (more: Partial<StackLayer> = {}): StackLayer => ({
  ...{ id: 'effect', kind: 'effect', materialId: 'lagoon-pearl', coats: 3, style: 'wet', strength: 1, filmUm: 9 },
  ...more,
});

const anyLayer = fc.record({
  kind: fc.constantFrom<StackLayer['kind']>('primer', 'sealer', 'ground', 'effect', 'lock', 'clear'),
  coats: fc.integer({ min: 1, max: 12 }).map((n) => n / 2),
  style: fc.constantFrom(...(Object.keys(STYLES) as StyleId[])),
  filmUm: fc.integer({ min: 4, max: 60 }),
});

const stack = fc
  .array(anyLayer, { minLength: 1, maxLength: 6 })
  .map((layers) => layers.map((l, i) => layer({ ...l, id: `l${i}` })));

describe('a film section in figures', () => {
  it('comes to the film of its stack while nothing is on', () => {
    fc.assert(
      fc.property(stack, (layers) => {
        const figures = filmFigures(layers, null);
        expect(figures.totalUm).toBeCloseTo(stackFilmUm(layers), 9);
        expect(figures.onUm).toBe(0);
        expect(layers.map(figures.share)).toEqual(layers.map(() => 0));
      }),
    );
  });

  it('tells what is on by what was laid, never more than a whole layer of its block', () => {
    const laid = fc.integer({ min: 0, max: 8000 }).map((n) => n / 100);
    fc.assert(
      fc.property(stack, fc.array(fc.tuple(laid, laid), { minLength: 6, maxLength: 6 }), (layers, ums) => {
        const film = layers.map((l, i) => ({ finishId: 'main', layer: l, onUm: ums[i]![0], plannedUm: ums[i]![1] }));
        const figures = filmFigures(layers, film);
        expect(figures.onUm).toBeCloseTo(
          film.reduce((sum, f) => sum + f.onUm, 0),
          9,
        );
        layers.forEach((l, i) => {
          const share = figures.share(l);
          expect(share).toBeGreaterThanOrEqual(0);
          expect(share).toBeLessThanOrEqual(1);
          expect(share > 0).toBe(ums[i]![0] > 0);
          expect(figures.planned(l)).toBe(ums[i]![1]);
        });
      }),
    );
  });

  it('is said short over its block, and whole by the word that stands there', () => {
    const units = unitsOf('metric');
    expect(sayLayer(layer(), units)).toBe('effect 3×9');
    expect(sayLayer(layer({ kind: 'clear', materialId: null, coats: 1, filmUm: 28 }), units)).toBe('clear 28');
    expect(sayWholeLayer(layer(), REFERENCE_LIBRARY, units)).toBe('Lagoon pearl, 3 × 9 µm');
    expect(callLayer(layer(), REFERENCE_LIBRARY, units)).toBe('effect Lagoon pearl, 3 × 9 µm');
    const sealer = layer({ kind: 'sealer', materialId: 'aqua-pastel', coats: 1, filmUm: 25 });
    expect(callLayer(sealer, REFERENCE_LIBRARY, units)).toBe('sealer, shade of aqua pastel, 1 × 25 µm');
    expect(sayWholeLayer(layer({ materialId: 'gone' }), REFERENCE_LIBRARY, units)).toBe('effect, 3 × 9 µm');
  });

  it('shows flakes where there are some, and a colour only where one is known', () => {
    expect(isFlaked(layer(), REFERENCE_LIBRARY)).toBe(true);
    expect(isFlaked(layer({ materialId: 'cinder-candy' }), REFERENCE_LIBRARY)).toBe(false);
    expect(isFlaked(layer({ kind: 'clear', materialId: null }), REFERENCE_LIBRARY)).toBe(false);
    expect(fillOf(layer(), [50, 0, 0])).toMatch(/^rgb\(/);
    expect(fillOf(layer(), undefined)).toBe(fillOf(layer({ kind: 'ground' }), undefined));
    expect(fillOf(layer({ kind: 'clear', materialId: null }), [50, 0, 0])).toBe('#d9d9d9');
  });
});
