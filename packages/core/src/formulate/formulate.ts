import { createRefiner, type Refined } from './refine';
import { createScreen, type Candidate } from './screen';
import type { FormulateInput, Rated } from './shelf';

/** Candidates that are worked out with the full model once, further, and to the end. */
const [TRIED, FURTHER, TO_THE_END] = [44, 12, 4] as const;
/** Coats that are counted on while it is looked for; the count follows. */
const NOMINAL = 3;

/** How far a search is, and the best so far; null before anything was found. */
export interface FormulateStep {
  readonly done: number;
  readonly best: Rated | null;
}

const keyOf = ({ ground, pigments, dyes }: Candidate): string =>
  JSON.stringify([ground.id, pigments.map(([p]) => p).sort(), dyes.map(([d]) => d).sort()]);

/**
 * Mixes of what stands on a shelf that come nearest to a target, nearest first. It is a walk: between its steps it can be left,
 * and each says how far it is and what is best so far.
 * @returns at its end the mixes, each with other parts than those before it
 */
export function* formulate(input: FormulateInput): Generator<FormulateStep, Rated[], void> {
  const { shelf } = input;
  const screen = createScreen(input);
  const refiner = createRefiner(input);
  const rate = (at: Refined): Rated => rated(input, refiner, at);
  let found: Candidate[] = [];
  let best: Refined | null = null;
  for (const [i, ground] of shelf.grounds.entries()) {
    const known = new Set<string>();
    found = [...found, ...screen(ground)]
      .sort((a, b) => a.off - b.off)
      .filter((c) => {
        const key = keyOf(c);
        return known.has(key) ? false : (known.add(key), true);
      })
      .slice(0, 3 * TRIED);
    const now = found[0] && refiner.nearer(refiner.begin(found[0], NOMINAL), 1);
    if (now && (!best || now.off < best.off)) best = now;
    yield { done: (0.6 * (i + 1)) / shelf.grounds.length, best: best && rate(best) };
  }
  const least = (a: Refined, b: Refined) => a.off - b.off;
  let tried: Refined[] = [];
  for (const [i, c] of found.slice(0, TRIED).entries()) {
    tried.push(refiner.nearer(refiner.begin(c, NOMINAL), 2));
    if (i % 8 === 7) {
      tried.sort(least);
      yield { done: 0.6 + 0.2 * ((i + 1) / TRIED), best: tried[0] ? rate(tried[0]) : null };
    }
  }
  tried = tried
    .sort(least)
    .slice(0, FURTHER)
    .map((at) => refiner.nearer(at, 5));
  tried.sort(least);
  yield { done: 0.9, best: tried[0] ? rate(tried[0]) : null };
  const ended = tried.slice(0, TO_THE_END).map((at) => refiner.trueUp(at));
  return [...ended, ...tried.slice(TO_THE_END)].map(rate).sort((a, b) => a.maxDe - b.maxDe);
}

/** A refined candidate as a mix, by the amounts of a nominal full coat. */
export function rated({ shelf, style }: FormulateInput, refiner: ReturnType<typeof createRefiner>, at: Refined): Rated {
  const { from, amounts, coats, labs } = at;
  const film = coats * style.film;
  return {
    groundId: from.ground.id,
    pigments: from.pigments.flatMap(([place], i) =>
      amounts[i]! > 1e-4 ? [{ pigmentId: shelf.pigments[place]!.id, tau: amounts[i]! / film }] : [],
    ),
    dyes: from.dyes.flatMap(([place], j) => {
      const depth = amounts[from.pigments.length + j]! / film;
      return depth > 1e-4 ? [{ dyeId: shelf.dyes[place]!.id, depth }] : [];
    }),
    ...{ coats, labs },
    ...scoreOf(refiner.scored(labs)),
  };
}

/** A search to its end. */
export function formulateAll(input: FormulateInput): Rated[] {
  const walk = formulate(input);
  for (;;) {
    const step = walk.next();
    if (step.done) return step.value;
  }
}

const scoreOf = ({ rmsDe, maxDe, toleranceRatio }: ReturnType<ReturnType<typeof createRefiner>['scored']>) => ({
  ...{ rmsDe, maxDe, toleranceRatio },
});
