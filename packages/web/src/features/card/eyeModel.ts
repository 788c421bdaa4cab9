import type { VerdictEvent } from '@steady-gleam/contracts';
import {
  countByEye,
  faceAgainstFlop,
  outOfOrder,
  type Assessment,
  type EyePosterior,
  type RungVerdict,
} from '@steady-gleam/core/letdown';
import { adviseCoats, type Advice } from '@steady-gleam/core/matching';
import { countCoats, sayCoats } from '../../shared/jobModel';

/** Half width of what the eye calls a match, coats: the inner cut points of the verdicts. */
const EYE_WINDOW = 0.35;

/** What verdicts say, joined with what readings say. */
export interface EyeAdvice {
  readonly posterior: EyePosterior;
  readonly window: readonly [number, number];
  readonly advice: Advice;
}

export function rungVerdicts(events: readonly VerdictEvent[]): RungVerdict[] {
  return events.flatMap((v) => (v.verdict ? [{ coats: v.coats, view: v.view, verdict: v.verdict }] : []));
}

/** Count and advice from verdicts; the card's or the model's own belief is the prior, where there is one. */
export function adviseByEye(
  verdicts: readonly RungVerdict[],
  assessment: Assessment | null,
  handHeld: boolean,
): EyeAdvice | null {
  if (!verdicts.length) return null;
  const prior = assessment ? { mean: assessment.best, sd: Math.max(0.05, assessment.bestSd) } : undefined;
  const posterior = countByEye(verdicts, { handHeld, ...(prior ? { prior } : {}) });
  const own = assessment?.aim.counts;
  const window: readonly [number, number] = own
    ? [own[0] + posterior.best - assessment.best, own[1] + posterior.best - assessment.best]
    : [Math.max(0.1, posterior.best - EYE_WINDOW), posterior.best + EYE_WINDOW];
  return {
    posterior,
    window,
    advice: adviseCoats(window, true, posterior.best, undefined, posterior.sd / Math.max(0.5, posterior.best)),
  };
}

/** The sentence of a card judged by eye. */
export function sayEye({ posterior, advice }: EyeAdvice): { answer: string; why: string } {
  const { best, interval } = posterior;
  const spray =
    advice.spray > 0
      ? `Spray ${sayCoats(advice.spray)}, then look.`
      : 'Half a coat may already be too much; look again in better light.';
  return {
    answer: `By eye, ${best.toFixed(1)} coats. ${spray}`,
    why: posterior.contradicts
      ? 'Your verdicts contradict each other, so this is not an average of them but a warning: judge those rungs again.'
      : `Nine in ten such cards match between ${interval[0].toFixed(1)} and ${interval[1].toFixed(1)}. Another rung or another light narrows it.`,
  };
}

/** Rungs whose face and flop disagree, in words: said, never averaged. */
export function sayFaceAgainstFlop(verdicts: readonly RungVerdict[]): string | null {
  const found = faceAgainstFlop(verdicts);
  if (!found.length) return null;
  const { face, flop } = found[0]!;
  const rungs = found.map((f) => countCoats(f.coats)).join(' and ');
  return `With ${rungs} the face is ${face} and the flop ${flop}: no count mends both. Lay it another way (wetter or drier, a control coat), or take another pearl or ground.`;
}

/** Rungs that were called the wrong way round, in words. */
export function sayOutOfOrder(verdicts: readonly RungVerdict[]): string | null {
  const [first] = outOfOrder(verdicts);
  if (!first) return null;
  return `In ${first.view} ${countCoats(first.more)} looked lighter than ${countCoats(first.fewer)}. One of the two is misjudged, or the rungs were swapped.`;
}

/** The safest count and the one most likely to end inside, where they differ from the advice. */
export function sayPlans(advice: Advice): string | null {
  const safe = [...advice.chances].reverse().find((c) => c.over <= 0.01);
  const likely = advice.chances.reduce((a, b) => (b.inside > a.inside ? b : a), advice.chances[0]!);
  if (!likely) return null;
  const percent = (v: number) => `${Math.round(v * 100)} %`;
  const safest = safe
    ? `Safest: ${sayCoats(safe.coats)}, then look; ${percent(safe.over)} end over.`
    : 'Even half a coat is not safe.';
  return `${safest} In one go: ${sayCoats(likely.coats)}; ${percent(likely.inside)} end inside, ${percent(likely.over)} over.`;
}
