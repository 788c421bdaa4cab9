import type { Job, ToldColours } from '@steady-gleam/contracts';
import { CoreError } from '@steady-gleam/core/errors';
import { startRecipe, type StackLayer } from '@steady-gleam/core/finishes';
import { shownStacks, stacksOfPick, type LayerFilm } from '@steady-gleam/core/jobs';
import { layerColours, looksKey } from '@steady-gleam/core/looks';
import { prepareLibrary, type OwnMaterial, type PreparedLibrary } from '@steady-gleam/core/materials';

/** Stacks whose colours are kept: many jobs are laid alike. */
const MOST_STACKS = 2_000;
/** A hundredth of a unit is far below what a screen shows. */
const rounded = (v: number): number => Math.round(v * 100) / 100;

type Stacked = Pick<Job, 'mixId' | 'family' | 'pick' | 'stacks'>;
type Stack = { readonly layers: readonly StackLayer[] };

/** How the layers of stacks look, worked out once for stacks that look alike, so that a screen need not load what works it out. */
export interface StackColours {
  /** The library with the shop's own materials, made ready once for as long as they stay the same. */
  readonly shopOf: (own: readonly OwnMaterial[]) => PreparedLibrary;
  /** Stacks with a material that is not there any more are left out. */
  readonly of: (shop: PreparedLibrary, stacks: readonly Stack[]) => ToldColours;
  /** Of all stacks of a job as they are planned. */
  readonly ofJob: (job: Stacked) => Promise<ToldColours>;
}

/** The stacks of a job as they are planned, or as its family begins. @throws CoreError where ground or mix are not in the library */
function plannedStacks({ library }: PreparedLibrary, job: Stacked): readonly (Stack & { readonly id: string })[] {
  return job.stacks ?? stacksOfPick(job.mixId, job.pick ?? startRecipe(job.family), library);
}

/** The stack a list shows of a job; none where a material of it is gone. */
export function shownOf(shop: PreparedLibrary, job: Stacked, film: readonly LayerFilm[] | null): readonly Stack[] {
  return orNone(() => shownStacks(film, film ? [] : plannedStacks(shop, job)).slice(0, 1));
}

/** What is gone from the library costs a job its colours, and no more. */
function orNone<T>(work: () => readonly T[]): readonly T[] {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return [];
  }
}

export function createStackColours(ownNow: () => Promise<readonly OwnMaterial[]>): StackColours {
  let made: { readonly key: string; readonly shop: PreparedLibrary } | null = null;
  let of: PreparedLibrary | null = null;
  const kept = new Map<string, ToldColours[number]>();
  const shopOf = (own: readonly OwnMaterial[]): PreparedLibrary => {
    const key = JSON.stringify(own);
    if (made?.key !== key) made = { key, shop: prepareLibrary(own) };
    return made.shop;
  };
  const told = (shop: PreparedLibrary, { layers }: Stack): ToldColours[number] => {
    const key = looksKey(layers);
    const known = kept.get(key);
    if (known) return known;
    const labs = layerColours(shop, layers).map(([l, a, b]): [number, number, number] => [
      rounded(l),
      rounded(a),
      rounded(b),
    ]);
    kept.set(key, { of: key, labs });
    return kept.get(key)!;
  };
  const all: StackColours['of'] = (shop, stacks) => {
    if (of !== shop || kept.size >= MOST_STACKS) kept.clear();
    of = shop;
    return stacks.flatMap((stack) => orNone(() => [told(shop, stack)]));
  };
  return {
    shopOf,
    of: all,
    ofJob: async (job) => {
      const shop = shopOf(await ownNow());
      return all(
        shop,
        orNone(() => plannedStacks(shop, job)),
      );
    },
  };
}
