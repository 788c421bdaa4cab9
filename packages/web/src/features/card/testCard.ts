import { noiseOf, seekTarget, type CardSaid, type EyeRead, type Ladder } from '@steady-gleam/core/letdown';

/** Angles of the invented cards of tests. */
export const TEST_ANGLES = [15, 45] as const;

/** A straight ladder that darkens by so much a coat at both angles. */
export const straightLadder = (slope = 4): Ladder => ({
  outputs: 6,
  values: Float64Array.from({ length: 161 * 6 }, (_, i) =>
    i % 3 === 0 ? 80 - slope * 0.05 * Math.floor(i / 6) : i % 3 === 1 ? 20 : 10,
  ),
});

/** A card on it that says a count, with its window about that. */
export function testCard(best: number, halfWidth = 0.4, more: Partial<CardSaid> = {}): CardSaid {
  const ladder = straightLadder();
  const deviations = Array.from({ length: 41 }, (_, i) => (i - 20) / 200);
  return {
    fit: null,
    ladder,
    nominal: ladder,
    nominalBest: best,
    sought: seekTarget({
      angles: TEST_ANGLES.map((aspecular) => ({
        incidence: 45,
        aspecular,
        lab: [80 - 4 * best, 20, 10],
        tolerance: 1.4,
      })),
      spots: 3,
      sameInstrument: true,
      noise: noiseOf(null, []),
    }),
    best,
    deviations,
    card90: [best - 0.1, best + 0.1],
    object90: [best * 0.85, best * 1.15],
    window: { counts: [best - halfWidth, best + halfWidth], inside: true, closes: true, ratio: 0.4 },
    nextRung: null,
    ...more,
  };
}

export const testRead: EyeRead = { ladders: [{ ladder: straightLadder(), weight: 1 }], aspecular: TEST_ANGLES };
