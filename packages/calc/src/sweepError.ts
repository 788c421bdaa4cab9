import { de2000 } from '@steady-gleam/core/colour';
import { computeMapRows, LEAST_STRENGTH, MOST_STRENGTH, sweepStrengths, sweptRows } from '@steady-gleam/core/matching';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';
import { FIVE_ANGLES, strengthenCoat } from '@steady-gleam/core/optics';
import { randomStacks } from './randomStacks';

/** How far a sweep of strengths is off the whole sum: random films at a random strength each, the worst of five angles, CIEDE2000. */
export function sweepErrors(seed: number, count: number): number[] {
  const shop = prepareLibrary();
  const model = shop.model(FIVE_ANGLES);
  const random = createRandom(seed + 1);
  const target = FIVE_ANGLES.map((g) => ({ ...g, lab: [50, 0, 0] as const, tolerance: 1 }));
  return randomStacks(seed, count, shop).map(({ ground, coats }) => {
    const top = coats.at(-1)!;
    const grounds = [{ id: 'it', albedo: ground.albedo, coats: coats.slice(0, -1) }];
    const recipeAt = (strength: number) => ({ coat: strengthenCoat(top, strength) });
    const strength = LEAST_STRENGTH * (MOST_STRENGTH / LEAST_STRENGTH) ** random();
    const walk = sweepStrengths(model, grounds, recipeAt, [1]);
    let step = walk.next();
    while (!step.done) step = walk.next();
    const swept = sweptRows(step.value, strength, target)[0]!.cells[0]!.labs;
    const whole = computeMapRows(model, grounds, recipeAt(strength), [1], target)[0]!.cells[0]!.labs;
    return Math.max(...whole.map((lab, g) => de2000(lab, swept[g]!)));
  });
}
