import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { CoreError } from '../errors';
import { EFFECT_PIGMENTS } from '../materials/effectPigments';
import { adjustCoat, flakeDepth, prepareCoat, strengthenCoat, thickenFlakes, type Coat } from './coat';
import { expNegative } from './expNegative';
import { createFilm, internalReflectance } from './film';
import { flakeClasses } from './flakeClasses';
import { flakePower, readFlake, tabulateFlake } from './flakeOptics';
import { fresnel } from './fresnel';
import { enterFilm, FIVE_ANGLES } from './geometry';
import { thinFilmPower, type FilmLayer } from './thinFilm';

const film = createFilm();
const mirror = { kind: 'scalar', reflectance: 0.8, transmittance: 0.1 } as const;
const cover = fc.double({ min: 0.01, max: 0.95, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });
const coatOf = (more: Partial<Coat> = {}): Coat => ({
  dye: 0.2,
  flakes: { cover: 0.4, tilt: 8, edge: 0.1, optics: mirror },
  pigment: { k: 0.01, s: 0.05, thickness: 10 },
  ...more,
});

describe('a coat made ready', () => {
  it('has its cover as a depth: what is missed is e to the minus of it', () => {
    fc.assert(
      fc.property(cover, cover, (one, other) => {
        const depthOf = (c: number) =>
          flakeDepth(prepareCoat(film, { flakes: { cover: c, tilt: 8, edge: 0, optics: mirror } }));
        expect(Math.exp(-depthOf(one))).toBeCloseTo(1 - one, 9);
        // Two kinds among one another miss what neither meets.
        const both = prepareCoat(film, {
          flakes: [one, other].map((c) => ({ cover: c, tilt: 8, edge: 0, optics: mirror })),
        });
        expect(Math.exp(-flakeDepth(both))).toBeCloseTo((1 - one) * (1 - other), 9);
      }),
    );
  });

  it('leaves out flakes that cover nothing, and has no depth without any', () => {
    expect(flakeDepth(prepareCoat(film, { dye: 0.3 }))).toBe(0);
    expect(prepareCoat(film, coatOf({ flakes: { cover: 0, tilt: 8, edge: 0, optics: mirror } })).flakes).toEqual([]);
  });

  it.each([
    ['a factor below 0', { factor: -0.1 }],
    ['an endless factor', { factor: Infinity }],
    ['a dye that gives light', { dye: -0.1 }],
    ['a pigment that gives light', { pigment: { k: -1, s: 0.1, thickness: 10 } }],
    ['a cover of 1', { flakes: { cover: 1, tilt: 8, edge: 0.1, optics: mirror } }],
    ['flakes that stand', { flakes: { cover: 0.4, tilt: 45, edge: 0.1, optics: mirror } }],
    ['an edge share over 1', { flakes: { cover: 0.4, tilt: 8, edge: 1.1, optics: mirror } }],
  ])('is refused with %s, in a sentence', (_, more) => {
    expect(() => prepareCoat(film, coatOf(more))).toThrow(CoreError);
    expect(() => prepareCoat(film, coatOf(more))).toThrow(/\.$/);
  });
});

describe('a coat that is changed', () => {
  const coat = prepareCoat(film, coatOf());

  it('by nothing is as it was', () => {
    expect(strengthenCoat(coat, 1)).toBe(coat);
    expect(thickenFlakes(film, coat, 1)).toBe(coat);
    expect(adjustCoat(coat, {})).toEqual(coat);
  });

  it('stronger has more of all that colours and as much film; twice over is the product', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        (a, b) => {
          const once = strengthenCoat(coat, a * b);
          const twice = strengthenCoat(strengthenCoat(coat, a), b);
          expect(once.factor).toBe(coat.factor);
          expect(twice.a[5]).toBeCloseTo(once.a[5]!, 9);
          expect(twice.s[5]).toBeCloseTo(once.s[5]!, 9);
          expect(flakeDepth(twice)).toBeCloseTo(flakeDepth(once), 9);
          expect(once.a[5]! / coat.a[5]!).toBeCloseTo(a * b, 9);
        },
      ),
    );
  });

  it('flakes and dye go their own ways, and tilt and edges stay within what can be', () => {
    const changed = adjustCoat(coat, { dyeScale: 2, tauScale: 0.5, tiltScale: 100, edgeScale: 100, factor: 0.3 });
    expect(changed.a[0]).toBeCloseTo(2 * coat.a[0]!, 12);
    expect(changed.k).toBe(coat.k);
    expect(flakeDepth(changed)).toBeCloseTo(flakeDepth(coat) / 2, 12);
    expect(changed.flakes[0]!.tilt).toBe(0.52);
    expect(changed.flakes[0]!.edge).toBe(1);
    expect(changed.factor).toBe(0.3);
    // The flake itself is not tabulated anew.
    expect(changed.flakes[0]!.table).toBe(coat.flakes[0]!.table);
  });

  it('thicker films turn a flake’s colour; a plain mirror has none to turn', () => {
    const pearl = EFFECT_PIGMENTS.find((p) => p.id === 'blue-pearl-fine')!;
    const made = prepareCoat(film, { flakes: { cover: 0.4, tilt: 8, edge: 0, optics: pearl.optics } });
    const thicker = thickenFlakes(film, made, 1.2);
    const peak = (r: Float64Array) => {
      const column = Array.from({ length: WAVELENGTH_COUNT }, (_, i) =>
        readFlake({ ...made.flakes[0]!.table, r }, r, i, 1),
      );
      return column.indexOf(Math.max(...column));
    };
    // First-order interference lies at a wavelength in proportion to the film.
    expect(peak(thicker.flakes[0]!.table.r)).toBeGreaterThan(peak(made.flakes[0]!.table.r));
    expect(thickenFlakes(film, coat, 1.2).flakes[0]!.table).toBe(coat.flakes[0]!.table);
  });
});

