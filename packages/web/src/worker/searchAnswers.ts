import { STYLES, thenLaid } from '@steady-gleam/core/finishes';
import { formulate, paretoPourables, pourables, type FormulateInput } from '@steady-gleam/core/formulate';
import { createSearch, paretoRecipes, rateExactly, type RatedRecipe } from '@steady-gleam/core/matching';
import { findMix, type PreparedLibrary } from '@steady-gleam/core/materials';
import type { Compute } from './computeTypes';
import { letOthersIn } from './letOthersIn';

/** So many mixes are made ready to be poured. */
const MOST_FOUND = 8;

/** What is looked for long enough to be stopped. */
export function searchAnswers(library: () => PreparedLibrary): Pick<Compute, 'search' | 'formulate' | 'stopSearch'> {
  const stopped = new Set<number>();
  return {
    search: async (mix, target, groundIds, ticket, onGround) => {
      const shop = library();
      const wanted = new Set(groundIds);
      const grounds = shop.grounds().filter((g) => wanted.has(g.id));
      const system = findMix(mix.mixId, shop.library.systems);
      const input = {
        model: shop.model(target),
        grounds,
        coat: shop.coat(system, 1),
        style: STYLES[mix.style],
        then: thenLaid(system.family),
        target,
      };
      const overGround = createSearch(input);
      const found: RatedRecipe[] = [];
      for (const [i, ground] of grounds.entries()) {
        found.push(...overGround(ground));
        onGround(i + 1);
        await letOthersIn();
        if (stopped.delete(ticket)) return null;
      }
      return paretoRecipes(found, Infinity).map((r) =>
        rateExactly(
          input,
          grounds.find((g) => g.id === r.groundId)!,
          r,
        ),
      );
    },
    formulate: async ({ target, style, filmUm, mostPigments, mostDyes, counts }, ticket, onStep) => {
      const shop = library();
      const { pigments, dyes } = shop.library;
      const input: FormulateInput = {
        ...{ film: shop.film, model: shop.model(target), target, style: STYLES[style] },
        ...{ filmUm, mostPigments, mostDyes, counts },
        // Flakes that are seen one by one are doses, not tints.
        shelf: { grounds: shop.grounds(), pigments: pigments.filter((p) => p.kind !== 'foil'), dyes },
      };
      const walk = formulate(input);
      for (;;) {
        const step = walk.next();
        if (step.done) {
          const near = step.value.slice(0, MOST_FOUND);
          return { mixes: paretoPourables(near.flatMap((m) => pourables(input, m))), nearest: near[0] ?? null };
        }
        onStep(step.value);
        await letOthersIn();
        if (stopped.delete(ticket)) return null;
      }
    },
    stopSearch: (ticket) => void stopped.add(ticket),
  };
}
