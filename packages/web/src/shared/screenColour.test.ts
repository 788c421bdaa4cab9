import { describe, expect, it } from '@jest/globals';
import type { Lab } from '@steady-gleam/core/colour';
import fc from 'fast-check';
import { cssOf, dimmedNote, exposuresByAngle, fitsScreen, inkOn } from './screenColour';

/** Relative luminance of a colour as CSS writes it: WCAG 2.2, from memory. */
function luminance(css: string): number {
  const hex = /^#(..)(..)(..)$/.exec(css);
  const bytes = hex ? hex.slice(1).map((h) => parseInt(h, 16)) : css.match(/\d+/g)!.map(Number);
  const [r, g, b] = bytes.map((v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

const contrast = (a: string, b: string): number => {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light! + 0.05) / (dark! + 0.05);
};
const lab = fc.tuple(
  fc.double({ min: 0, max: 100, noNaN: true }),
  fc.double({ min: -90, max: 90, noNaN: true }),
  fc.double({ min: -90, max: 90, noNaN: true }),
) as fc.Arbitrary<Lab>;

describe('colours on a screen', () => {
  it('are written with an ink that can be read, on every colour there is (WCAG 2.2 AA, small text)', () => {
    fc.assert(
      fc.property(lab, fc.double({ min: 0.3, max: 1, noNaN: true }), (colour, exposure) => {
        // Of black and white one always has 4.58; rounding to whole steps of a byte takes a little of it.
        expect(contrast(inkOn(colour, exposure), cssOf(colour, exposure))).toBeGreaterThanOrEqual(4.49);
      }),
      { numRuns: 2000 },
    );
  });

  it('take the softer ink where it serves', () => {
    expect(inkOn([95, 0, 0])).toBe('#101010');
    expect(inkOn([5, 0, 0])).toBe('#f4f4f4');
  });

  it('of one angle are dimmed together, just so far that none is cut off', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(lab, lab), { minLength: 1, maxLength: 4 }), (pairs) => {
        const exposures = exposuresByAngle(pairs);
        expect(exposures).toHaveLength(2);
        exposures.forEach((e) => {
          expect(e).toBeGreaterThan(0);
          expect(e).toBeLessThanOrEqual(1);
        });
        // Alone or among others: what is compared never gets lighter by company.
        const [alone] = exposuresByAngle([pairs[0]!]);
        expect(exposures[0]!).toBeLessThanOrEqual(alone! + 1e-12);
      }),
    );
    expect(exposuresByAngle([[[50, 0, 0]]])).toEqual([1]);
    expect(fitsScreen([50, 0, 0])).toBe(true);
  });

  it('that were dimmed are said, by their angles', () => {
    const angles = [15, 25, 45].map((aspecular) => ({ incidence: 45, aspecular }));
    expect(dimmedNote(angles, [1, 1, 1])).toBeNull();
    expect(dimmedNote(angles, [0.8, 1, 1])).toBe('15° is dimmed to fit the screen.');
    expect(dimmedNote(angles, [0.8, 0.9, 1])).toBe('15° and 25° are dimmed to fit the screen.');
  });
});