describe('a flake', () => {
  it('of the library sends back and lets through no more than all of the light, at every angle and colour', () => {
    for (const { optics } of EFFECT_PIGMENTS)
      for (const cosine of [1, 0.8, 0.5, 0.2])
        for (let i = 0; i < WAVELENGTH_COUNT; i += 5) {
          const { r, t } = flakePower(optics, i, cosine, film.n);
          expect(r).toBeGreaterThanOrEqual(0);
          expect(t).toBeGreaterThanOrEqual(0);
          expect(r + t).toBeLessThanOrEqual(1 + 1e-9);
        }
  });

  it('is read from its table as the matrix has it, between its columns too: every one of the library', () => {
    for (const { optics, kind } of EFFECT_PIGMENTS) {
      const table = tabulateFlake(optics, film.n);
      const off = (i: number, cosine: number) =>
        Math.abs(readFlake(table, table.r, i, cosine) - flakePower(optics, i, cosine, film.n).r);
      // Light that comes straight in reaches flakes at cosines above 0.745; what is trapped goes flatter.
      for (let i = 0; i < WAVELENGTH_COUNT; i += 3) {
        for (let cosine = 0.75; cosine < 1; cosine += 0.011) expect(off(i, cosine)).toBeLessThan(0.01);
        for (let cosine = 0.42; cosine < 0.75; cosine += 0.011)
          expect(off(i, cosine)).toBeLessThan(kind === 'spacer' ? 0.03 : 0.001);
      }
    }
  });

  it('is tabulated once for a binder, and anew for another', () => {
    const { optics } = EFFECT_PIGMENTS[0]!;
    expect(tabulateFlake(optics, 1.5)).toBe(tabulateFlake(optics, 1.5));
    expect(tabulateFlake(optics, 1.45)).not.toBe(tabulateFlake(optics, 1.5));
    expect(() => tabulateFlake({ kind: 'scalar', reflectance: 0.8, transmittance: 0.3 }, 1.5)).toThrow(CoreError);
  });

  it('under dyed lacquer is darker the flatter the light: it goes through more of it', () => {
    const { optics } = EFFECT_PIGMENTS.find((p) => p.id === 'red-flake-400')!;
    const at = (cosine: number) => flakePower(optics, 12, cosine, film.n).r;
    expect(at(0.5)).toBeLessThan(at(0.8));
    expect(at(0.8)).toBeLessThan(at(1));
  });
});

