import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/systems';
import { effectCoats, factorsToLabs, ladderLabs, type EffectCoats } from '../matching/ladder';
import { type PreparedGround } from '../optics/preparedGround';
import { DEFAULT_SCATTER } from '../matching/risk';
import { coatGrid, findStopWindow } from '../matching/stopWindow';
import { STYLES, type Hand, type StyleId } from '../finishes/styles';
import { type TargetAngle } from '../matching/target';
import { defaultTolerance } from '../finishes/tolerances';
import { FIVE_ANGLES } from '../optics/geometry';
import { evaluateReference } from '../optics/stack';
import { normal } from '../numeric/random';
import type { PreparedLibrary } from '../materials/shop';
import { assessLadder } from './assess';
import { calibrateHand, readingNoise, shiftGround, valuesOf, withResiduals, type RungReading } from './calibrate';
import { countByEye, EYE_VIEWS, VERDICTS, type RungVerdict } from './eye';
import { liveAdvice, liveState, type SpotEvidence } from './live';

/** Finish kinds of the study: three families, each over grounds it is sprayed on. */
const KINDS: readonly { mixId: string; grounds: readonly string[]; style: StyleId }[] = [
  { mixId: 'lagoon-pearl', grounds: ['aqua-pastel', 'white', 'grey-74'], style: 'wet' },
  { mixId: 'moonmilk-pearl', grounds: ['cream-pastel', 'white', 'ticket-red'], style: 'medium' },
  { mixId: 'cinder-candy', grounds: ['silver-fine', 'gold', 'silver-coarse'], style: 'light' },
  { mixId: 'cinder-candy', grounds: ['silver-fine', 'copper'], style: 'wet' },
  { mixId: 'smoke-tea-clear', grounds: ['gold', 'silver-fine', 'cream-pastel'], style: 'wet' },
];

/** How the invented painters, pots and makers differ from what the fit starts from: standard deviations. */
const SPREAD = { film: 0.2, flake: 0.15, spread: 0.12, edge: 0.3, hueNm: 4, ground: 1 } as const;

/** One invented painter with a pot, a ground and a finish to match; nothing of it is known to the fit. */
export interface Painter {
  readonly ground: PreparedGround;
  readonly recipe: EffectCoats;
  readonly trueGround: PreparedGround;
  readonly trueHand: Hand;
  /** What is to be matched, without noise, and as it was read. */
  readonly wanted: readonly TargetAngle[];
  readonly target: readonly TargetAngle[];
}

export function inventPainter(shop: PreparedLibrary, random: () => number): Painter {
  const kind = KINDS[Math.floor(random() * KINDS.length)]!;
  const ground = shop.ground(findGround(kind.grounds[Math.floor(random() * kind.grounds.length)]!));
  const recipe = {
    coat: shop.coat(findMix(kind.mixId), 0.75 + 0.6 * random()),
    style: STYLES[kind.style],
  };
  const draw = (sd: number) => sd * normal(random);
  const clear = recipe.coat.tau === 0;
  const trueHand: Hand = {
    film: Math.exp(draw(SPREAD.film)),
    flake: clear ? 1 : Math.exp(draw(SPREAD.flake)),
    spread: clear ? 1 : Math.exp(draw(SPREAD.spread)),
    edge: clear ? 1 : Math.exp(draw(SPREAD.edge)),
    hueNm: draw(SPREAD.hueNm),
  };
  const moved = ground.coats.length
    ? ground
    : shiftGround(ground)([draw(SPREAD.ground), draw(SPREAD.ground), draw(SPREAD.ground)]);
  // The finish to match was made from the same pot by another hand.
  const maker: Hand = { ...trueHand, film: 1, spread: (trueHand.spread ?? 1) * Math.exp(draw(0.03)) };
  const labs = trueLabs(shop, moved, recipe, maker, 1.75 + 2 * random());
  const toTarget = (l: readonly Lab[]): TargetAngle[] =>
    l.map((lab, g) => ({ ...FIVE_ANGLES[g]!, lab, tolerance: defaultTolerance(FIVE_ANGLES[g]!.aspecular) }));
  return {
    ground,
    recipe,
    trueGround: moved,
    trueHand,
    wanted: toTarget(labs),
    // Three spots are averaged.
    target: toTarget(labs.map((lab) => noisy(lab, random, 1 / Math.sqrt(3)))),
  };
}

