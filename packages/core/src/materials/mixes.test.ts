import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from '../colour/difference';
import { CoreError } from '../errors';
import { createFilm } from '../optics/film';
import { albedoToLab, labToAlbedo, lookToAlbedo, GROUNDS } from './grounds';
import { coverFromParts, depthFromParts, partsForDepth, sayParts, sharesFromParts } from './mixStrength';
import { DYES, dyeDepth } from './dyes';
import { EFFECT_PIGMENTS, findPigment } from './effectPigments';
import { findMix, holdsFlake, mixCoat, MIXES, BINDER_HAZE } from './mixes';
import { REFERENCE_LIBRARY } from '.';
import { findSolid, solidsInFilm, SOLIDS } from './solids';
import { solidsLook } from './solidsLook';

const film = createFilm();
const parts = fc.double({ min: 0.05, max: 20, noNaN: true });

describe('strength from parts', () => {
  it('covers join as chances of missing do: twice the parts or twice the film miss twice over', () => {
    fc.assert(
      fc.property(parts, parts, fc.double({ min: 2, max: 30, noNaN: true }), (p, c, um) => {
        const once = coverFromParts(p, c, um, 0.5);
        expect(once).toBeGreaterThan(0);
        expect(once).toBeLessThanOrEqual(1);
        expect(1 - coverFromParts(2 * p, c, um, 0.5)).toBeCloseTo((1 - once) ** 2, 10);
        expect(coverFromParts(p, c, 2 * um, 0.5)).toBeCloseTo(coverFromParts(2 * p, c, um, 0.5), 10);
        // Thicker flakes of as many parts are fewer.
        expect(coverFromParts(p, c, um, 1)).toBeLessThanOrEqual(once);
      }),
    );
  });

  // Common practice (no source): a usual ready-mixed pearl.
  it('a part in six of a pearl covers about a third in 9 µm', () => {
    expect(coverFromParts(1, 6, 9, 0.5)).toBeCloseTo(0.3, 1);
  });

  it('a dye’s depth goes with its parts and the film; the parts for a depth are its inverse', () => {
    fc.assert(
      fc.property(parts, fc.double({ min: 2, max: 30, noNaN: true }), (depth, um) => {
        expect(depthFromParts(partsForDepth(depth, um), 1, um)).toBeCloseTo(depth, 9);
        expect(depthFromParts(2, 5, um)).toBeCloseTo(2 * depthFromParts(1, 5, um), 9);
      }),
    );
  });

  it('shares of base colours fill the film with their carrier; one alone is the whole film', () => {
    fc.assert(
      fc.property(fc.array(parts, { minLength: 1, maxLength: 5 }), parts, (list, carrier) => {
        const shares = sharesFromParts(list, carrier);
        expect(shares.reduce((s, v) => s + v, carrier / (carrier + list.reduce((s, v) => s + v, 0)))).toBeCloseTo(1, 9);
      }),
    );
    expect(sharesFromParts([4], 0)).toEqual([1]);
  });

  it('are written as on a sheet, the strength on all that colours', () => {
    const system = {
      parts: [
        { name: 'binder', parts: 6 },
        { name: 'blue pearl, fine', parts: 1, colourId: 'x' },
      ],
    };
    expect(sayParts(system)).toBe('6 binder : 1 blue pearl, fine');
    expect(sayParts(system, 1.25)).toBe('6 binder : 1.25 blue pearl, fine');
    expect(sayParts({ parts: [] })).toBe('parts not given: as your formula');
  });
});

describe('the reference library', () => {
  it('has everything its mixes and grounds are made of, each by a name and an id of its own', () => {
    const { grounds, pigments, dyes, solids, carriers, systems } = REFERENCE_LIBRARY;
    for (const list of [grounds, pigments, dyes, solids, carriers, systems]) {
      expect(new Set(list.map((m) => m.id)).size).toBe(list.length);
      expect(new Set(list.map((m) => m.name)).size).toBe(list.length);
    }
    for (const mix of MIXES) {
      expect(carriers.some((c) => c.id === mix.carrierId)).toBe(true);
      expect(() => mixCoat(mix, REFERENCE_LIBRARY)).not.toThrow();
    }
    for (const g of GROUNDS) if (g.flakes) expect(() => findPigment(g.flakes!.pigmentId)).not.toThrow();
  });

  it.each([
    ['dye', () => dyeDepth('gone')],
    ['pigment', () => findPigment('gone')],
    ['base colour', () => findSolid('gone')],
    ['mix', () => findMix('gone')],
  ])('says which %s is not there', (_, ask) => {
    expect(ask).toThrow(CoreError);
    expect(ask).toThrow(/called gone/);
  });

  it('dyes let everything through that they do not take: depths are never below zero, and each takes something', () => {
    for (const d of DYES) {
      expect(Math.min(...d.depth)).toBeGreaterThanOrEqual(0);
      expect(Math.max(...d.depth)).toBeGreaterThan(0.1);
    }
  });

  it('flakes that are seen one by one make a mix a flake', () => {
    for (const mix of MIXES)
      expect(holdsFlake(mix, REFERENCE_LIBRARY)).toBe(
        mix.flakes.some((f) => EFFECT_PIGMENTS.find((p) => p.id === f.pigmentId)!.sizeUm >= 100),
      );
  });
});