describe('thin layers', () => {
  const layer: fc.Arbitrary<FilmLayer> = fc.record({
    n: fc.double({ min: 1.3, max: 3, noNaN: true }),
    k: fc.double({ min: 0, max: 2, noNaN: true }),
    nm: fc.double({ min: 5, max: 250, noNaN: true }),
  });

  // Born and Wolf, Principles of Optics, section 1.6: what goes through is the same from either side.
  it('let as much through from behind as from in front, also where they absorb', () => {
    fc.assert(
      fc.property(
        fc.array(layer, { minLength: 1, maxLength: 4 }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        (layers, cosine) => {
          const [n0, n1] = [1, 1.5];
          const inside = Math.sqrt(1 - (n0 / n1) ** 2 * (1 - cosine * cosine));
          const there = thinFilmPower(n0, layers, { n: n1, k: 0 }, cosine, 550);
          const back = thinFilmPower(n1, [...layers].reverse(), { n: n0, k: 0 }, inside, 550);
          expect(back.ts).toBeCloseTo(there.ts, 9);
          expect(back.tp).toBeCloseTo(there.tp, 9);
        },
      ),
    );
  });

  // Macleod, Thin-Film Optical Filters, chapter 3: magnesium fluoride on crown glass, 1.26 % at the design wavelength.
  it('a quarter wave of magnesium fluoride leaves 1.26 % of glass’s 4.26 %', () => {
    expect(thinFilmPower(1, [], { n: 1.52, k: 0 }, 1, 550).r).toBeCloseTo(0.0426, 4);
    expect(thinFilmPower(1, [{ n: 1.38, k: 0, nm: 550 / 4 / 1.38 }], { n: 1.52, k: 0 }, 1, 550).r).toBeCloseTo(
      0.0126,
      4,
    );
  });

  // Metals at 550 nm as handbooks have them (n - ik, from memory): aluminium 0.96 - 6.69i, silver 0.12 - 3.45i.
  it('bare metals send back what handbooks say', () => {
    expect(thinFilmPower(1, [], { n: 0.96, k: 6.69 }, 1, 550).r).toBeCloseTo(0.92, 2);
    expect(thinFilmPower(1, [], { n: 0.12, k: 3.45 }, 1, 550).r).toBeGreaterThan(0.95);
  });

  it('a layer of the medium in front changes nothing; one of no thickness neither', () => {
    const bare = thinFilmPower(1, [], { n: 1.5, k: 0 }, 0.7, 550);
    expect(thinFilmPower(1, [{ n: 1, k: 0, nm: 333 }], { n: 1.5, k: 0 }, 0.7, 550).r).toBeCloseTo(bare.r, 12);
    expect(thinFilmPower(1, [{ n: 2.2, k: 1, nm: 0 }], { n: 1.5, k: 0 }, 0.7, 550).r).toBe(bare.r);
  });
});

describe('constants of a film', () => {
  it('share a diffuse flux between what can leave and what is trapped', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.05, max: 2.2, noNaN: true }), (n) => {
        const f = createFilm(n);
        expect(f.fC + f.fT).toBeCloseTo(1, 12);
        expect(f.qC + f.qT).toBeCloseTo(1, 12);
        // All that is trapped comes back, and of the rest the surface's own share.
        expect(f.internal).toBeCloseTo(f.fT + f.fC * f.rC, 9);
        expect(f.rC).toBeGreaterThan(0);
        expect(f.rC).toBeLessThan(1);
        // Through more dye the trapped light that is left runs steeper.
        expect(f.mT(5)).toBeLessThanOrEqual(f.mT(0.1));
      }),
      { numRuns: 20 },
    );
  });

  it('send everything back beyond the critical angle, and as Fresnel says within it', () => {
    expect(internalReflectance(film, film.muC * 0.99)).toBe(1);
    expect(internalReflectance(film, 1)).toBeCloseTo(0.04, 6);
    expect(internalReflectance(film, 0.9)).toBe(fresnel(1.5, 1, 0.9).r);
  });

  it('chains of flake and surface lean to a side, and are 1 on the mean over what leaves', () => {
    const w = 0.6;
    let [sum, cells] = [0, 0];
    const rim = 1 / film.n;
    for (let x = -0.995; x < 1; x += 0.01)
      for (let y = -0.995; y < 1; y += 0.01) {
        if (x * x + y * y > 1) continue;
        // The function is of the sine in the plane of the lamp; across it the bell falls by itself.
        sum += film.chainSide(x * rim, w) * Math.exp(-((y * rim) ** 2) / (2 * w * w));
        cells++;
      }
    expect(sum / cells).toBeCloseTo(1, 2);
    expect(film.chainSide(0.5, w)).toBeGreaterThan(film.chainSide(-0.5, w));
  });

  it('tilted flakes move more light between the classes, and as much to and fro', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.4, noNaN: true }), (s) => {
        const c = flakeClasses(s, film.fC);
        expect(c.x * film.fC).toBeCloseTo(c.xt * film.fT, 12);
        expect(flakeClasses(s + 0.01, film.fC).x).toBeGreaterThan(c.x);
        expect(c.gT).toBeGreaterThan(1);
        expect(c.fw).toBeGreaterThan(0);
      }),
    );
  });
});

describe('lamp and view in the film', () => {
  it('bend by Snell’s law; the flake that mirrors one into the other lies half way', () => {
    for (const g of FIVE_ANGLES) {
      const in_ = enterFilm(film, g);
      const degrees = (rad: number) => (rad * 180) / Math.PI;
      expect(in_.sinIn * film.n).toBeCloseTo(Math.sin(Math.PI / 4), 12);
      const view = degrees(Math.asin(in_.sinView));
      const lamp = degrees(Math.asin(in_.sinIn));
      expect(degrees(in_.tiltNeeded)).toBeCloseTo(Math.abs(lamp - view) / 2, 9);
      expect(in_.surface).toBeGreaterThan(0.2);
      expect(in_.surface).toBeLessThan(1 / film.n ** 2);
    }
    expect(enterFilm(film, { incidence: 0, aspecular: 0 })).toMatchObject({ path: 1, tiltNeeded: 0 });
  });

  it('below the surface are refused', () => {
    expect(() => enterFilm(film, { incidence: 95, aspecular: 10 })).toThrow(CoreError);
    expect(() => enterFilm(film, { incidence: 45, aspecular: 140 })).toThrow(/below the surface/);
  });
});

describe('the quick exponential', () => {
  it('is the library’s to nine places, and nothing far out', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 39.9, noNaN: true }), (x) => {
        expect(Math.abs(expNegative(x) / Math.exp(-x) - 1)).toBeLessThan(3e-9);
      }),
    );
    expect([expNegative(0), expNegative(40), expNegative(1e9)]).toEqual([1, 0, 0]);
    fc.assert(fc.property(share, (x) => expNegative(x + 0.01) < expNegative(x)));
  });
});
