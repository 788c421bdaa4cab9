import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from './difference';
import { labToXyz, type Lab } from './lab';
import { differenceWeights, readingWeights, residuals, scatterShape } from './residuals';
import { exposureFor, labToScreen, linearOfByte, photoLab, xyzToLinearSrgb } from './screen';
import { interpolateTable, shiftSpectrum, spectrumFrom, WAVELENGTHS_NM } from './spectrum';
import { D65_10, whitePoint } from './tristimulus';

const lab: fc.Arbitrary<Lab> = fc.tuple(
  fc.double({ min: 5, max: 95, noNaN: true }),
  fc.double({ min: -40, max: 40, noNaN: true }),
  fc.double({ min: -40, max: 40, noNaN: true }),
);

describe('colours on a screen', () => {
  // IEC 61966-2-1: L* 50 is encoded 119 (118.9); black and white are the ends.
  it('greys are neutral, whatever white they are looked at under', () => {
    expect(labToScreen([100, 0, 0]).srgb).toEqual([255, 255, 255]);
    expect(labToScreen([0, 0, 0]).srgb).toEqual([0, 0, 0]);
    expect(labToScreen([50, 0, 0]).srgb).toEqual([119, 119, 119]);
    expect(labToScreen([50, 0, 0], { illuminant: 'A', observer: '2' }).srgb).toEqual([119, 119, 119]);
  });

  // IEC 61966-2-1, the transfer function at its joint and its ends.
  it('linear light of a byte is the inverse of what is encoded', () => {
    expect(linearOfByte(0)).toBe(0);
    expect(linearOfByte(255)).toBeCloseTo(1, 12);
    expect(linearOfByte(188)).toBeCloseTo(0.5029, 4);
    expect(linearOfByte(10)).toBeCloseTo(10 / 255 / 12.92, 12);
    for (let v = 1; v < 256; v++) expect(linearOfByte(v)).toBeGreaterThan(linearOfByte(v - 1));
  });

  it('say when they lie beyond it, and are cut off there', () => {
    expect(labToScreen([60, -90, 60])).toMatchObject({ inGamut: false });
    expect(labToScreen([60, 10, 10]).inGamut).toBe(true);
    for (const v of labToScreen([140, 0, 0]).srgb) expect(v).toBe(255);
  });

  it('an exposure brings the brightest of those compared just to the screen’s white, and never lightens', () => {
    expect(exposureFor([[50, 0, 0]])).toBe(1);
    fc.assert(
      fc.property(
        fc.array(lab, { minLength: 1, maxLength: 5 }),
        fc.double({ min: 1, max: 2, noNaN: true }),
        (labs, over) => {
          const bright = labs.map(([l, a, b]): Lab => [l * over, a, b]);
          const exposure = exposureFor(bright);
          expect(exposure).toBeLessThanOrEqual(1);
          const peak = Math.max(...bright.flatMap((l) => xyzToLinearSrgb(labToXyz(l, whitePoint(D65_10)))));
          expect(peak * exposure).toBeLessThanOrEqual(1 + 1e-9);
          if (exposure < 1) expect(peak * exposure).toBeCloseTo(1, 9);
        },
      ),
    );
  });
});

describe('a colour from a photo with a grey card', () => {
  it('the card’s own grey is as light as it is, whatever the light’s colour and the exposure', () => {
    fc.assert(
      fc.property(
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.1, max: 0.9, noNaN: true }))),
        fc.double({ min: 30, max: 70, noNaN: true }),
        (grey, l) => {
          const found = photoLab(grey as [number, number, number], grey as [number, number, number], l)!;
          expect(found[0]).toBeCloseTo(l, 0);
          expect(Math.hypot(found[1], found[2])).toBeLessThan(0.7);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('is the same in half the light and in a warmer one', () => {
    const sample = [0.3, 0.2, 0.12] as const;
    const at = (light: readonly [number, number, number]) =>
      photoLab(
        [0.4 * light[0], 0.4 * light[1], 0.4 * light[2]],
        [sample[0] * light[0], sample[1] * light[1], sample[2] * light[2]],
        60,
      )!;
    expect(de2000(at([1, 1, 1]), at([0.5, 0.5, 0.5]))).toBeLessThan(0.01);
    expect(de2000(at([1, 1, 1]), at([1.2, 1, 0.7]))).toBeLessThan(0.01);
  });

  it('is not read off a grey that is clipped or drowned', () => {
    expect(photoLab([0.99, 0.5, 0.5], [0.2, 0.2, 0.2], 50)).toBeNull();
    expect(photoLab([0.4, 0.4, 0.005], [0.2, 0.2, 0.2], 50)).toBeNull();
  });
});

describe('tables over wavelength', () => {
  it('go through their points and hold their ends', () => {
    const values = interpolateTable([420, 500, 640], [0, 1, 0.3]);
    expect([400, 420, 460, 500, 640, 700].map((nm) => values[WAVELENGTHS_NM.indexOf(nm)]!)).toEqual([
      0,
      0,
      expect.closeTo(0.5, 12),
      1,
      expect.closeTo(0.3, 12),
      expect.closeTo(0.3, 12),
    ]);
  });

  it('a straight line stays one, however coarse the table', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 380, max: 720 }), { minLength: 2, maxLength: 9 }), (nm) => {
        const at = [...nm, 350, 800].sort((a, b) => a - b);
        const line = interpolateTable(
          at,
          at.map((w) => 2 - w / 400),
        );
        line.forEach((v, i) => expect(v).toBeCloseTo(2 - WAVELENGTHS_NM[i]! / 400, 10));
      }),
    );
  });

  it('moved along by whole steps is moved exactly, to and fro inside the ends', () => {
    const band = spectrumFrom((nm) => Math.exp(-(((nm - 550) / 40) ** 2)));
    const moved = shiftSpectrum(band, 20);
    for (let i = 2; i < 31; i++) expect(moved[i]).toBeCloseTo(band[i - 2]!, 12);
    expect(moved[0]).toBe(band[0]);
    shiftSpectrum(band, 0).forEach((v, i) => expect(v).toBeCloseTo(band[i]!, 12));
    const peak = (s: Float64Array) => WAVELENGTHS_NM[s.indexOf(Math.max(...s))];
    expect(peak(shiftSpectrum(band, -30))).toBe(520);
  });
});

describe('differences as they are weighed', () => {
  it('squares of what is weighted add up to about CIEDE2000’s, near a target', () => {
    fc.assert(
      fc.property(lab, fc.integer({ min: 0, max: 2 }), (of, axis) => {
        const weights = differenceWeights([{ lab: of }]);
        const [l, a, b] = of.map((v, c) => (c === axis ? v + 0.2 : v));
        const off: Lab = [l!, a!, b!];
        const [r] = [residuals([off], [{ lab: of }], weights)];
        expect(Math.hypot(...r)).toBeCloseTo(de2000(of, off), 1);
      }),
    );
  });

  it('bright angles of a reading count for less, the whole for as much', () => {
    const target = [{ lab: [20, 0, 0] as Lab }, { lab: [120, 0, 0] as Lab }];
    const seen = differenceWeights(target);
    const weighed = readingWeights(target);
    expect(scatterShape(120)).toBeGreaterThan(scatterShape(20));
    expect(scatterShape(-5)).toBe(scatterShape(0));
    const share = (w: number[][]) => w[1]![0]! / w[0]![0]!;
    expect(share(weighed)).toBeLessThan(share(seen));
    for (const w of weighed.flat()) expect(w).toBeGreaterThan(0);
  });
});