/** The finish itself, by the reference tier. */
function trueLabs(
  shop: PreparedLibrary,
  ground: PreparedGround,
  recipe: EffectCoats,
  hand: Hand,
  coats: number,
): Lab[] {
  const { optics } = shop.model(FIVE_ANGLES);
  return factorsToLabs(
    evaluateReference(optics, ground, [...ground.coats, ...effectCoats({ ...recipe, hand }, coats)]),
  );
}

function noisy(lab: Lab, random: () => number, scale = 1): Lab {
  const noise = readingNoise(lab) * scale;
  return [
    Math.max(0, lab[0] + noise * normal(random)),
    lab[1] + noise * normal(random),
    lab[2] + noise * normal(random),
  ];
}

export interface StudyFigures {
  readonly painters: number;
  /** CIEDE2000 between predicted and true rungs 3 and 4, fitted from 1 and 2. */
  readonly predicted: readonly number[];
  /** Count from the card less the count that truly matches, and the stated standard deviation. */
  readonly counts: readonly { readonly error: number; readonly sd: number }[];
  readonly byEye: readonly number[];
  /** Milliseconds of the fits. */
  readonly fitMs: readonly number[];
  readonly policy: { readonly jobs: number; readonly over: number; readonly under: number; readonly looks: number };
  /** The nominal count sprayed without a card and without looking. */
  readonly blind: { readonly over: number; readonly under: number };
}

/**
 * The simulation study: invented painters whose finishes the reference tier makes with parameters and noise the fit does not
 * know. Seeded; the same call gives the same figures, times aside.
 * @param jobsEach policy jobs sprayed by every painter.
 */
export function runStudy(
  shop: PreparedLibrary,
  random: () => number,
  painters: number,
  jobsEach: number,
  now: () => number = () => 0,
  onPainter?: (done: number) => void,
): StudyFigures {
  const model = shop.model(FIVE_ANGLES);
  const predicted: number[] = [];
  const counts: { error: number; sd: number }[] = [];
  const byEye: number[] = [];
  const fitMs: number[] = [];
  const policy = { jobs: 0, over: 0, under: 0, looks: 0 };
  const blind = { over: 0, under: 0 };
  for (let i = 0; i < painters; i++) {
    const p = inventPainter(shop, random);
    const truth = (n: number) => trueLabs(shop, p.trueGround, p.recipe, p.trueHand, n);
    const read = (n: number): RungReading => ({ coats: n, labs: truth(n).map((lab) => noisy(lab, random)) });
    const two = [read(1), read(2)];
    const began = now();
    const fit = calibrateHand(model, p.ground, p.recipe, two);
    fitMs.push(now() - began);
    const values = valuesOf(fit.free, fit.parameters);
    const shifted = shiftGround(p.ground)(values.groundOffset);
    const guess = withResiduals(
      [3, 4],
      ladderLabs(model, shifted, { ...p.recipe, hand: values.hand }, [3, 4]),
      fit.residuals,
    );
    [3, 4].forEach((n, k) => truth(n).forEach((lab, g) => predicted.push(de2000(lab, guess[k]![g]!))));

    // What truly matches: the painter's own ladder against the finish without noise.
    const knots = coatGrid(0, 7, 0.25);
    const trueLadder = ladderLabs(model, p.trueGround, { ...p.recipe, hand: p.trueHand }, knots);
    const trueStop = findStopWindow(p.wanted, knots, trueLadder);
    const trueBest = trueStop.best.coats;
    const card = assessLadder(model, p.ground, p.recipe, p.target, [...two, read(3), read(4)], { last: 7 });
    counts.push({ error: card.best - trueBest, sd: card.bestSd });

    const judge = (n: number): RungVerdict[] =>
      EYE_VIEWS.slice(0, 3).map((view) => {
        const z = n - trueBest + 0.45 * normal(random);
        const k = z < -1.25 ? 0 : z < -0.35 ? 1 : z <= 0.35 ? 2 : z <= 1.25 ? 3 : 4;
        return { coats: n, view, verdict: VERDICTS[k]! };
      });
    byEye.push(countByEye([1, 2, 3, 4].flatMap(judge)).best - trueBest);

    if (!trueStop.window || !card.stop.window || !trueStop.closes) continue;
    const nominalCount = Math.max(0.5, Math.round(card.nominal.best.coats * 2) / 2);
    for (let j = 0; j < jobsEach; j++) {
      policy.jobs++;
      const session = Math.exp(DEFAULT_SCATTER.session * normal(random));
      const spray = (coats: number): number => {
        let film = 0;
        for (let n = 0; n < coats; n += 1) {
          const part = Math.min(1, coats - n);
          film += part * session * Math.exp(DEFAULT_SCATTER.coat * normal(random));
        }
        return film;
      };
      const end = sprayByPolicy(card.best, card.bestSd, card.stop.window, card.advice.spray, spray, random);
      policy.looks += end.looks;
      if (end.film > trueStop.window[1] + 0.025) policy.over++;
      if (end.film < trueStop.window[0] - 0.025) policy.under++;
      const blindFilm = spray(nominalCount);
      if (blindFilm > trueStop.window[1] + 0.025) blind.over++;
      if (blindFilm < trueStop.window[0] - 0.025) blind.under++;
    }
    onPainter?.(i + 1);
  }
  return {
    painters,
    predicted,
    counts,
    byEye,
    fitMs,
    policy,
    blind: { over: blind.over / Math.max(1, policy.jobs), under: blind.under / Math.max(1, policy.jobs) },
  };
}

