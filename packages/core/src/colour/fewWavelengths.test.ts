import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from './difference';
import { ALL_WAVELENGTHS, FEW_WAVELENGTHS, fewWeights } from './fewWavelengths';
import { reflectanceToLab, xyzToLab } from './lab';
import { spectrumFrom } from './spectrum';
import { D65_10, ILLUMINANTS, weightsOf } from './tristimulus';

const seen = (spectrum: Float64Array, at = FEW_WAVELENGTHS) => {
  const w = fewWeights(D65_10, at);
  const sum = (axis: Float64Array) => at.reduce((s, i, c) => s + axis[c]! * spectrum[i]!, 0);
  return xyzToLab([sum(w.x), sum(w.y), sum(w.z)], w.white);
};

describe('a colour of a few wavelengths', () => {
  it('is exact for every straight line over the wavelengths: a natural spline goes through it', () => {
    for (const illuminant of ILLUMINANTS) {
      const viewing = { illuminant, observer: '10' } as const;
      const [all, few] = [weightsOf(viewing), fewWeights(viewing)];
      for (const axis of ['x', 'y', 'z'] as const) {
        const line = (i: number) => 0.2 + 0.02 * i;
        expect(few.at.reduce((s, i, c) => s + few[axis][c]! * line(i), 0)).toBeCloseTo(
          ALL_WAVELENGTHS.reduce((s, i) => s + all[axis][i]! * line(i), 0),
          9,
        );
      }
    }
  });
  it('is that of all 31 where all are taken', () => {
    const [all, few] = [weightsOf(D65_10), fewWeights(D65_10, ALL_WAVELENGTHS)];
    for (const axis of ['x', 'y', 'z'] as const)
      ALL_WAVELENGTHS.forEach((i) => expect(few[axis][i]).toBeCloseTo(all[axis][i]!, 10));
  });
  it('is within 0.6 dE00 for bands as wide as those of paints', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 400, max: 700, noNaN: true }),
        fc.double({ min: 35, max: 120, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 0.9, noNaN: true }),
        (centre, width, depth, level) => {
          const spectrum = spectrumFrom((nm) => level * Math.exp(-depth * Math.exp(-(((nm - centre) / width) ** 2))));
          expect(de2000(reflectanceToLab(spectrum), seen(spectrum))).toBeLessThan(0.6);
        },
      ),
    );
  });
});
