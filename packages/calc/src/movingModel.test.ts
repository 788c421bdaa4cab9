import { describe, expect, it } from '@jest/globals';
import { de2000 } from '@steady-gleam/core/colour';
import {
  computeMapRows,
  computeMovingRows,
  factorsToLabs,
  mapCounts,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { STYLES } from '@steady-gleam/core/finishes';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { FIVE_ANGLES, overLambertian } from '@steady-gleam/core/optics';
import { randomStacks } from './randomStacks';

const shop = prepareLibrary();
const model = shop.model(FIVE_ANGLES);
const quantile = (of: number[], q: number) =>
  [...of].sort((a, b) => a - b)[Math.min(of.length - 1, Math.floor(q * of.length))]!;
const farthest = (a: Float64Array, b: Float64Array) => {
  const [left, right] = [factorsToLabs(a), factorsToLabs(b)];
  return Math.max(...left.map((lab, g) => de2000(lab, right[g]!)));
};

describe('what answers while something moves, against the full sum', () => {
  // The table was fitted to films of seed 12; these are others.
  it('is nowhere 0.15 dE00 off on 1,000 random stacks', () => {
    const moving = shop.movingModel(FIVE_ANGLES);
    const off = randomStacks(20261128, 1000, shop).map(({ ground, coats }) =>
      farthest(moving.fill(moving.few.evaluate(ground, coats)), model.evaluate(ground, coats)),
    );
    expect(quantile(off, 1)).toBeLessThan(0.15);
    expect(quantile(off, 0.5)).toBeLessThan(0.04);
  });

  it('knows a pile over every Lambertian ground from three', () => {
    const grounds = shop.grounds().filter((g) => !g.coats.length);
    const off = randomStacks(5, 60, shop).flatMap(({ coats }) => {
      const pile = model.pile(coats.slice(-1));
      const curve = overLambertian(model, pile);
      return [...grounds, { albedo: new Float64Array(31).fill(0.97) }].map((ground) =>
        farthest(curve(ground.albedo), model.over(ground, pile)),
      );
    });
    expect(quantile(off, 1)).toBeLessThan(0.03);
  });

  it('is the same over a black and a white ground alone as worked out over them', () => {
    const pile = model.pile([]);
    const curve = overLambertian(model, pile);
    for (const albedo of [0, 0.3, 1]) {
      const ground = { albedo: new Float64Array(31).fill(albedo) };
      const out = curve(ground.albedo);
      const asked = model.over(ground, pile);
      asked.forEach((v, i) => expect(out[i]).toBeCloseTo(v, 9));
    }
  });

  it('draws the map of every library mix within 0.15 dE00 of the whole one, at any strength', () => {
    const target: TargetAngle[] = FIVE_ANGLES.map((g) => ({ ...g, lab: [50, 0, 0], tolerance: 1 }));
    const off = shop.library.systems.flatMap((mix) =>
      [0.7, 1.6].flatMap((strength) => {
        const of = [
          shop.grounds(),
          { coat: shop.coat(mix, strength), style: STYLES.wet },
          mapCounts(),
          target,
        ] as const;
        const moving = computeMovingRows(shop.movingModel(FIVE_ANGLES), ...of);
        return computeMapRows(model, ...of).flatMap((row, r) =>
          row.cells.map((cell, c) =>
            Math.max(...cell.labs.map((lab, g) => de2000(lab, moving[r]!.cells[c]!.labs[g]!))),
          ),
        );
      }),
    );
    expect(quantile(off, 1)).toBeLessThan(0.15);
    expect(quantile(off, 0.5)).toBeLessThan(0.03);
  });
});
