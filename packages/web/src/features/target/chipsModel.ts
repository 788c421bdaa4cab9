import type { ReadingSet } from '@steady-gleam/contracts';
import { de2000, type Lab } from '@steady-gleam/core/colour';
import { averageReadings, type AveragedAngle } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';

/** A variant chip against the object. */
export interface RankedChip {
  readonly label: string;
  /** In the target's order; null where the chip was not read. */
  readonly labs: readonly (Lab | null)[];
  readonly rmsDe: number;
  /** Angle index where it is furthest off. */
  readonly worst: number | null;
}

const at = (angles: readonly AveragedAngle[], t: TargetAngle): Lab | null =>
  angles.find((a) => a.incidence === t.incidence && a.aspecular === t.aspecular)?.lab ?? null;

const rms = (values: readonly number[]) =>
  Math.sqrt(values.reduce((s, v) => s + v * v, 0) / Math.max(1, values.length));

/** Chips by their distance from the object over the angles both were read at, nearest first. */
export function rankChips(chips: readonly ReadingSet[], target: readonly TargetAngle[]): RankedChip[] {
  return chips
    .map((chip): RankedChip => {
      const averaged = averageReadings(chip.readings);
      const labs = target.map((t) => at(averaged, t));
      const off = labs.map((lab, g) => (lab ? de2000(target[g]!.lab, lab) : null));
      const read = off.filter((d): d is number => d !== null);
      const most = Math.max(...read);
      return {
        label: chip.label,
        labs,
        rmsDe: read.length ? rms(read) : Infinity,
        worst: read.length ? off.indexOf(most) : null,
      };
    })
    .sort((a, b) => a.rmsDe - b.rmsDe);
}

/** The rung nearest to the object over the angles both were read at; null where none shares an angle. */
export function nearestRung(rungs: readonly ReadingSet[], target: readonly TargetAngle[]): ReadingSet | null {
  const off = (set: ReadingSet): number => {
    const averaged = averageReadings(set.readings);
    const read = target.flatMap((t) => {
      const lab = at(averaged, t);
      return lab ? [de2000(t.lab, lab)] : [];
    });
    return read.length ? rms(read) : Infinity;
  };
  const ranked = rungs.map((set) => ({ set, off: off(set) })).filter((r) => r.off < Infinity);
  return ranked.length ? ranked.reduce((a, b) => (b.off < a.off ? b : a)).set : null;
}

/** The triangle chip, card, object in a sentence: what the chip says and what the spray really gave. */
export function sayTriangle(
  chip: RankedChip,
  card: readonly AveragedAngle[],
  target: readonly TargetAngle[],
  coats: number,
): string | null {
  const sides = target.flatMap((t, g) => {
    const [c, s] = [chip.labs[g], at(card, t)];
    return c && s ? [{ chipCard: de2000(c, s), cardObject: de2000(s, t.lab), chipObject: de2000(c, t.lab) }] : [];
  });
  if (!sides.length) return null;
  const [cc, co, ch] = (['chipCard', 'cardObject', 'chipObject'] as const).map((k) => rms(sides.map((s) => s[k])));
  const trust =
    co! < ch! * 0.8
      ? 'The sprayed card is nearer to the object than the chip: trust the card.'
      : ch! < co! * 0.8
        ? 'The chip is nearer to the object than what was sprayed: look at mix and hand before the next card.'
        : 'Chip and card are about as far from the object as each other.';
  return `Chip to card ${cc!.toFixed(1)}, card (${coats} coats) to object ${co!.toFixed(1)}, chip to object ${ch!.toFixed(1)} dE00. ${trust}`;
}

/** How many times as far as the others are from their own mean a spot is off that stands apart. Ours: evenly spaced ones are at 3. */
const APART = 4;

/**
 * Spots that stand apart from the others, with how far: over one unit, and {@link APART} times as far from the others' mean as the
 * middle one of them. Held against the others only, the odd one of three is found too; by their middle one, two of nine are.
 */
export function outlyingSpots(set: Pick<ReadingSet, 'readings'>): { spot: string; off: number }[] {
  const spots = [...new Set(set.readings.map((r) => r.spot))];
  if (spots.length < 3) return [];
  const of = (spot: string) => set.readings.filter((r) => r.spot === spot);
  return spots.flatMap((spot) => {
    const others = spots.filter((s) => s !== spot);
    const mean = averageReadings(set.readings.filter((r) => r.spot !== spot));
    const offOf = (s: string): number =>
      rms(
        of(s).flatMap((r) => {
          const there = mean.find((a) => a.incidence === r.incidence && a.aspecular === r.aspecular);
          return there ? [de2000(there.lab, [r.l, r.a, r.b])] : [];
        }),
      );
    const off = offOf(spot);
    const middle = others.map(offOf).sort((a, b) => a - b)[others.length >> 1]!;
    return off > 1 && off > APART * middle ? [{ spot, off }] : [];
  });
}
