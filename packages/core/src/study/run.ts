import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { defaultTolerance } from '../finishes/tolerances';
import { adviseAfter, adviseFirst, predictedLabs, readCard, sayLooks, type CardSaid } from '../letdown/advise';
import { leastOf, type TargetRead } from '../letdown/bestCount';
import { linesAt, noiseAt, noiseOf, type RungReading } from '../letdown/readings';
import { answerCard } from '../letdown/answer';
import { brighterFrom } from '../letdown/eye';
import { EYE_VIEWS, VERDICTS, type EyeView, type RungVerdict } from '../letdown/eyeWords';
import type { LadderOf } from '../letdown/ladderTable';
import { liveAdvice, liveState, sayEyeLook, wordOfVerdicts, type SpotLook } from '../letdown/live';
import type { Look } from '../letdown/looks';
import { D65_10 } from '../colour/tristimulus';
import type { PreparedLibrary } from '../materials/shop';
import { createRandom, normal } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';
import { CORE_KINDS, KINDS, type Kind, type World } from './world';

/** How the study's painters scatter: hand and session of a card, edges, coats, spots. Not what the fit believes of them. */
export const SCATTER = {
  hand: 0.2,
  session: 0.06,
  edges: 0.04,
  firstCoat: 0.15,
  coat: 0.08,
  jobShared: 0.4,
  spotShare: 0.02,
  spotCount: 0.05,
} as const;

/** One painter's figures. */
export interface PainterFigures {
  readonly kind: Kind;
  readonly otherInstrument: boolean;
  /** dE00 of rungs 3 and 4 predicted from 1 and 2. */
  readonly predicted: readonly number[];
  readonly predictedByLines: readonly number[];
  /** Count from the card less the count a perfect reader of it would say: four rungs, two rungs, lines through four and two. */
  readonly four: number;
  readonly two: number;
  readonly linesFour: number;
  readonly linesTwo: number;
  readonly nearestRung: number;
  readonly cardHolds: boolean;
  readonly objectHolds: boolean;
  readonly twoHolds: boolean;
  /** Rungs named although the card was right. */
  readonly blamed: boolean;
  /** Of a card with two rungs exchanged: named. */
  readonly exchangedNamed: boolean;
  readonly advised: boolean;
  /** Jobs of finishes that can be reached: how they end, wet looks and dry ones; and the width of the true window. */
  readonly jobs: readonly {
    readonly wet: boolean;
    readonly end: JobEnd;
    readonly blind: JobEnd;
    readonly width: number;
  }[];
  readonly fitMs: number;
  /** By eye alone, four rungs from three places: count, whether nine in ten holds, and how jobs judged by eye end. */
  readonly eye: { readonly error: number; readonly holds: boolean; readonly ends: readonly JobEnd[] };
}
export type JobEnd = 'in' | 'over' | 'short';

const LAST = 8;

/** Least rms count on true colours. */
export const bestOf = (colours: (n: number) => readonly Lab[], wanted: readonly Lab[]): number =>
  leastOf(0.05, 7, 0.05, (n) => colours(n).reduce((s, lab, g) => s + de2000(wanted[g]!, lab) ** 2, 0));

/** Film on after n coats with every coat's own part. */
const filmOf = (coats: readonly number[], n: number): number => {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += Math.min(1, n - i) * coats[i]!;
  return sum;
};

export interface StudyOptions {
  /** Jobs sprayed by every painter, wet and dry each. */
  readonly jobsEach: number;
  readonly now: () => number;
}