/** How sure a look under a cleared card is of the film, as a fraction; ours. */
export const LOOK_SD = 0.05;

/** "Spray k, look, decide": the advice first, then half coats for as long as one more is safe. */
function sprayByPolicy(
  best: number,
  bestSd: number,
  window: readonly [number, number],
  first: number,
  spray: (coats: number) => number,
  random: () => number,
): { film: number; looks: number } {
  let sprayed = first;
  let film = first > 0 ? spray(first) : 0;
  let looks = 0;
  const evidence: SpotEvidence[] = [];
  for (; looks < 6;) {
    if (sprayed > 0) {
      looks++;
      evidence.splice(0, evidence.length, {
        spot: '1',
        sprayed,
        looksLike: film * Math.exp(LOOK_SD * normal(random)),
        // The card's own doubt of its count is part of what the look is held against.
        sd: Math.hypot(LOOK_SD, bestSd / Math.max(best, 0.5)),
      });
    }
    const state = liveState(best, window, sprayed, evidence, DEFAULT_SCATTER);
    const next = liveAdvice(state).amount;
    if (next <= 0) break;
    // Half a coat at a time, a mist coat where only that is safe; then look again.
    film += spray(next);
    sprayed += next;
  }
  return { film, looks };
}

/** Share of values that fulfil a condition. */
export const shareOf = <T>(values: readonly T[], test: (v: T) => boolean): number =>
  values.filter(test).length / Math.max(1, values.length);

export function quantileOf(values: readonly number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN;
}

/** The figures the study is judged by. */
export function judgeStudy(f: StudyFigures) {
  return {
    predictedMedian: quantileOf(f.predicted, 0.5),
    predicted90: quantileOf(f.predicted, 0.9),
    countWithin: shareOf(f.counts, (c) => Math.abs(c.error) <= 0.25),
    interval90: shareOf(f.counts, (c) => Math.abs(c.error) <= 1.645 * c.sd),
    eyeWithin: shareOf(f.byEye, (e) => Math.abs(e) <= 0.5),
    over: f.policy.over / Math.max(1, f.policy.jobs),
    under: f.policy.under / Math.max(1, f.policy.jobs),
    looks: f.policy.looks / Math.max(1, f.policy.jobs),
    blindOver: f.blind.over,
    blindUnder: f.blind.under,
    fitMsMedian: quantileOf(f.fitMs, 0.5),
  };
}
