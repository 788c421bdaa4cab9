import { describe, expect, it } from '@jest/globals';
import type { Job } from '@steady-gleam/contracts';
import { layersOf, startRecipe } from '@steady-gleam/core/finishes';
import { layerColours, looksKey } from '@steady-gleam/core/looks';
import { findGround, findMix, type OwnGround, type OwnMaterial } from '@steady-gleam/core/materials';
import { createStackColours, shownOf } from './stackColours';

const job: Pick<Job, 'mixId' | 'family' | 'pick' | 'stacks'> = {
  ...{ mixId: 'lagoon-pearl', family: 'pearl', pick: null, stacks: null },
};
const layersAt = (groundId: string) => [
  ...layersOf(findGround(groundId), findMix('lagoon-pearl'), { ...startRecipe('pearl'), groundId }),
];
const colours = createStackColours(async () => []);
const shop = colours.shopOf([]);

describe('how the layers of stacks look', () => {
  it('is told to a hundredth, of what a family begins with where nothing is picked', () => {
    const [told] = colours.of(shop, shownOf(shop, job, null));
    const layers = layersAt(startRecipe('pearl').groundId);
    const wanted = layerColours(shop, layers);
    expect(told!.of).toBe(looksKey(layers));
    expect(told!.labs).toHaveLength(wanted.length);
    told!.labs.forEach((lab, i) =>
      lab.forEach((v, k) => expect(Math.abs(v - wanted[i]![k]!)).toBeLessThanOrEqual(0.005)),
    );
  });
  it('is of every stack of a job, and in a list of the first, as it is laid where something is', async () => {
    const stacks = ['black', 'white'].map((id) => ({ id, name: id, layers: layersAt(id), finishId: null }));
    const ground = layersAt('black').findIndex((l) => l.kind === 'ground');
    const [black, white] = await colours.ofJob({ ...job, stacks });
    expect(black!.labs[ground]![0]).toBeLessThan(30);
    expect(white!.labs[ground]![0]).toBeGreaterThan(80);
    expect(shownOf(shop, { ...job, stacks }, null)).toEqual([stacks[0]]);
    const film = layersAt('white').map((layer) => ({ finishId: 'f', layer, onUm: 0, plannedUm: 10 }));
    expect(colours.of(shop, shownOf(shop, { ...job, stacks }, film))).toEqual([white]);
  });
  it('leaves out what is gone from the library, and is another where a material of the shop changed', async () => {
    const red: OwnGround = {
      ...{ id: 'own-red', kind: 'ground', name: 'Own red', mark: 'red', lab: [45, 60, 40], hidesIn: 3, solids: [] },
      ...{ pigmentId: null, cover: 0, tintId: null, tintDepth: 0, pricePerLitre: 40 },
    };
    let own: readonly OwnMaterial[] = [red];
    const ofShop = createStackColours(async () => own);
    const layers = layersAt('white').map((l) => (l.kind === 'ground' ? { ...l, materialId: 'own-red' } : l));
    const stacks = [{ id: 'a', name: 'a', layers, finishId: null }];
    const at = layers.findIndex((l) => l.kind === 'ground');
    const first = await ofShop.ofJob({ ...job, stacks });
    expect(first[0]!.labs[at]![1]).toBeGreaterThan(40);
    expect((await ofShop.ofJob({ ...job, stacks }))[0]).toBe(first[0]);
    own = [{ ...red, lab: [45, -50, 40] }];
    expect((await ofShop.ofJob({ ...job, stacks }))[0]!.labs[at]![1]).toBeLessThan(-30);
    own = [];
    expect(await ofShop.ofJob({ ...job, stacks })).toEqual([]);
    expect(await ofShop.ofJob({ ...job, mixId: 'gone' })).toEqual([]);
  });
});
