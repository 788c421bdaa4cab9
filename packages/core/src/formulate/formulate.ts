import { createRefiner, NEAR_ENOUGH, REPEATS, type Refined } from './refine';
import { createScreen, type Candidate } from './screen';
import type { FormulateInput, Rated } from './shelf';

/** Candidates that are worked out with the full model. */
const TRIED = 110;
/** How many of them are brought nearer after that, and in how many rounds; the last ones further. */
const [FURTHER, FURTHER_ROUNDS] = [16, 5] as const;
const NARROWED = [
  [50, 1],
  [FURTHER, FURTHER_ROUNDS],
] as const;
/** The nearest of all, against the reference tier, until one is as near as anyone sees. */
const TO_THE_END = 5;
/** Where the nearest is further off than this, one part of the nearest few is exchanged for every other of its sort. */
const [FAR, EXCHANGED] = [0.5, 3] as const;
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
    found = [...found, ...screen(ground, found[TRIED]?.off)]
      .sort((a, b) => a.off - b.off)
      .filter((c) => {
        const key = keyOf(c);
        return known.has(key) ? false : (known.add(key), true);
      })
      .slice(0, TRIED + 1);
    const now = found[0] && refiner.nearer(refiner.begin(found[0], NOMINAL), 1);
    if (now && (!best || now.off < best.off)) best = now;
    yield { done: (0.6 * (i + 1)) / shelf.grounds.length, best: best && rate(best) };
  }
  const least = (a: Refined, b: Refined) => a.off - b.off;
  let tried: Refined[] = [];
  for (const [i, c] of found.slice(0, TRIED).entries()) {
    tried.push(refiner.nearer(refiner.begin(c, NOMINAL), 1));
    if (i % 16 === 15) {
      tried.sort(least);
      yield { done: 0.6 + 0.2 * ((i + 1) / TRIED), best: tried[0] ? rate(tried[0]) : null };
    }
  }
  for (const [most, rounds] of NARROWED)
    tried = tried
      .sort(least)
      .slice(0, most)
      .map((at) => refiner.nearer(at, rounds));
  tried.sort(least);
  if (tried[0] && tried[0].off > FAR) {
    yield { done: 0.82, best: rate(tried[0]) };
    const others = tried
      .slice(0, EXCHANGED)
      .flatMap((at) => exchanges(shelf, at))
      .map((c) => refiner.nearer(refiner.begin(c, NOMINAL), 2))
      .sort(least);
    tried = distinct(
      [...tried, ...others.slice(0, FURTHER).map((at) => refiner.nearer(at, FURTHER_ROUNDS))].sort(least),
    );
  }
  yield { done: 0.9, best: tried[0] ? rate(tried[0]) : null };
  const ended: Rated[] = [];
  for (const at of tried.slice(0, TO_THE_END)) {
    ended.push(rate(refiner.trueUp(at)));
    if (ended.at(-1)!.maxDe < NEAR_ENOUGH) break;
  }
  const all = [...ended, ...tried.slice(ended.length).map(rate)];
  // Near ones by their worst angle; where none is near, a reading's scatter decides at which angle that is.
  const by = all.some((m) => m.rmsDe < REPEATS) ? 'maxDe' : 'rmsDe';
  return all.sort((a, b) => a[by] - b[by]);
}

/** A mix with another ground, and with each of its dyes exchanged for every other; the amounts stay as a start. */
function exchanges(shelf: FormulateInput['shelf'], { from, amounts }: Refined): Candidate[] {
  const pigments = from.pigments.map(([place], i) => [place, amounts[i]!] as const);
  const dyes = from.dyes.map(([place], j) => [place, amounts[pigments.length + j]!] as const);
  const known = new Set(dyes.map(([place]) => place));
  return [
    ...shelf.grounds.filter((ground) => ground !== from.ground).map((ground) => ({ ...from, ground, pigments, dyes })),
    ...dyes.flatMap((_, j) =>
      shelf.dyes.flatMap((__, other) =>
        known.has(other)
          ? []
          : [{ ...from, pigments, dyes: dyes.map((d, k) => (k === j ? ([other, d[1]] as const) : d)) }],
      ),
    ),
  ];
}

/** The first of those with the same ground and parts. */
function distinct(of: readonly Refined[]): Refined[] {
  const known = new Set<string>();
  return of.filter(({ from }) => {
    const key = keyOf(from);
    return known.has(key) ? false : (known.add(key), true);
  });
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
