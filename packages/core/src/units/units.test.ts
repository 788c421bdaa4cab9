import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  fromShown,
  G_PER_OZ,
  M2_PER_FT2,
  ML_PER_FL_OZ,
  PSI_PER_BAR,
  sayMeasure,
  sayRange,
  sayWithin,
  toShown,
  UM_PER_MIL,
  unitDigits,
  unitName,
  type Measure,
} from '.';

const MEASURES: readonly Measure[] = [
  ...(['volume', 'mass', 'area', 'length', 'distance', 'film', 'pressure', 'temperature', 'perArea'] as const),
  ...(['density', 'voc', 'speed', 'dose', 'priceByVolume', 'priceByArea'] as const),
];

describe('units at the edge', () => {
  // NIST Handbook 44, appendix C, and NIST SP 811, appendix B.
  it('are those of the tables', () => {
    expect(ML_PER_FL_OZ).toBeCloseTo(29.5735295625, 9);
    expect(G_PER_OZ).toBeCloseTo(28.349523125, 9);
    expect(M2_PER_FT2).toBeCloseTo(0.09290304, 10);
    expect(UM_PER_MIL).toBe(25.4);
    expect(PSI_PER_BAR).toBeCloseTo(14.50377, 5);
  });

  it.each([
    ['volume', 946.352946, 'us', 32],
    ['temperature', 20, 'us', 68],
    ['temperature', -40, 'us', -40],
    ['film', 25.4, 'us', 1],
    ['area', 1, 'us', 10.7639104],
    ['density', 1, 'us', 8.345404],
    ['voc', 420, 'us', 3.50507],
    ['speed', 25.4, 'us', 10],
    ['pressure', 2, 'us', 29.00755],
    ['priceByVolume', 100, 'us', 94.6352946],
    ['priceByArea', 10.7639104, 'us', 1],
    ['dose', 1, 'us', 0.0333816],
    ['perArea', 1, 'us', 3.141431],
  ] as const)('%s of %s is in %s %s', (measure, metric, system, shown) => {
    expect(toShown(measure, metric, system)).toBeCloseTo(shown, 4);
  });

  it('what is shown comes back as it was, in either system', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...MEASURES),
        fc.constantFrom('metric' as const, 'us' as const),
        fc.double({ min: -500, max: 5000, noNaN: true }),
        (measure, system, v) => {
          expect(fromShown(measure, toShown(measure, v, system), system)).toBeCloseTo(v, 7);
          expect(toShown(measure, v, 'metric')).toBe(v);
        },
      ),
    );
  });

  it('every figure has a unit and decimals worth showing', () => {
    for (const measure of MEASURES)
      for (const system of ['metric', 'us'] as const) {
        expect(unitName(measure, system)).not.toBe('');
        expect([0, 1, 2]).toContain(unitDigits(measure, system));
        expect(sayMeasure(measure, 12.345, system)).toContain(
          measure === 'volume' && system === 'us' ? 'fl oz' : unitName(measure, system),
        );
      }
  });

  it('a large US volume is told in quarts, with what it is compared to in the same unit', () => {
    expect(sayMeasure('volume', 1000, 'us')).toBe('33.8 fl oz');
    expect(sayMeasure('volume', 100, 'us')).toBe('3.38 fl oz');
    expect(sayMeasure('volume', 1900, 'us')).toBe('2.01 qt');
    expect(sayMeasure('volume', 1900, 'us', 0)).toBe('64 fl oz');
    expect(sayRange('volume', 900, 1900, 'us')).toBe('0.95 to 2.01 qt');
    expect(sayWithin('volume', 1038, 898, 2200, 'us')).toBe('1.10 qt, 0.95 to 2.32');
    expect(sayRange('volume', 898, 1200, 'metric')).toBe('898 to 1200 ml');
    expect(sayWithin('film', 9, 8.6, 9.4, 'metric')).toBe('9 µm, 9 to 9');
  });
});
