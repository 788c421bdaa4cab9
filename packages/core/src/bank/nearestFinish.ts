import { whitePoint, D65_10 } from '../colour/tristimulus';
import { type Lab, labToXyz, xyzToLab } from '../colour/lab';
import {
  type Near,
  type AngleLab,
  sharedAngles,
  largestDifference,
  differences,
  order,
  type BankReading,
  sharedNeeded,
  keyOf,
  type BankIndex,
  nearestReadings,
} from './nearest';

const WHITE = whitePoint(D65_10);
/** XYZ below this is black: the log of nothing has none. The white is 100. */
const DARKEST = 1e-4;
/** Logs of a colour's XYZ: between two rungs the film takes away in the same proportion, so that they are even. */
const logsOf = (lab: Lab): Lab => {
  const [x, y, z] = labToXyz(lab, WHITE);
  const log = (v: number) => Math.log(Math.max(DARKEST, v));
  return [log(x), log(y), log(z)];
};
const ofLogs = (low: Lab, high: Lab, share: number): Lab => {
  const at = (k: 0 | 1 | 2) => Math.exp(low[k] * (1 - share) + high[k] * share);
  return xyzToLab([at(0), at(1), at(2)], WHITE);
};
/** What of the bank comes nearest: of each card the count of coats that fits best, also between two rungs. */
export interface NearestFinish extends Omit<Near, 'at'> {
  readonly finishId: string;
  readonly cardId: string | null;
  /** Effect coats, a fraction where it lies between two rungs; null for what was matched without a rung near it. */
  readonly coats: number | null;
  /** Rungs it was worked out from: one that was read, or the two it lies between. */
  readonly rungs: readonly number[];
  /** Its look there at the angles asked that it has. */
  readonly angles: readonly AngleLab[];
}

/** Counts are looked for so finely between two rungs, of a coat; first in so many wider steps. */
const [FINE, WIDE] = [0.05, 5] as const;
/** A count of a card, read or worked out between two rungs, and how near it is. */
interface Count {
  readonly coats: number;
  readonly rungs: readonly number[];
  readonly angles: readonly AngleLab[];
  readonly near: Near;
}

/** A rung as it was read. */
export interface ReadRung {
  readonly coats: number;
  readonly angles: readonly AngleLab[];
}

/** Looks between two rungs at the angles both were read at. @returns the look at a count */
function between(low: ReadRung, high: ReadRung): (coats: number) => AngleLab[] {
  const pairs = sharedAngles(low.angles, high.angles).map((g) => ({ g, from: logsOf(g.lab), to: logsOf(g.other) }));
  return (coats) => {
    const share = (coats - low.coats) / (high.coats - low.coats);
    return pairs.map(({ g, from, to }) => ({
      ...{ incidence: g.incidence, aspecular: g.aspecular },
      lab: ofLogs(from, to, share),
    }));
  };
}

/** Counts a curve is drawn through, between two rungs. */
const CURVE_STEPS = 10;
/** How far a card is from what is looked for over its counts, dE00 at the worst shared angle. @param rungs by their coats */
export function differenceAlong(
  rungs: readonly ReadRung[],
  asked: readonly AngleLab[],
): { readonly coats: number; readonly off: number }[] {
  const at = (coats: number, angles: readonly AngleLab[]) => {
    const off = largestDifference(asked, angles);
    return off === null ? [] : [{ coats, off }];
  };
  return rungs.flatMap((low, i) => {
    const high = rungs[i + 1];
    if (!high || high.coats <= low.coats) return at(low.coats, low.angles);
    const look = between(low, high);
    const inside = Array.from(
      { length: CURVE_STEPS - 1 },
      (_, k) => low.coats + ((high.coats - low.coats) * (k + 1)) / CURVE_STEPS,
    );
    return [...at(low.coats, low.angles), ...inside.flatMap((coats) => at(coats, look(coats)))];
  });
}