describe('a coat of a mix', () => {
  it('has the dyes’ depths added up, and its binder hazed where flakes lie in it', () => {
    const two = mixCoat(
      {
        flakes: [],
        dyes: [
          { dyeId: 'cinder-red', depth: 0.5 },
          { dyeId: 'marsh-gold', depth: 2 },
        ],
        solids: [],
        filmUm: 9,
      },
      REFERENCE_LIBRARY,
    );
    const dye = two.dye as Float64Array;
    dye.forEach((v, i) => expect(v).toBeCloseTo(0.5 * dyeDepth('cinder-red')[i]! + 2 * dyeDepth('marsh-gold')[i]!, 12));
    expect(two.pigment).toBeUndefined();
    const pearl = mixCoat(
      { flakes: [{ pigmentId: 'blue-pearl-fine', cover: 0.3 }], dyes: [], solids: [], filmUm: 9 },
      REFERENCE_LIBRARY,
    );
    expect(pearl.pigment!.thickness).toBe(9);
    expect((pearl.pigment!.s as Float64Array)[10]).toBeCloseTo(BINDER_HAZE, 12);
    expect(pearl.flakes).toMatchObject([{ cover: 0.3 }]);
  });
});

describe('base colours', () => {
  it('add by their shares: half of each is half of each (Duncan 1940)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SOLIDS),
        fc.constantFrom(...SOLIDS),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b, x) => {
          const { k, s } = solidsInFilm([
            { solidId: a.id, share: x },
            { solidId: b.id, share: 1 - x },
          ]);
          k.forEach((v, i) => expect(v).toBeCloseTo(x * a.k[i]! + (1 - x) * b.k[i]!, 12));
          s.forEach((v, i) => expect(v).toBeCloseTo(x * a.s[i]! + (1 - x) * b.s[i]!, 12));
        },
      ),
    );
  });

  it('only the proportion of the parts counts, and more black is darker', () => {
    const look = (white: number, black: number) =>
      solidsLook(film, [
        { solidId: 'solid-white', parts: white },
        { solidId: 'solid-black', parts: black },
      ]);
    expect(de2000(look(10, 1).lab, look(20, 2).lab)).toBeLessThan(1e-9);
    const greys = [0.01, 0.05, 0.2, 1, 5].map((b) => look(1, b).lab[0]);
    greys.slice(1).forEach((l, i) => expect(l).toBeLessThan(greys[i]!));
    // Black hides what white has to be laid many times to hide.
    expect(look(1, 1).hidesIn!).toBeLessThan(look(1, 0).hidesIn!);
  });

  it('a base that scatters next to nothing never hides', () => {
    const clearish = { ...SOLIDS[4]!, id: 'x', k: new Float64Array(31).fill(1e-5), s: new Float64Array(31).fill(1e-5) };
    expect(solidsLook(film, [{ solidId: 'x', parts: 1 }], [clearish]).hidesIn).toBeNull();
  });
});

describe('a ground’s look and what lies under the clear', () => {
  it('are inverses of one another between what a film can show', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 90, noNaN: true }),
        fc.double({ min: -15, max: 15, noNaN: true }),
        fc.double({ min: -15, max: 15, noNaN: true }),
        (l, a, b) => {
          const back = albedoToLab(film, labToAlbedo(film, [l, a, b]));
          expect(de2000(back, [l, a, b])).toBeLessThan(0.05);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('stay between black and what no ground exceeds', () => {
    for (const factor of [-1, 0, 0.2, 0.5, 1, 3]) {
      const albedo = lookToAlbedo(film, factor);
      expect(albedo).toBeGreaterThanOrEqual(0);
      expect(albedo).toBeLessThanOrEqual(0.995);
    }
  });
});
