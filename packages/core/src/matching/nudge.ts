import { labToLch, type Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import type { Dye } from '../materials/dyes';
import type { EffectSystem } from '../materials/systems';
import type { FastModel } from '../optics/stack';
import { effectCoats, factorsToLabs, type LadderRecipe, type PreparedGround } from './ladder';
import { scoreMatch, type TargetAngle } from './target';

/** What a painter says of a sprayed card: how far it is off, seen where. */
export interface Remark {
  readonly view: 'face' | 'flop' | 'all over';
  readonly off: 'redder' | 'yellower' | 'greener' | 'bluer' | 'lighter' | 'darker' | 'stronger' | 'weaker';
  readonly amount: 'a touch' | 'clearly' | 'far';
}

/** CIELAB units behind the words; ours. */
const AMOUNT: Record<Remark['amount'], number> = { 'a touch': 1, clearly: 2.5, far: 5 };
/** Aspecular angles a view stands for. */
const VIEWS: Record<Remark['view'], (aspecular: number) => boolean> = {
  face: (a) => a <= 30,
  flop: (a) => a >= 60,
  'all over': () => true,
};

/** The sprayed colour that a remark describes: the target, moved where and as far as was said. */
export function remarkToLabs(target: readonly TargetAngle[], remarks: readonly Remark[]): Lab[] {
  return target.map((t) => {
    let [l, a, b] = t.lab;
    for (const { view, off, amount } of remarks) {
      if (!VIEWS[view](t.aspecular)) continue;
      const d = AMOUNT[amount];
      const [, c, h] = labToLch(t.lab);
      const along = (sign: number) => {
        // Neutral targets have no strength to speak of.
        if (c < 1) return;
        a += sign * d * Math.cos((h * Math.PI) / 180);
        b += sign * d * Math.sin((h * Math.PI) / 180);
      };
      if (off === 'redder') a += d;
      else if (off === 'greener') a -= d;
      else if (off === 'yellower') b += d;
      else if (off === 'bluer') b -= d;
      else if (off === 'lighter') l += d;
      else if (off === 'darker') l = Math.max(0, l - d);
      else along(off === 'stronger' ? 1 : -1);
    }
    return [l, a, b];
  });
}

/** One toner of an advice. */
export interface TonerDose {
  readonly dyeId: string;
  /** Optical depth of one nominal coat, in units of the dye's spectrum. */
  readonly depth: number;
}

export interface NudgeStep {
  readonly doses: readonly TonerDose[];
  /** Predicted colour of the corrected card per angle. */
  readonly labs: readonly Lab[];
  readonly meanDe: number;
  readonly badness: number;
}

export interface Nudge {
  /** How the card stands now. */
  readonly before: { readonly meanDe: number; readonly badness: number };
  /** Half of what is advised: what to add first. */
  readonly half: NudgeStep;
  readonly full: NudgeStep;
}

export interface NudgeInput {
  readonly model: FastModel;
  readonly ground: PreparedGround;
  readonly recipe: LadderRecipe;
  readonly coats: number;
  readonly target: readonly TargetAngle[];
  /** The sprayed card, read or described, in the target's order. */
  readonly card: readonly Lab[];
  readonly toners: readonly Dye[];
}

/** Depth at which a toner's effect is linearised. */
const PROBE_DEPTH = 0.02;
/** A second toner must take away this share of what the first leaves. */
const WORTH_A_SECOND = 0.15;
/** Better than nothing by less than this share of the rms difference is no advice. */
const WORTH_ADDING = 0.15;

/**
 * Which toners bring a sprayed card to its target: the stack is linearised in each, every one and every pair is solved by
 * least squares with no negative parts, and the winner is predicted again with the full model. What the model gets wrong
 * about the card is carried over unchanged.
 * @returns null when no toner helps, for instance when the card is already too strong or too dark.
 */
export function nudge(input: NudgeInput): Nudge | null {
  const { model, ground, recipe, coats, target, card, toners } = input;
  const labsWith = (doses: readonly TonerDose[]): Lab[] => {
    const a = Float64Array.from(recipe.coat.a);
    for (const { dyeId, depth } of doses) {
      toners.find((t) => t.id === dyeId)!.depth.forEach((v, i) => (a[i]! += v * depth));
    }
    const coat = { ...recipe.coat, a };
    return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats({ ...recipe, coat }, coats)])));
  };
  const base = labsWith([]);
  const predicted = (doses: readonly TonerDose[]): Lab[] =>
    labsWith(doses).map((lab, g) => [0, 1, 2].map((k) => card[g]![k]! + lab[k]! - base[g]![k]!) as unknown as Lab);
  // Differences are weighted so that a CIELAB unit counts as what it is in CIEDE2000 over the tolerance there.
  const weight = target.map((t, g) => {
    const distance = Math.hypot(...t.lab.map((v, k) => v - card[g]![k]!));
    return (distance > 1e-6 ? de2000(t.lab, card[g]!) / distance : 1) / t.tolerance;
  });
  const flat = (labs: readonly Lab[], from: readonly Lab[], scale = 1): Float64Array =>
    Float64Array.from({ length: labs.length * 3 }, (_, i) => {
      const g = Math.floor(i / 3);
      return ((labs[g]![i % 3]! - from[g]![i % 3]!) * weight[g]!) / scale;
    });
  const wanted = flat(
    target.map((t) => t.lab),
    card,
  );
  const columns = toners.map((t) => flat(labsWith([{ dyeId: t.id, depth: PROBE_DEPTH }]), base, PROBE_DEPTH));
  const dot = (p: Float64Array, q: Float64Array): number => p.reduce((s, v, i) => s + v * q[i]!, 0);
  const all = dot(wanted, wanted);
  interface Candidate {
    readonly doses: TonerDose[];
    readonly left: number;
  }
  let one: Candidate = { doses: [], left: all };
  let two: Candidate = one;
  toners.forEach((p, i) => {
    const pp = dot(columns[i]!, columns[i]!);
    const pw = dot(columns[i]!, wanted);
    if (pp < 1e-12 || pw <= 0) return;
    const left = all - (pw * pw) / pp;
    if (left < one.left) one = { doses: [{ dyeId: p.id, depth: pw / pp }], left };
    for (let j = 0; j < toners.length; j++) {
      if (j === i) continue;
      const qq = dot(columns[j]!, columns[j]!);
      const qw = dot(columns[j]!, wanted);
      const pq = dot(columns[i]!, columns[j]!);
      const det = pp * qq - pq * pq;
      if (det < 1e-9 * pp * qq) continue;
      const x = (pw * qq - qw * pq) / det;
      const y = (qw * pp - pw * pq) / det;
      if (x <= 0 || y <= 0) continue;
      const rest = all - x * pw - y * qw;
      if (rest < two.left - 1e-9)
        two = {
          doses: [
            { dyeId: p.id, depth: x },
            { dyeId: toners[j]!.id, depth: y },
          ],
          left: rest,
        };
    }
  });
  const chosen = two.left < one.left * (1 - WORTH_A_SECOND) ? two : one;
  if (!chosen.doses.length) return null;
  const step = (share: number): NudgeStep => {
    const doses = chosen.doses.map((d) => ({ ...d, depth: d.depth * share }));
    const labs = predicted(doses);
    const { meanDe, badness } = scoreMatch(target, labs);
    return { doses, labs, meanDe, badness };
  };
  // The straight line overshoots where the dye saturates or undershoots where it bends: look along it with the full model.
  let best = 1;
  let least = Infinity;
  for (let share = 0.2; share <= 2.001; share += 0.1) {
    const { meanDe } = step(share);
    if (meanDe < least) [least, best] = [meanDe, share];
  }
  const before = scoreMatch(target, card);
  if (least > before.meanDe * (1 - WORTH_ADDING)) return null;
  return {
    before: { meanDe: before.meanDe, badness: before.badness },
    half: step(best / 2),
    full: step(best),
  };
}

/** Depth one part of toner in a hundred parts of carrier gives to 10 um of dry film; invented for the demo. */
const TONER_DEPTH = 0.06;

/** Parts of a toner to a hundred parts of the mix's carrier for a depth in one nominal coat. */
export function tonerParts(system: EffectSystem, dose: TonerDose): number {
  const known = system.dyes.find((d) => d.dyeId === dose.dyeId);
  const carrier = system.parts[0]?.parts ?? 1;
  const inCup = known ? system.parts.at(-1)!.parts : 0;
  // A dye that is already in the mix is counted in the mix's own parts.
  if (known && inCup > 0 && system.parts.length > 1) return ((dose.depth / known.depth) * inCup * 100) / carrier;
  return dose.depth / (TONER_DEPTH * (system.filmUm / 10));
}