/** The best count between two rungs: in wide steps, then finely about the best of them. */
function bestBetween(low: ReadRung, high: ReadRung, asked: readonly AngleLab[]): Count | null {
  const span = high.coats - low.coats;
  if (span <= FINE) return null;
  const look = between(low, high);
  const at = (coats: number): Count => {
    const angles = look(coats);
    return { coats, rungs: [low.coats, high.coats], angles, near: differences(asked, angles, 0) };
  };
  const better = (a: Count, b: Count): Count => (order(b.near, a.near) < 0 ? b : a);
  const wide = Array.from({ length: WIDE - 1 }, (_, i) => at(low.coats + (span * (i + 1)) / WIDE)).reduce(better);
  const reach = Math.ceil(span / WIDE / FINE) - 1;
  return Array.from({ length: 2 * reach + 1 }, (_, i) => wide.coats + (i - reach) * FINE)
    .filter((coats) => coats > low.coats + 1e-9 && coats < high.coats - 1e-9)
    .map(at)
    .reduce(better, wide);
}

/** The best count of a card: a rung that was read before one that is worked out. @param rungs by their coats */
function bestOfCard(rungs: readonly BankReading[], asked: readonly AngleLab[]): NearestFinish[] {
  const { finishId, cardId } = rungs[0]!;
  const need = sharedNeeded(asked.length);
  const read = rungs.map((r): Count => ({
    coats: r.coats!,
    rungs: [r.coats!],
    angles: r.angles,
    near: differences(asked, r.angles, 0),
  }));
  const fitting = read.filter((c) => c.near.shared >= need);
  if (!fitting.length) return [];
  const nearest = read.indexOf(fitting.reduce((a, b) => (order(b.near, a.near) < 0 ? b : a)));
  // A ladder goes one way: what fits better lies beside the rung that fits best.
  const inside = [nearest - 1, nearest].flatMap((i) => {
    const [low, high] = [read[i], read[i + 1]];
    const count = low && high ? bestBetween(low, high, asked) : null;
    return count && count.near.shared >= need ? [count] : [];
  });
  const best = [read[nearest]!, ...inside].reduce((a, b) => (order(b.near, a.near) < 0 ? b : a));
  const { max, mean, shared } = best.near;
  return [
    {
      ...{ finishId, cardId, coats: Number(best.coats.toFixed(2)), rungs: best.rungs },
      ...{ max, mean, shared },
      angles: best.angles.filter((g) => asked.some((h) => keyOf(h) === keyOf(g))),
    },
  ];
}

/** So many of the nearest readings are looked at for their cards, for each that is wanted. */
const READINGS_EACH = 8;
/**
 * The finishes of the bank nearest to a reading, each once by its best card: at a rung that was read, at a count between two of its
 * rungs, or by what it was matched to.
 * @param asked at different geometries, at least one @param count how many are wanted
 */
export function nearestFinishes(index: BankIndex, asked: readonly AngleLab[], count: number): NearestFinish[] {
  if (!asked.length) return [];
  const near = nearestReadings(index, asked, READINGS_EACH * count);
  const found = near.map((n) => index.readings[n.at]!);
  const cards = new Set(found.flatMap((r) => (r.cardId === null ? [] : [r.cardId])));
  const rungs = new Map<string, BankReading[]>();
  for (const r of index.readings)
    if (r.cardId !== null && cards.has(r.cardId)) rungs.set(r.cardId, [...(rungs.get(r.cardId) ?? []), r]);
  const byCard = [...rungs.values()].flatMap((own) =>
    bestOfCard(
      own.toSorted((p, q) => p.coats! - q.coats!),
      asked,
    ),
  );
  const byTarget = near.flatMap((n): NearestFinish[] => {
    const { finishId, cardId, angles } = index.readings[n.at]!;
    if (cardId !== null) return [];
    const own = angles.filter((g) => asked.some((h) => keyOf(h) === keyOf(g)));
    return [{ finishId, cardId, coats: null, rungs: [], max: n.max, mean: n.mean, shared: n.shared, angles: own }];
  });
  // A count says more than a target: it stands for its finish.
  const best = new Map<string, NearestFinish>();
  for (const f of [...byCard, ...byTarget]) {
    const known = best.get(f.finishId);
    const better =
      known && (known.coats === null) === (f.coats === null) && order({ ...f, at: 0 }, { ...known, at: 0 }) < 0;
    if (!known || better) best.set(f.finishId, f);
  }
  return [...best.values()].sort((p, q) => order({ ...p, at: 0 }, { ...q, at: 0 })).slice(0, count);
}