/** One painter of the study: what he has to match, his hand, and his card as it was read. */
export function createPainter(world: World, seed: number, shop: PreparedLibrary, now: () => number) {
  const random = createRandom(seed);
  const draw = (sd = 1) => sd * normal(random);
  const noise = noiseOf(null, []);
  const read = (labs: readonly Lab[], spots = 1, shared: Lab = [0, 0, 0]): Lab[] =>
    labs.map((lab, g): Lab => {
      const sd = noiseAt(noise, g, lab[0]) / Math.sqrt(spots);
      return [Math.max(0, lab[0] + shared[0] + draw(sd)), lab[1] + shared[1] + draw(sd), lab[2] + shared[2] + draw(sd)];
    });
  const coatsOf = () =>
    Array.from({ length: LAST + 1 }, (_, i) => Math.exp(draw(i === 0 ? SCATTER.firstCoat : SCATTER.coat)));
  /** On an object a coat lies like the one before it. */
  const jobCoats = () => {
    let off = draw(SCATTER.coat);
    return Array.from({ length: LAST + 1 }, () => {
      const coat = Math.exp(off);
      off = SCATTER.jobShared * off + Math.sqrt(1 - SCATTER.jobShared ** 2) * draw(SCATTER.coat);
      return coat;
    });
  };

  // The target, by one instrument or another one.
  const otherInstrument = random() < 1 / 3;
  const offset: Lab = otherInstrument ? [draw(0.5), draw(0.5), draw(0.5)] : [0, 0, 0];
  const seen = otherInstrument ? world.wantedAt(FIVE_ANGLES.map(() => draw(1.5))) : world.wanted;
  const angleOffsets = seen.map((): Lab => (otherInstrument ? [draw(0.3), draw(0.3), draw(0.3)] : [0, 0, 0]));
  const targetLabs = read(
    seen.map((lab, g): Lab => [
      lab[0] + angleOffsets[g]![0],
      lab[1] + angleOffsets[g]![1],
      lab[2] + angleOffsets[g]![2],
    ]),
    3,
    offset,
  );
  const target: TargetRead = {
    angles: FIVE_ANGLES.map((g, k) => ({ ...g, lab: targetLabs[k]!, tolerance: defaultTolerance(g.aspecular) })),
    spots: 3,
    sameInstrument: !otherInstrument,
    noise,
  };

  // The card.
  const hand = Math.exp(draw(SCATTER.hand));
  const cardHand = hand * Math.exp(draw(SCATTER.session) + SCATTER.edges);
  const cardCoats = coatsOf();
  const cardFilm = (n: number) => cardHand * filmOf(cardCoats, n);
  const rungs = [1, 2, 3, 4].map((n): RungReading => {
    const film = cardFilm(n) + cardHand * draw(Math.hypot(SCATTER.spotShare * n, SCATTER.spotCount));
    return { coats: n, labs: read(world.ladder(film)) };
  });
  const bare = read(world.ladder(0));
  const of = { model: shop.model(FIVE_ANGLES), ground: world.ground, recipe: world.recipe, viewing: D65_10 };
  const card = (r: readonly RungReading[]) => ({ bare, rungs: r, noise });
  const began = now();
  const four = readCard(of, target, card(rungs));
  const fitMs = now() - began;
  return {
    ...{
      random,
      draw,
      noise,
      read,
      jobCoats,
      otherInstrument,
      target,
      targetLabs,
      hand,
      cardFilm,
      rungs,
      bare,
      of,
      card,
    },
    ...{ four, fitMs },
  };
}

