import type { VerdictEvent } from '@steady-gleam/contracts';
import {
  faceAgainstFlop,
  firstChoices,
  outOfOrder,
  type Advised,
  type CardSaid,
  type EyePosterior,
  type RungVerdict,
} from '@steady-gleam/core/letdown';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { sayIntervals } from './cardModel';

export function rungVerdicts(events: readonly VerdictEvent[]): RungVerdict[] {
  return events.flatMap((v) => (v.verdict ? [{ coats: v.coats, view: v.view, verdict: v.verdict, hue: v.hue }] : []));
}

/** The sentence of a card judged by eye, or read and judged. */
export function sayEye(eye: EyePosterior, advice: Advised, card: CardSaid): { answer: string; why: string } {
  const { best, interval } = eye;
  const between = `between ${interval[0].toFixed(1)} and ${interval[1].toFixed(1)}`;
  return {
    answer: `${card.fit ? `Read and by eye, your card says ${best.toFixed(1)}` : `By eye, ${best.toFixed(1)} coats`}. Spray ${sayCoats(advice.spray)}, then look.`,
    why: eye.contradicts
      ? 'Your verdicts contradict each other, so this is not an average of them but a warning: judge those rungs again.'
      : card.fit
        ? sayIntervals(card)
        : `Nine in ten such cards match ${between}. Another rung narrows it most, another light a little.`,
  };
}

/** Rungs whose places disagree, in words: said, never averaged. */
export function sayDisagree(eye: EyePosterior | null, verdicts: readonly RungVerdict[]): string | null {
  const [against] = faceAgainstFlop(verdicts);
  if (against) {
    const { face, flop, coats } = against;
    return `With ${countCoats(coats)} the face is ${face} and the flop ${flop}: no count mends both. Lay it another way (wetter or drier, a control coat), or take another pearl or ground.`;
  }
  const [first] = eye?.disagree ?? [];
  if (!first) return null;
  return `What you saw of ${countCoats(first.coats)} from ${first.views.join(' and from ')} does not go together at any count. Judge that rung again, one place after the other.`;
}

/** Rungs that were called the wrong way round, in words. */
export function sayOutOfOrder(verdicts: readonly RungVerdict[]): string | null {
  const [first] = outOfOrder(verdicts);
  if (!first) return null;
  return `In ${first.view} ${countCoats(first.more)} looked lighter than ${countCoats(first.fewer)}, and others the other way. One of them is misjudged, or the rungs were swapped.`;
}

/** The safest count and the one most likely to end inside, where they differ from the advice. */
export function sayPlans(card: CardSaid): string | null {
  const choices = firstChoices(card);
  const safe = [...choices].reverse().find((c) => c.chances.over <= 0.01);
  const likely = choices.reduce((a, b) => (b.chances.in > a.chances.in ? b : a), choices[0]!);
  const percent = (v: number) => `${Math.round(v * 100)} %`;
  const safest = safe
    ? `Safest: ${sayCoats(safe.coats)}, then look; ${percent(safe.chances.over)} end over.`
    : 'Even half a coat is not safe.';
  return `${safest} In one go: ${sayCoats(likely.coats)}; ${percent(likely.chances.in)} end inside, ${percent(likely.chances.over)} over.`;
}
