import { FAMILIES, type FinishFamily } from './families';
import { STYLES, type CoatStyle, type StyleId } from './styles';

/** What a mix is laid over and how: ground, mix strength, style and count of coats, control coats on top (0 for none). */
export interface Recipe {
  readonly groundId: string;
  readonly strength: number;
  readonly style: StyleId;
  readonly coats: number;
  readonly controlCoats: number;
}

type Counted = Pick<Recipe, 'coats' | 'controlCoats'>;

/** Whether control coats are among what is counted. */
export const countsControl = (family: FinishFamily): boolean => FAMILIES[family].controlAfter !== null;

/** Coats of a recipe as they are counted on the map, the card and the job. */
export const countOf = (family: FinishFamily, recipe: Counted): number =>
  countsControl(family) ? recipe.coats + recipe.controlCoats : recipe.coats;

/** The recipe with so many coats, counted as its family counts. */
export function withCount<R extends Counted>(family: FinishFamily, recipe: R, count: number): R {
  const after = FAMILIES[family].controlAfter;
  return after === null
    ? { ...recipe, coats: count }
    : { ...recipe, coats: Math.min(count, after), controlCoats: Math.max(0, count - after) };
}

/** In which style counted coats go on from some count upward; null where all are alike. */
export function thenLaid(family: FinishFamily): { readonly after: number; readonly style: CoatStyle } | null {
  const after = FAMILIES[family].controlAfter;
  return after === null ? null : { after, style: STYLES.control };
}

/** What stands in before anything was picked. */
export function startRecipe(family: FinishFamily): Recipe {
  const { coats, ...start } = FAMILIES[family].start;
  return withCount(family, { ...start, coats, strength: 1, controlCoats: 0 }, coats);
}
