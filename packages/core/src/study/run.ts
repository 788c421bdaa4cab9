import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { defaultTolerance } from '../finishes/tolerances';
import { adviseAfter, adviseFirst, predictedLabs, readCard, sayLooks, type CardSaid } from '../letdown/advise';
import { leastOf, type TargetRead } from '../letdown/bestCount';
import { linesAt, noiseAt, noiseOf, type RungReading } from '../letdown/readings';
import type { Look } from '../letdown/looks';
import { D65_10 } from '../colour/tristimulus';
import type { PreparedLibrary } from '../materials/shop';
import { createRandom, normal } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';
import { CORE_KINDS, KINDS, type World } from './world';
import { trueWindow, nearest, studyEye } from './eyeRun';
import { LAST, SCATTER, type PainterFigures, bestOf, type JobEnd } from './painterFigures';

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
