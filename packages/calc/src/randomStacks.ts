import { STYLES } from '@steady-gleam/core/finishes';
import { mixCoat, prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';
import { prepareCoat, type Ground, type PreparedCoat } from '@steady-gleam/core/optics';

export interface RandomStack {
  readonly ground: Ground;
  readonly coats: readonly PreparedCoat[];
}

/**
 * Effect films of the library by chance, over any of its grounds: up to three kinds of flakes and three dyes (one in seven dyed
 * alone), in one of seven a base colour too, half a coat to six and a half, in any style.
 */
export function randomStacks(seed: number, count: number, shop = prepareLibrary()): RandomStack[] {
  const { film, library } = shop;
  const random = createRandom(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const some = <T>(n: number, make: () => T): T[] => Array.from({ length: n }, make);
  const grounds = shop.grounds();
  return some(count, () => {
    const ground = pick(grounds);
    const isDyed = random() < 1 / 7;
    const made = mixCoat(
      {
        flakes: some(isDyed ? 0 : 1 + Math.floor(random() * 3), () => ({
          pigmentId: pick(library.pigments).id,
          cover: 0.02 + 0.5 * random(),
        })),
        dyes: some(isDyed ? 1 + Math.floor(random() * 3) : Math.floor(random() * 4), () => ({
          dyeId: pick(library.dyes).id,
          depth: 0.02 + 0.9 * random(),
        })),
        solids: some(random() < 1 / 7 ? 1 : 0, () => ({
          solidId: pick(library.solids).id,
          share: 0.02 + 0.25 * random(),
        })),
        filmUm: 9,
      },
      library,
    );
    const coat = prepareCoat(film, made);
    const style = pick(Object.values(STYLES));
    const laid = {
      ...coat,
      factor: (0.5 + 6 * random()) * style.film,
      flakes: coat.flakes.map((f) => ({ ...f, tilt: f.tilt * style.spread })),
    };
    return { ground, coats: [...ground.coats, laid] };
  });
}