/** One painter: a card, a target, jobs. */
export function studyPainter(
  world: World,
  seed: number,
  shop: PreparedLibrary,
  { jobsEach, now }: StudyOptions,
): PainterFigures {
  const painter = createPainter(world, seed, shop, now);
  const { random, draw, read, jobCoats, otherInstrument, target, targetLabs, hand, cardFilm, rungs, bare, of, card } =
    painter;
  const { four, fitMs } = painter;
  const two = readCard(of, target, card(rungs.slice(0, 2)));
  const truth = bestOf((n) => world.ladder(cardFilm(n)), world.wanted);
  const withGround: RungReading[] = [{ coats: 0, labs: bare }, ...rungs];
  const exchanged = Math.floor(random() * 3);
  const labsOf = (k: number) => rungs[k === exchanged ? k + 1 : k === exchanged + 1 ? k - 1 : k]!.labs;
  const swapped = readCard(of, target, card(rungs.map((r, k) => ({ ...r, labs: labsOf(k) }))));
  const rungWords = (labs: readonly (readonly Lab[])[]) =>
    labs.flatMap((l, k) => world.ladder(cardFilm(3 + k)).map((lab, g) => de2000(lab, l[g]!)));

  // Jobs of finishes that can be reached.
  const bestFilm = bestOf(world.ladder, world.wanted);
  const window = trueWindow(world, target);
  // What today's object would need in its own coats: the middle of what a perfect look would say.
  const jobs: PainterFigures['jobs'][number][] = [];
  let objectHolds = 0;
  for (let j = 0; j < Math.max(1, jobsEach); j++) {
    const session = Math.exp(draw(SCATTER.session));
    const objectCoats = jobCoats().map((c) => hand * session * c);
    const needs = leastOf(0.05, LAST - 0.5, 0.05, (n) => (filmOf(objectCoats, n) - bestFilm) ** 2);
    if (needs >= four.object90[0] && needs <= four.object90[1]) objectHolds++;
    if (!window || jobsEach === 0) continue;
    const place = (film: number): JobEnd => (film > window[1] ? 'over' : film < window[0] ? 'short' : 'in');
    const blind = Math.max(0.5, Math.round(four.nominalBest * 2) / 2);
    for (const wet of [true, false])
      jobs.push({
        wet,
        end: place(sprayJob(four, world, hand * session, jobCoats(), wet, read, draw)),
        blind: place(filmOf(objectCoats, blind)),
        width: (window[1] - window[0]) / bestFilm,
      });
  }
  return {
    kind: world.kind,
    otherInstrument,
    predicted: rungWords(predictedLabs(two.ladder, [3, 4])),
    predictedByLines: rungWords([linesAt(withGround.slice(0, 3), 3), linesAt(withGround.slice(0, 3), 4)]),
    four: four.best - truth,
    two: two.best - truth,
    linesFour: bestOf((n) => linesAt(withGround, n), targetLabs) - truth,
    linesTwo: bestOf((n) => linesAt(withGround.slice(0, 3), n), targetLabs) - truth,
    nearestRung: nearest(rungs, targetLabs) - truth,
    cardHolds: truth >= four.card90[0] && truth <= four.card90[1],
    objectHolds: objectHolds * 2 > Math.max(1, jobsEach),
    twoHolds: truth >= two.card90[0] && truth <= two.card90[1],
    blamed: (four.fit?.doubtful.length ?? 0) + (four.fit?.swapped.length ?? 0) > 0,
    exchangedNamed: (swapped.fit?.swapped ?? []).some(([a]) => a === exchanged + 1),
    advised: adviseFirst(four).spray > 0,
    jobs,
    fitMs,
    eye: studyEye(of, world, cardFilm, truth, hand, jobCoats, window, Math.max(1, jobsEach), random),
  };
}

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
function studyEye(
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

const nearest = (rungs: readonly RungReading[], wanted: readonly Lab[]): number =>
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

/** "Spray k, then look": the first stop, then at most two looks. @returns the film at the end */
function sprayJob(
  card: CardSaid,
  world: World,
  hand: number,
  coats: readonly number[],
  wet: boolean,
  read: (labs: readonly Lab[], spots?: number, shared?: Lab) => Lab[],
  draw: (sd?: number) => number,
): number {
  let film = 0;
  let on = 0;
  let laid = 0;
  const lay = (q: number) => {
    // A gun is not set twice alike.
    film += hand * q * (coats[laid++] ?? 1);
    on += q;
  };
  lay(adviseFirst(card).spray);
  const looks: Look[] = [];
  const spots = wet ? 3 : 9;
  for (let left = 1; left >= 0; left--) {
    const shared: Lab = wet ? [draw(0.3), draw(0.3), draw(0.3)] : [0, 0, 0];
    const local = film * Math.exp(draw(wet ? 0.03 : 0.015));
    looks.push({ sprayed: on, labs: read(world.ladder(local), spots, shared), wet, spots });
    const { spray } = adviseAfter(card, sayLooks(card, looks), on, left);
    if (spray <= 0) break;
    lay(spray);
  }
  return film;
}

/** Share of values that fulfil a condition; null without any. */
export const shareOf = <T>(values: readonly T[], test: (v: T) => boolean): number | null =>
  values.length ? values.filter(test).length / values.length : null;

export { CORE_KINDS, KINDS };
