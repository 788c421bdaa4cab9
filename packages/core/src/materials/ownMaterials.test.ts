import { describe, expect, it } from '@jest/globals';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import fc from 'fast-check';
import { fitStrength } from '../matching/fitStrength';
import { factorsToLabs, ladderLabs } from '../matching/ladder';
import { prepareCoat } from '../optics/coat';
import { prepareLibrary, REFERENCE_LIBRARY } from './shop';
import {
  FILM_NM,
  pigmentFromThickness,
  thicknessOf,
  usedByMaterials,
  type OwnMaterial,
  type OwnSystem,
} from './ownMaterials';
import { coverFromParts, depthFromParts, partsForDepth, sayParts } from './mixStrength';
import { findCarrier } from './carriers';
import { labToAlbedo } from './grounds';

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const solid = { pigmentId: null, cover: 0.93, tintId: null, tintDepth: 1, hidesIn: 3, solids: [] } as const;
const view = [{ incidence: 45, aspecular: 45 }];

describe('a shop’s own materials', () => {
  it('makes a dye from two drawdowns that gives the second look over the first', () => {
    const bare: Lab = [93, 0, 3];
    for (const dyed of [
      [60, 40, 20],
      [70, -30, 15],
      [45, 10, -40],
    ] as Lab[]) {
      const shop = prepareLibrary([{ kind: 'dye', id: id(1), name: 'Ours', bare, dyed, coats: 2 }]);
      const { depth } = shop.library.dyes.find((d) => d.id === id(1))!;
      const coat = prepareCoat(shop.film, { dye: depth, factor: 2 });
      const lab = factorsToLabs(shop.model(view).evaluate({ albedo: labToAlbedo(shop.film, bare) }, [coat]))[0]!;
      expect(de2000(lab, dyed)).toBeLessThan(1);
    }
  });

  it('makes a pigment from its film: a copy at the same thickness is the same flake, out of bounds is refused', () => {
    for (const p of REFERENCE_LIBRARY.pigments) {
      const film = thicknessOf(p);
      if (!film) continue;
      const copy = pigmentFromThickness({
        kind: 'pigment',
        id: id(2),
        name: 'Copy',
        ...film,
        sizeUm: p.sizeUm,
        tilt: p.tilt,
        edge: p.edge,
      });
      expect(copy.optics).toEqual(p.optics);
      const [lo, hi] = FILM_NM[film.structure];
      expect(film.filmNm).toBeGreaterThan(lo);
      expect(film.filmNm).toBeLessThan(hi);
    }
    expect(() =>
      pigmentFromThickness({
        kind: 'pigment',
        id: id(2),
        name: 'x',
        structure: 'titania-mica',
        filmNm: 900,
        sizeUm: 20,
        tilt: 9,
        edge: 0,
      }),
    ).toThrow(/between 20 and 260 nm/);
  });

  it('puts own grounds and mixes where the map finds them, and knows what leans on what', () => {
    const own: OwnMaterial[] = [
      { kind: 'ground', id: id(3), name: 'Fog', mark: 'fog', lab: [78, -3, 4], ...solid, pricePerLitre: 30 },
      {
        ...solid,
        kind: 'ground',
        id: id(6),
        name: 'Tin',
        mark: 'tin',
        lab: [50, 0, 0],
        pigmentId: id(4),
        tintId: 'marsh-gold',
        pricePerLitre: 40,
      },
      {
        kind: 'carrier',
        id: id(7),
        name: 'Our binder',
        chemistry: 'waterborne',
        volumeSolids: 0.16,
        filmUm: 8,
        densityGPerMl: 1.02,
        flashMinutes: 12,
      },
      {
        kind: 'pigment',
        id: id(4),
        name: 'Ours',
        structure: 'titania-mica',
        filmNm: 140,
        sizeUm: 20,
        tilt: 9,
        edge: 0.1,
      },
      {
        kind: 'system',
        id: id(5),
        name: 'Our mix',
        family: 'pearl',
        carrierId: id(7),
        colours: [
          { kind: 'flake', id: id(4), parts: null, strength: 0.4 },
          { kind: 'dye', id: 'lagoon-blue', parts: null, strength: 0.5 },
        ],
        carrierParts: null,
        strengthFrom: 'typed',
        drawdown: null,
        filmUm: 8,
        flashMinutes: 10,
        pricePerLitre: 90,
      },
    ];
    const shop = prepareLibrary(own);
    expect(shop.grounds().map((g) => g.id)).toContain(id(3));
    const coat = shop.coat(
      shop.library.systems.find((s) => s.id === id(5))!,
      1,
    );
    expect(1 - Math.exp(-coat.flakes[0]!.tau)).toBeCloseTo(0.4, 9);
    expect(coat.a[20]).toBeGreaterThan(0.05);
    expect(usedByMaterials(id(4), own)).toEqual(['Tin', 'Our mix']);
    expect(usedByMaterials(id(7), own)).toEqual(['Our mix']);
    expect(findCarrier(id(7), shop.library.carriers).volumeSolids).toBe(0.16);
    const tin = shop.grounds().find((g) => g.id === id(6))!;
    expect(1 - Math.exp(-tin.coats[0]!.flakes[0]!.tau)).toBeCloseTo(0.93, 9);
    expect(tin.coats[0]!.a[3]).toBeGreaterThan(0.2);
    expect(usedByMaterials(id(3), own)).toEqual([]);
  });

  it('pours a mix by the parts that were entered, and by none that were not', () => {
    const colours: OwnSystem['colours'] = [
      { kind: 'flake', id: 'blue-pearl-fine', parts: 1, strength: 0.3 },
      { kind: 'dye', id: 'lagoon-blue', parts: 0.5, strength: 0.4 },
      { kind: 'dye', id: 'plum-violet', parts: 0.25, strength: 0.2 },
    ];
    const mix = (more: Partial<OwnSystem>): OwnSystem => ({
      kind: 'system',
      id: 'mix',
      name: 'Our mix',
      family: 'candy',
      carrierId: 'intercoat',
      carrierParts: 6,
      colours,
      strengthFrom: 'parts',
      drawdown: null,
      filmUm: 9,
      flashMinutes: 10,
      pricePerLitre: 80,
      ...more,
    });
    const systemOf = (more: Partial<OwnSystem> = {}) =>
      prepareLibrary([mix(more)]).library.systems.find((s) => s.id === 'mix')!;
    expect(sayParts(systemOf())).toBe('6 intercoat clear : 1 blue pearl, fine : 0.5 lagoon blue : 0.25 plum violet');
    expect(sayParts(systemOf(), 2)).toBe('6 intercoat clear : 2 blue pearl, fine : 1 lagoon blue : 0.5 plum violet');
    expect(systemOf().dyes).toHaveLength(2);
    const unknown = colours.map((c, i) => (i ? c : { ...c, parts: null }));
    for (const more of [{ carrierParts: null }, { colours: unknown }]) {
      expect(systemOf(more).parts).toEqual([]);
      expect(sayParts(systemOf(more))).toBe('parts not given: as your formula');
    }
  });

  it('work strengths out from parts as the library’s own mixes have them, roughly', () => {
    // Invented mixes of the library against the usual concentrates: within a factor of two, and the pearl to a tenth.
    expect(coverFromParts(1, 6, 9, 0.5)).toBeCloseTo(0.3, 2);
    expect(coverFromParts(1, 6, 8, 0.5)).toBeCloseTo(0.26, 1);
    for (const s of REFERENCE_LIBRARY.systems)
      for (const d of s.dyes) {
        const part = s.parts.find((p) => p.colourId === d.dyeId)!;
        const depth = depthFromParts(part.parts, s.parts[0]!.parts, s.filmUm);
        expect(depth / d.depth).toBeGreaterThan(0.5);
        expect(depth / d.depth).toBeLessThan(2);
        expect(partsForDepth(depth, s.filmUm)).toBeCloseTo(part.parts / s.parts[0]!.parts, 9);
      }
  });

  it('finds the strength a drawdown was sprayed with', () => {
    const shop = prepareLibrary();
    const model = shop.model([{ incidence: 45, aspecular: 45 }]);
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.constantFrom(...REFERENCE_LIBRARY.systems),
        fc.constantFrom('white', 'cream-pastel', 'silver-fine'),
        (strength, system, groundId) => {
          const ground = shop.ground(shop.library.grounds.find((g) => g.id === groundId)!);
          const read = ladderLabs(model, ground, { coat: shop.coat(system, strength) }, [2])[0]![0]!;
          const found = fitStrength(model, ground, shop.coat(system, 1), 2, read);
          expect(found.off).toBeLessThan(0.05);
          // A look may come twice; where it does not, the strength is found.
          const again = ladderLabs(model, ground, { coat: shop.coat(system, found.factor) }, [2])[0]![0]!;
          again.forEach((v, i) => expect(Math.abs(v - read[i]!)).toBeLessThan(0.2));
        },
      ),
      { numRuns: 25 },
    );
  });
});
