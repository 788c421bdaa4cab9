import type { Lab } from '@steady-gleam/core/colour';
import {
  bestCell,
  describeDifference,
  type MatchMap,
  type MapCell,
  type MapRow,
  type Nudge,
  tonerParts,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { findGround, GROUNDS, type GroundMaterial, type EffectMix, type Library } from '@steady-gleam/core/materials';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { exposuresByAngle } from '../../shared/screenColour';
import { sayAngle } from '../../shared/angles';

export function rowOf(map: MatchMap, groundId: string): MapRow {
  return map.rows.find((r) => r.groundId === groundId) ?? map.rows[0]!;
}

export function cellOf(map: MatchMap, groundId: string, coats: number): MapCell {
  const row = rowOf(map, groundId);
  return row.cells.reduce((a, b) => (Math.abs(b.coats - coats) < Math.abs(a.coats - coats) ? b : a));
}

const span = (w: readonly [number, number]) => `${w[0].toFixed(1)} and ${w[1].toFixed(1)}`;

/** The sentence on top of the map, and its reason. */
export function sayAnswer(
  map: MatchMap,
  grounds: readonly GroundMaterial[] = GROUNDS,
): { answer: string; why: string } {
  const { best, forgiving } = map;
  const groundName = (id: string): string => findGround(id, grounds).name;
  const saidGround = (id: string): string => groundName(id).toLowerCase();
  const row = rowOf(map, best.groundId);
  const cell = cellOf(map, best.groundId, best.coats);
  const name = groundName(best.groundId);
  if (!row.stop.window) {
    const worst = cell.score.differences.reduce((a, d, i, all) => (d > all[a]! ? i : a), 0);
    return {
      answer: `No ground here reaches it. Closest is ${name.toLowerCase()} at ${countCoats(best.coats)}.`,
      why: `It is off by ${cell.score.differences[worst]!.toFixed(1)} dE00 at its worst angle, ${cell.score.rmsDe.toFixed(1)} over all.`,
    };
  }
  const [, hi] = row.stop.window;
  const onHalfStep = cell.score.toleranceRatio <= 1;
  const tail = row.stop.closes
    ? `the window closes at ${hi.toFixed(1)}, and a coat too many can't be taken back`
    : 'it stays inside to the last coat shown';
  const others = map.rows.filter((r) => r.stop.window && r.groundId !== best.groundId);
  const other = others.length
    ? ` ${groundName(others[0]!.groundId)} also reaches it, between ${span(others[0]!.stop.window!)}.`
    : ' No other ground here reaches it.';
  const easier =
    forgiving && forgiving.groundId !== best.groundId ? ` Most forgiving is ${saidGround(forgiving.groundId)}.` : '';
  return {
    answer: `${name}, ${onHalfStep ? countCoats(best.coats) : `${row.stop.best.coats.toFixed(1)} coats`} in the nominal hand.`,
    why: `Between ${span(row.stop.window)} coats every angle passes; ${tail}.${onHalfStep ? '' : ' No half step falls inside.'}${easier || other} Your card will say what your hand makes of it.`,
  };
}

/** What the closest place lacks where it is furthest off, and the toner that would give it. */
export function sayMissing(
  map: MatchMap,
  target: readonly TargetAngle[],
  help: Nudge | null,
  library: Library,
  system: EffectMix,
): string {
  const { labs, score } = cellOf(map, map.best.groundId, map.best.coats);
  const worst = score.differences.reduce(
    (a, d, i, all) => (d / target[i]!.tolerance > all[a]! / target[a]!.tolerance ? i : a),
    0,
  );
  const lacks = `At ${sayAngle(target[worst]!)} nothing here is as it should be: the target is ${describeDifference(labs[worst]!, target[worst]!.lab).text}.`;
  if (!help)
    return `${lacks} No dye of the shop adds that; try another strength, style or mix, or a ground of its colour.`;
  const doses = help.full.doses.map((d) => {
    const dye = library.dyes.find((m) => m.id === d.dyeId)!;
    return `${tonerParts(system, d).toFixed(1)} parts of ${dye.name.toLowerCase()}`;
  });
  return `${lacks} Add ${doses.join(' and ')} to 100 of ${system.parts[0]?.name ?? 'its carrier'}: about dE00 ${help.full.rmsDe.toFixed(1)} then.`;
}

/** Chroma under which a ground is a grey step, C*; ours. */
const NEUTRAL = 4;

/**
 * Which grey step a weak-hiding colour wants under its specified count, and what a lighter and a darker one would do to it.
 * @param counts the specified ones. @returns null where the library has fewer than two grey steps
 */
export function sayGreyStep(
  map: MatchMap,
  target: readonly TargetAngle[],
  grounds: readonly GroundMaterial[],
  counts: readonly number[],
): string | null {
  const at45 = target.reduce(
    (best, t, g) => (Math.abs(t.aspecular - 45) < Math.abs(target[best]!.aspecular - 45) ? g : best),
    0,
  );
  const steps = grounds
    .filter((g) => !g.flakes && Math.hypot(g.lab[1], g.lab[2]) < NEUTRAL)
    .sort((a, b) => b.lab[0] - a.lab[0])
    .map((ground) => {
      const cells = counts.map((n) => cellOf(map, ground.id, n));
      return { ground, cell: cells.reduce((a, b) => (b.score.rmsDe < a.score.rmsDe ? b : a)) };
    });
  if (steps.length < 2) return null;
  const best = steps.reduce((a, b) => (b.cell.score.rmsDe < a.cell.score.rmsDe ? b : a));
  const i = steps.indexOf(best);
  const turns = (step: (typeof steps)[number] | undefined) =>
    step
      ? `over ${step.ground.name.toLowerCase()} it comes out ${describeDifference(target[at45]!.lab, step.cell.labs[at45]!).text}`
      : null;
  const others = [turns(steps[i - 1]), turns(steps[i + 1])].filter((t): t is string => t !== null);
  const [few, many] = [counts[0]!, counts.at(-1)!];
  return `At the specified ${sayCoats(few)} to ${sayCoats(many)} coats ${best.ground.name.toLowerCase()} is its grey step, dE00 ${best.cell.score.rmsDe.toFixed(1)}: ${others.join('; ')}.`;
}

/** Colours further from the target than this many units do not set the exposure. */
const NEAR_ENOUGH = 14;

/** One exposure an angle for the whole map: the target and every cell that comes near it fit the screen. */
export function mapExposures(map: MatchMap, target: readonly TargetAngle[]): number[] {
  const near: Lab[][] = [target.map((t) => t.lab)];
  for (const row of map.rows) for (const c of row.cells) if (c.score.rmsDe < NEAR_ENOUGH) near.push([...c.labs]);
  return exposuresByAngle(near);
}

/** Where a coat count lies on a map of half steps, in columns from the left edge. */
export function columnAt(coats: number, columns: number): number {
  return Math.min(columns, Math.max(0, coats * 2 - 0.5));
}

export const columnLabel = sayCoats;

/** Farther off than this, dE00 over all angles, no cell says its figure: it would round to 10; ours. */
export const SAY_UP_TO = 9.95;
/** So many grounds stay on the map, however far they are off. */
const LEAST_ROWS = 3;

/** Grounds that come near a map's target, or nearest to it; the others are folded away. */
export function nearGrounds({ rows }: MatchMap): ReadonlySet<string> {
  const off = (row: MapRow) => bestCell(row).score.rmsDe;
  const nearest = [...rows].sort((a, b) => off(a) - off(b));
  return new Set(nearest.filter((row, i) => i < LEAST_ROWS || off(row) <= SAY_UP_TO).map((row) => row.groundId));
}

/** What is folded away, in one line. */
export function sayFolded(folded: readonly MapRow[], grounds: readonly GroundMaterial[]): string {
  const nearest = folded.reduce((a, b) => (bestCell(b).score.rmsDe < bestCell(a).score.rmsDe ? b : a));
  const { name, words = name } = findGround(nearest.groundId, grounds);
  const off = `${bestCell(nearest).score.rmsDe.toFixed(0)} dE00`;
  return folded.length === 1
    ? `One more ground is far off: ${words}, by ${off}.`
    : `${folded.length} more grounds are far off, the nearest, ${words}, by ${off}.`;
}
