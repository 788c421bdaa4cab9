import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { layerLooks, opticalStack } from '../looks/layerLooks';
import { de2000 } from '../colour/difference';
import { labToXyz } from '../colour/lab';
import { xyzToLinearSrgb } from '../colour/screen';
import { D65_10, whitePoint } from '../colour/tristimulus';
import { layersOf, materialsOf, recipeOf, stackFilmUm, startingLayers, STARTING_STACKS, withRecipe } from './layers';
import type { Recipe } from './recipe';
import { findGround, GROUNDS } from '../materials/grounds';
import { findMix, MIXES } from '../materials/mixes';
import { factorsToLabs, ladderLabs } from '../matching/ladder';
import { STYLES, type StyleId } from './styles';
import { FIVE_ANGLES } from '../optics/geometry';
import {
  aspecularOf,
  evenTable,
  EVEN,
  sampleGeometries,
  sampleTable,
  SAMPLE_TILTS,
  targetTable,
  tiltOf,
} from '../optics/sampleTable';
import { prepareLibrary } from '../materials/shop';

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const recipe = fc.record({
  groundId: fc.constantFrom(...GROUNDS.map((g) => g.id)),
  coats: fc.integer({ min: 1, max: 12 }).map((n) => n / 2),
  strength: fc.integer({ min: 10, max: 40 }).map((n) => n / 20),
  style: fc.constantFrom<StyleId>('wet', 'medium', 'light'),
  controlCoats: fc.integer({ min: 0, max: 3 }),
});
const numbered = () => {
  let n = 0;
  return () => `l${++n}`;
};

describe('layers of a piece', () => {
  it('says back the recipe it was made of, and takes another in its place', () => {
    fc.assert(
      fc.property(fc.constantFrom(...MIXES), recipe, recipe, (system, first, second) => {
        const ground = (r: Recipe) => findGround(r.groundId);
        const layers = layersOf(ground(first), system, first);
        expect(recipeOf(layers, system.id)).toEqual(first);
        const changed = withRecipe(layers, system.id, second);
        expect(recipeOf(changed, system.id)).toEqual(second);
        expect(new Set(changed.map((l) => l.id)).size).toBe(changed.length);
        expect(changed.filter((l) => l.kind === 'clear' || l.kind === 'sealer')).toEqual(
          layers.filter((l) => l.kind === 'clear' || l.kind === 'sealer'),
        );
      }),
    );
  });

  it('looks like the ladder: what lies under the last ground is hidden, clear changes nothing', () => {
    const system = findMix('cinder-candy');
    const layers = startingLayers('candy', system, numbered());
    const looks = layerLooks(shop, model, layers);
    const alone = ladderLabs(
      model,
      shop.ground(findGround('silver-fine')),
      { coat: shop.coat(system, 1), style: STYLES.light },
      [4],
    )[0]!;
    looks.at(-1)!.forEach((lab, g) => expect(de2000(lab, alone[g]!)).toBeLessThan(1e-6));
    const under = [...startingLayers('weak-hiding', system, numbered()), ...layers];
    layerLooks(shop, model, under)
      .at(-1)!
      .forEach((lab, g) => expect(de2000(lab, alone[g]!)).toBeLessThan(1e-6));
  });

  it('starts every family with layers that can be sprayed', () => {
    for (const { id } of STARTING_STACKS) {
      const layers = startingLayers(id, findMix('lagoon-pearl'), numbered());
      expect(layers.at(-1)!.kind).toBe('clear');
      expect(stackFilmUm(layers)).toBeGreaterThan(60);
      for (const m of materialsOf([{ id: 's', name: 's', layers }])) {
        if (m.kind === 'ground') expect(() => findGround(m.id)).not.toThrow();
      }
      expect(recipeOf(layers, 'lagoon-pearl') === null).toBe(id === 'bare');
    }
  });
});

