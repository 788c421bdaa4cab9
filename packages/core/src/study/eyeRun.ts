import { de2000 } from '../colour/difference';
import { type Lab } from '../colour/lab';
import { type EyeView, EYE_VIEWS, type RungVerdict, VERDICTS } from '../letdown/eyeWords';
import { type LadderOf } from '../letdown/ladderTable';
import { answerCard } from '../letdown/answer';
import { type SpotLook, wordOfVerdicts, liveAdvice, liveState } from '../letdown/live';
import { adviseFirst } from '../letdown/advise';
import { brighterFrom } from '../letdown/eyeSight';
import { type RungReading } from '../letdown/readings';
import { sayEyeLook } from '../letdown/live';
import { normal } from '../numeric/random';
import { type PainterFigures, type JobEnd, SCATTER, bestOf, LAST } from './painterFigures';
import type { World } from './world';

/** How an eye of the study tells differences; its cuts are its own. */
const EYE = { cuts: 0.2, shared: 0.5, place: 0.6 } as const;
const ANGLES_SEEN: Readonly<Record<EyeView, readonly number[]>> = {
  'sun face': [0, 1],
  'sun flop': [3, 4],
  shade: [2],
  lamp: [1, 2],
  'low light': [2, 3],
  'shop light': [1, 2],
};
/** An eye of the study: what it says of a film at a count, from some places. */
export function createEye(
  world: World,
  random: () => number,
  views: readonly EyeView[] = EYE_VIEWS.slice(0, 3),
): (coats: number, film: number) => RungVerdict[] {
  const draw = (sd: number) => sd * normal(random);
  const own = Math.exp(draw(EYE.cuts));
  return (coats, film) => {
    const shared = draw(EYE.shared);
    const labs = world.ladder(film);
    return views.map((view) => {
      const at = ANGLES_SEEN[view];
      const de = at.reduce((s, g) => s + de2000(world.wanted[g]!, labs[g]!), 0) / at.length;
      const lighter = at.reduce((s, g) => s + labs[g]![0] - world.wanted[g]![0], 0) > 0;
      const z = (lighter ? -de : de) + shared + draw(EYE.place);
      const k = z < -3 * own ? 0 : z < -own ? 1 : z <= own ? 2 : z <= 3 * own ? 3 : 4;
      return { coats, view, verdict: VERDICTS[k]! };
    });
  };
}

/** A painter without an instrument: the card by eye, then jobs by eye. */
export function studyEye(
  of: LadderOf,
  world: World,
  cardFilm: (n: number) => number,
  truth: number,
  hand: number,
  coatsOf: () => number[],
  window: readonly [number, number] | null,
  jobs: number,
  random: () => number,
): PainterFigures['eye'] {
  const draw = (sd: number) => sd * normal(random);
  const judge = createEye(world, random);
  const verdicts = [1, 2, 3, 4].flatMap((n) => judge(n, cardFilm(n)));
  const answer = answerCard(of, {
    ...{ target: null, bare: null, rungs: [], verdicts, handHeld: false, believed: {} },
  })!;
  const { card, read } = answer;
  const ends: JobEnd[] = [];
  for (let j = 0; window && j < jobs; j++) {
    const session = hand * Math.exp(draw(SCATTER.session));
    const coats = coatsOf();
    let [film, on, laid] = [0, 0, 0];
    const looks: SpotLook[] = [];
    let q = adviseFirst(card).spray;
    for (let look = 0; look < 4 && q > 0; look++) {
      film += session * q * (coats[laid++] ?? 1);
      on += q;
      const seen = judge(on, film);
      const word = wordOfVerdicts(
        seen.map((v) => v.verdict),
        seen.map((v) => (brighterFrom(read, v.view, card.best) ? 'lighter' : 'darker')),
      );
      looks.push({ spot: 'all over', says: sayEyeLook(card, read, seen, on, word), word });
      q = liveAdvice(liveState(card, on, looks)).amount;
    }
    ends.push(film > window[1] ? 'over' : film < window[0] ? 'short' : 'in');
  }
  return {
    error: card.best - truth,
    holds: truth >= answer.eye!.interval[0] && truth <= answer.eye!.interval[1],
    ends,
  };
}

export const nearest = (rungs: readonly RungReading[], wanted: readonly Lab[]): number =>
  rungs.reduce(
    (best, r) => {
      const miss = r.labs.reduce((s, lab, g) => s + de2000(wanted[g]!, lab!) ** 2, 0);
      return miss < best.miss ? { miss, coats: r.coats } : best;
    },
    { miss: Infinity, coats: 0 },
  ).coats;
/** Films of a world where every angle passes what is wanted of it; null where none does. */
export function trueWindow(
  world: Pick<World, 'ladder' | 'wanted'>,
  target: { readonly angles: readonly { readonly tolerance: number }[] },
): readonly [number, number] | null {
  const ratioAt = (film: number) =>
    world
      .ladder(film)
      .reduce((m, lab, g) => Math.max(m, de2000(world.wanted[g]!, lab) / target.angles[g]!.tolerance), 0);
  return windowOf(ratioAt, bestOf(world.ladder, world.wanted));
}

/** Films about the best where every angle passes; null where the best one does not. */
function windowOf(ratio: (film: number) => number, best: number): readonly [number, number] | null {
  if (ratio(best) > 1) return null;
  const end = (step: number): number => {
    let film = best;
    while (film + step > 0 && film + step < LAST && ratio(film + step) <= 1) film += step;
    return film;
  };
  return [end(-0.02), end(0.02)];
}
