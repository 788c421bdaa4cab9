import { describe, it, expect } from '@jest/globals';
import fc from 'fast-check';
import { layersOf, startingLayers } from '../finishes';
import { parseProductsCsv, productsToCsv } from '../formats';
import { findGround, findMix, REFERENCE_LIBRARY } from '../materials';
import { createFilm } from '../optics';
import { STARTING_PRODUCTS } from '../products';
import { type FlakeSize, flakeDose, wantedCover, groundShows, paintFlakes, clearToBury } from './flake';
import { flakeLayerOf, withFlakeDose } from './flakeLayer';
import { sealerForShade, SEALER_TONES, sealerLook, learnTint } from './sealerShade';

const nextId = () => {
  let n = 0;
  return () => `l${n++}`;
};
describe('flake', () => {
  const mix: FlakeSize[] = [
    { sizeUm: 100, thicknessUm: 12.5, density: 1.4, parts: 3 },
    { sizeUm: 200, thicknessUm: 12.5, density: 1.4, parts: 2 },
  ];

  it('covers as Poisson says: the dose and its coats give the cover that was asked', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.99, noNaN: true }), (cover) => {
        const dose = flakeDose({ mix, cover, filmUm: 20, volumeSolids: 0.2 });
        expect(dose.covers).toHaveLength(dose.coats);
        expect(dose.covers.at(-1)).toBeCloseTo(cover, 9);
        expect(dose.gramsPerLitre).toBeLessThanOrEqual(100 + 1e-9);
        // What is still bare shrinks by the same factor with every coat.
        const bare = dose.covers.map((c) => 1 - c);
        bare.slice(1).forEach((b, i) => expect(b / bare[i]!).toBeCloseTo(bare[0]!, 9));
      }),
    );
    // Full over black and over any colour unlike the flake, partial over silver or its own: common practice (no source).
    expect(wantedCover(findGround('black'), 60)).toEqual({ cover: 0.97, full: true, why: 'black' });
    expect(wantedCover(findGround('silver-fine'), 60)).toMatchObject({ full: false, why: 'silver' });
    expect(wantedCover(findGround('copper'), 60)).toMatchObject({ full: true, why: 'unlike' });
    expect(wantedCover(findGround('copper'), 6)).toMatchObject({ full: false, why: 'alike' });
    expect(wantedCover(findGround('white'), 40)).toMatchObject({ full: true, why: 'unlike' });
    // Typed or advised: what would show is warned about.
    expect(groundShows(wantedCover(findGround('black'), 60), 0.7)).toBe(true);
    expect(groundShows(wantedCover(findGround('black'), 60), 0.97)).toBe(false);
    expect(groundShows(wantedCover(findGround('silver-fine'), 60), 0.5)).toBe(false);
  });

  it('goes over the ground of the layers as they are kept, and its dose and clears go into them', () => {
    const layers = startingLayers('metal-flake', findMix('lagoon-pearl'), nextId()).map((l) =>
      l.kind === 'ground' ? { ...l, materialId: 'black' } : l,
    );
    const found = flakeLayerOf(layers, REFERENCE_LIBRARY)!;
    expect(found.ground?.id).toBe('black');
    expect(found.layer.kind).toBe('effect');
    expect(found.above.map((l) => l.kind)).toEqual(['lock', 'clear', 'clear']);
    const dosed = withFlakeDose(layers, found, { coats: 4, filmUm: 20 }, 5);
    expect(dosed.find((l) => l.id === found.layer.id)).toMatchObject({ coats: 4, filmUm: 20 });
    // One lock-down coat and four clears bury it; the clears after sanding stay.
    const clears = dosed.filter((l) => l.kind === 'clear');
    expect(clears.map((l) => l.coats)).toEqual([4, layers.filter((l) => l.kind === 'clear')[1]!.coats]);
    expect(flakeLayerOf(startingLayers('pearl', findMix('lagoon-pearl'), nextId()), REFERENCE_LIBRARY)).toBeNull();
    // What is in the mix says it too, where nothing is locked down.
    const ofMix = (mixId: string) =>
      layersOf(findGround('black'), findMix(mixId), {
        ...{ groundId: 'black', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
      }).filter((l) => l.kind !== 'lock');
    expect(flakeLayerOf(ofMix('saddle-bell-flake'), REFERENCE_LIBRARY)!.layer.materialId).toBe('saddle-bell-flake');
    expect(flakeLayerOf(ofMix('cinder-candy'), REFERENCE_LIBRARY)).toBeNull();
  });

  it.each([0.25, 0.5, 0.75, 0.95])('is strewn on the picture to just %p cover, seeded', (cover) => {
    const picture = (seed: number) => {
      const pixels = new Uint32Array(500 * 400);
      paintFlakes(pixels, 500, 20, { mix, cover, seed }, () => 1);
      return pixels;
    };
    const pixels = picture(7);
    const under = pixels.reduce((s, v) => s + v, 0) / pixels.length;
    // 25 x 20 mm hold some 30 000 places a flake wide; three standard deviations of as many independent ones.
    expect(Math.abs(under - cover)).toBeLessThan(3 * Math.sqrt((cover * (1 - cover)) / 30000));
    expect(picture(7)).toEqual(pixels);
    expect(picture(8)).not.toEqual(pixels);
    // The edges are covered like the middle.
    const edge = pixels.subarray(0, 500 * 4).reduce((s, v) => s + v, 0) / 2000;
    expect(Math.abs(edge - cover)).toBeLessThan(0.12);
  });

  it('is buried with film to spare, more for larger flakes (3 thick, sand, 2 more: common practice, no source)', () => {
    const plan = (sizeUm: number) =>
      clearToBury({ mix: [{ ...mix[0]!, sizeUm }], cover: 0.9, tilt: 7, filmUm: 35, sandUm: 30, keepUm: 40 });
    for (const size of [100, 200, 400, 600]) {
      const p = plan(size);
      expect(p.leftUm).toBeGreaterThanOrEqual(40);
      expect((p.coats - 1) * 35 - 30 - p.riseUm).toBeLessThan(40);
    }
    expect(plan(200).coats).toBeGreaterThanOrEqual(4);
    expect(plan(200).coats).toBeLessThanOrEqual(6);
    expect(plan(600).coats).toBeGreaterThan(plan(100).coats);
  });
});
describe('sealer shades', () => {
  const film = createFilm();
  it('meet every value of the scale from white and black', () => {
    for (const id of ['grey-84', 'grey-74', 'grey-63', 'grey-52', 'grey-41', 'grey-31']) {
      const mix = sealerForShade(film, SEALER_TONES.slice(0, 2), findGround(id).lab);
      expect(mix.off).toBeLessThan(1.5);
      expect(mix.parts).toHaveLength(2);
    }
    // Black tints strongly: a middle grey is mostly white (common practice, no source).
    const mid = sealerForShade(film, SEALER_TONES.slice(0, 2), [63, 0, 0]);
    expect(mid.parts.find((p) => p.name === 'white sealer')!.parts).toBe(100);
    expect(mid.parts.find((p) => p.name === 'black sealer')!.parts).toBeLessThan(30);
  });
  it('find again what two to one of white and red look like, and learn a tint from a trial', () => {
    const wanted = sealerLook(film, SEALER_TONES, [2, 0, 1]);
    const found = sealerForShade(film, SEALER_TONES, wanted);
    expect(found.off).toBeLessThan(0.3);
    expect(found.parts.find((p) => p.name === 'red sealer')!.parts).toBeCloseTo(50, -1);
    const strong = SEALER_TONES.map((t, i) => (i === 1 ? { ...t, scatter: t.scatter * 1.8 } : t));
    const [came] = sealerLook(film, strong, [100, 10, 0]);
    const learned = learnTint(film, SEALER_TONES, 1, [100, 10, 0], came);
    expect(learned[1]!.scatter / SEALER_TONES[1]!.scatter).toBeCloseTo(1.8, 3);
  });
});
describe('a file of products', () => {
  it('comes back as it went', () => {
    const back = parseProductsCsv(productsToCsv(STARTING_PRODUCTS));
    expect(back.ok).toBe(true);
    if (!back.ok) return;
    const meant = STARTING_PRODUCTS.map((p): Record<string, unknown> => ({ ...p }));
    for (const p of meant) delete p['id'];
    expect(back.products.map((p) => p.product)).toEqual(meant);
  });
  it('is refused whole, by line', () => {
    const good = productsToCsv(STARTING_PRODUCTS.slice(0, 1)).split('\r\n');
    const bad = parseProductsCsv([good[0], good[2], good[1]!.replace('1.48', 'heavy')].join('\n'));
    expect(bad).toEqual({
      ok: false,
      problems: [
        { line: 2, message: 'This hardener stands above the first product; put it below its own.' },
        { line: 3, message: 'density g/ml: “heavy” is not a number.' },
      ],
    });
    expect(parseProductsCsv('a,b\n1,2')).toMatchObject({ ok: false });
    expect(parseProductsCsv('')).toMatchObject({ ok: false });
  });
});