describe('table of the curved sample', () => {
  const { film } = shop;
  it('goes from tilt to angle and back', () => {
    for (const incidence of [0, 15, 45, 60]) {
      for (const tilt of SAMPLE_TILTS.filter((t) => t < 15)) {
        expect(tiltOf(film, { incidence, aspecular: aspecularOf(film, incidence, tilt) })).toBeCloseTo(tilt, 9);
      }
    }
  });

  it('holds the model at its nodes, and a target made of the prediction itself is the prediction', () => {
    const { ground, coats } = opticalStack(shop, startingLayers('pearl', findMix('lagoon-pearl'), numbered()));
    const table = sampleTable(shop.model(sampleGeometries(film)), ground, coats);
    const aspecular = aspecularOf(film, 45, SAMPLE_TILTS[5]!);
    const lab = factorsToLabs(shop.model([{ incidence: 45, aspecular }]).evaluate(ground, coats))[0]!;
    const at = (3 * SAMPLE_TILTS.length + 5) * 3;
    labToXyz(lab, whitePoint(D65_10)).forEach((v, k) => expect(table[at + k]!).toBeCloseTo(v, 6));
    const labs = factorsToLabs(model.over(ground, model.pile(coats)));
    const same = targetTable(
      film,
      table,
      FIVE_ANGLES.map((g, i) => ({ ...g, lab: labs[i]! })),
      labs,
    );
    same.forEach((v, i) => expect(Math.abs(v - table[i]!)).toBeLessThan(1e-6 + 1e-6 * table[i]!));
    const even = evenTable(table);
    expect(even).toHaveLength(EVEN.tilts * EVEN.incidences * 3);
    // The corner of the even grid is the table's own corner.
    xyzToLinearSrgb([table[0]!, table[1]!, table[2]!]).forEach((v, k) =>
      expect(even[k]).toBeCloseTo(Math.max(0, v), 4),
    );
  });

  it('look the same on the map, in the layers and on the card, with any number of control coats', () => {
    const shop = prepareLibrary();
    const model = shop.model(FIVE_ANGLES);
    for (const controlCoats of [0, 1, 2, 3]) {
      const recipe = { groundId: 'aqua-pastel', coats: 2, strength: 1, style: 'wet', controlCoats } as const;
      const system = findMix('lagoon-pearl');
      const layers = layersOf(findGround('aqua-pastel'), system, recipe);
      const stacked = layerLooks(shop, model, layers).at(-1)!;
      const ladder = ladderLabs(
        model,
        shop.ground(findGround('aqua-pastel')),
        { coat: shop.coat(system, 1), style: STYLES.wet, controlCoats },
        [2],
      )[0]!;
      stacked.forEach((lab, g) => expect(de2000(lab, ladder[g]!)).toBeLessThan(0.01));
      expect(recipeOf(layers, system.id)).toEqual(recipe);
      // Split over two layers they are still counted.
      const split = layers.flatMap((l) =>
        l.style === 'control'
          ? [
              { ...l, coats: l.coats - 0.5 },
              { ...l, id: 'c2', coats: 0.5 },
            ]
          : [l],
      );
      expect(recipeOf(split, system.id)?.controlCoats).toBe(controlCoats);
    }
  });
});

describe('the names of grounds', () => {
  it('are words, never a letter with a number or the word of a scheme', () => {
    for (const g of GROUNDS) {
      for (const text of [g.id, g.name, g.mark]) {
        expect(text).not.toMatch(/\b[A-Za-z]\d/);
        expect(text).not.toMatch(/value/i);
      }
      // A grey step is named in words, everywhere the same; its lightness is in its id.
      if (/^grey-/.test(g.id)) {
        expect(g.id).toBe(`grey-${g.lab[0]}`);
        expect(g.words).toMatch(/^an? .*grey$/);
        expect([`a ${g.mark}`, `a ${g.name.toLowerCase()}`]).toEqual([g.words, g.words]);
      }
    }
  });
});
