import { de2000 } from '../colour/difference';
import { type Lab } from '../colour/lab';

/** A colour at one geometry, degrees. */
export interface AngleLab {
  readonly incidence: number;
  readonly aspecular: number;
  readonly lab: Lab;
}

/** A reading the bank holds: a rung of a card, or what a finish was matched to. */
export interface BankReading {
  readonly id: string;
  readonly finishId: string;
  /** The card a rung is of; null for a target. */
  readonly cardId: string | null;
  /** Effect coats of a rung; null for a target. */
  readonly coats: number | null;
  readonly angles: readonly AngleLab[];
}

/** How far a reading is from what was asked. */
export interface Near {
  /** Its number among the readings. */
  readonly at: number;
  /** Largest CIEDE2000 over the angles both have. */
  readonly max: number;
  /** Mean of them. */
  readonly mean: number;
  /** How many angles both have. */
  readonly shared: number;
}

/** Colours of one geometry, one place a reading; NaN where it has none. */
interface Column {
  readonly key: string;
  readonly l: Float64Array;
  readonly a: Float64Array;
  readonly b: Float64Array;
  /** Chroma. */
  readonly c: Float64Array;
  /** How many readings have it. */
  count: number;
}

/** Readings laid out for the search. */
export interface BankIndex {
  readonly readings: readonly BankReading[];
  readonly columns: readonly Column[];
}

export const keyOf = (g: Pick<AngleLab, 'incidence' | 'aspecular'>): string => `${g.incidence}/${g.aspecular}`;

/** Lays readings out for {@link nearestReadings}. */
export function bankIndex(readings: readonly BankReading[]): BankIndex {
  const columns = new Map<string, Column>();
  const empty = () => new Float64Array(readings.length).fill(NaN);
  readings.forEach(({ angles }, i) => {
    for (const g of angles) {
      const key = keyOf(g);
      const column = columns.get(key) ?? { key, l: empty(), a: empty(), b: empty(), c: empty(), count: 0 };
      columns.set(key, column);
      [column.l[i], column.a[i], column.b[i]] = g.lab;
      column.c[i] = Math.hypot(g.lab[1], g.lab[2]);
      column.count++;
    }
  });
  return { readings, columns: [...columns.values()] };
}

/** A reading has to share so many of the angles that were asked for: half of them. */
export const sharedNeeded = (asked: number): number => Math.max(1, Math.ceil(asked / 2));

/** The largest difference first, to a tenth; what is alike in that, by the mean, then by its place. */
export const order = (p: Near, q: Near): number =>
  Math.round(p.max * 10) - Math.round(q.max * 10) || p.mean - q.mean || p.at - q.at;

/** Angles that two readings share, in the order of the first, with the colours of both. */
export const sharedAngles = (
  own: readonly AngleLab[],
  other: readonly AngleLab[],
): (AngleLab & { readonly other: Lab })[] =>
  own.flatMap((g) => {
    const found = other.find((h) => h.incidence === g.incidence && h.aspecular === g.aspecular);
    return found ? [{ ...g, other: found.lab }] : [];
  });

export function differences(asked: readonly AngleLab[], angles: readonly AngleLab[], at: number): Near {
  let [max, sum, shared] = [0, 0, 0];
  for (const g of asked) {
    const own = angles.find((h) => h.incidence === g.incidence && h.aspecular === g.aspecular);
    if (!own) continue;
    const de = de2000(g.lab, own.lab);
    max = Math.max(max, de);
    sum += de;
    shared++;
  }
  return { at, max, mean: shared ? sum / shared : 0, shared };
}

/** Largest CIEDE2000 over the angles two readings share; null where they share none. */
export function largestDifference(asked: readonly AngleLab[], angles: readonly AngleLab[]): number | null {
  const { max, shared } = differences(asked, angles, 0);
  return shared ? max : null;
}

/** The nearest readings by looking at every one of them: what {@link nearestReadings} is held to. */
export function nearestByScan(readings: readonly BankReading[], asked: readonly AngleLab[], count: number): Near[] {
  const need = sharedNeeded(asked.length);
  return readings
    .map((r, at) => differences(asked, r.angles, at))
    .filter((n) => n.shared >= need)
    .sort(order)
    .slice(0, count);
}

const POW25_7 = 25 ** 7;
/** The hue weight T of CIEDE2000: its most, and how fast it turns with hue, per radian (sums of its terms). */
const T_MOST = 1 + 0.17 + 0.24 + 0.32 + 0.2;
const T_SLOPE = 0.17 + 2 * 0.24 + 3 * 0.32 + 4 * 0.2;
/** Size of the rotation term, without its chroma, by whole degrees of hue from 275; it falls with them. */
const ROTATION = Float64Array.from({ length: 182 }, (_, d) => Math.sin((Math.PI / 3) * Math.exp(-((d / 25) ** 2))));

const cos = (degrees: number): number => Math.cos((degrees * Math.PI) / 180);
const stretchAt = (chroma: number): number => {
  const c2 = chroma * chroma;
  const c7 = c2 * c2 * c2 * chroma;
  return 1.5 - 0.5 * Math.sqrt(c7 / (c7 + POW25_7));
};

/**
 * A lower bound of CIEDE2000, squared, from one colour to each of a column, without angle functions in the loop: lightness and
 * chroma are the formula's own; how far the mean hue can lie from the colour's bounds the hue weight from above, and the rotation
 * term, which is never positive, from below. Each place keeps the largest over the columns it was called for.
 * @param upTo places that are beyond it already are left as they are
 */
function widen(column: Column, [l1, a, b1]: Lab, bound: Float64Array, upTo: number): void {
  const chroma1 = Math.hypot(a, b1);
  const stretch1 = stretchAt(chroma1);
  const hue = (Math.atan2(b1, a * stretch1) * 180) / Math.PI;
  const t1 = 1 - 0.17 * cos(hue - 30) + 0.24 * cos(2 * hue) + 0.32 * cos(3 * hue + 6) - 0.2 * cos(4 * hue - 63);
  const turn = Math.abs(((hue + 360) % 360) - 275);
  const from275 = Math.min(turn, 360 - turn);
  for (let i = 0; i < bound.length; i++) {
    const l2 = column.l[i]!;
    if (l2 !== l2 || bound[i]! > upTo) continue;
    const b2 = column.b[i]!;
    const stretch = stretchAt((chroma1 + column.c[i]!) / 2);
    const a1 = a * stretch;
    const a2 = column.a[i]! * stretch;
    const c1 = Math.sqrt(a1 * a1 + b1 * b1);
    const c2 = Math.sqrt(a2 * a2 + b2 * b2);
    const dC = c2 - c1;
    const [da, db] = [a2 - a1, b2 - b1];
    const dH2 = Math.max(0, da * da + db * db - dC * dC);
    // The mean hue lies no further off than this, rad: the arc of half the hue's sine, and what the stretch turns.
    const off = (Math.PI / 2) * Math.min(1, Math.sqrt(dH2 / (4 * c1 * c2 + 1e-12))) + Math.abs(stretch - stretch1) / 2;
    const m50 = ((l1 + l2) / 2 - 50) ** 2;
    const cBar = (c1 + c2) / 2;
    const x = (l2 - l1) / (1 + (0.015 * m50) / Math.sqrt(20 + m50));
    const y = dC / (1 + 0.045 * cBar);
    const z = Math.sqrt(dH2) / (1 + 0.015 * cBar * Math.min(T_MOST, t1 + T_SLOPE * off));
    let d = x * x + y * y + z * z;
    if (dC !== 0 && a1 * b2 - a2 * b1 > 0 === dC > 0) {
      const cBar2 = cBar * cBar;
      const c7 = cBar2 * cBar2 * cBar2 * cBar;
      const degrees = Math.max(0, from275 - off * (180 / Math.PI));
      const turned = 2 * Math.sqrt(c7 / (c7 + POW25_7)) * ROTATION[Math.floor(degrees)]! * Math.abs(y);
      // The hue's part may be larger than z; it is least where the rotation takes half of itself away.
      const most = Math.max(z, turned / 2);
      d += most * most - z * z - turned * most;
    }
    if (d > bound[i]!) bound[i] = d;
  }
}

/** Places with the lowest bounds, the lowest first: so many, and none beyond a difference. */
function lowest(bound: Float64Array, most: number, upTo = Infinity): number[] {
  const places: number[] = [];
  // Sorting all would take longer than everything else: first a cut that leaves enough.
  let cut = upTo * upTo;
  if (most < bound.length) {
    const sample = bound.filter((_, i) => i % 16 === 0).sort();
    cut = Math.min(cut, sample[Math.min(sample.length - 1, Math.ceil((2 * most) / 16) + 2)] ?? Infinity);
  }
  for (let i = 0; i < bound.length; i++) if (bound[i]! <= cut) places.push(i);
  return places.sort((p, q) => bound[p]! - bound[q]! || p - q).slice(0, most);
}

/**
 * The readings nearest to one, by the largest CIEDE2000 over the angles both have, then the mean: the same answer as
 * {@link nearestByScan}, in a fraction of its time. A lower bound of the difference says which few are worth the exact formula; it
 * is worked out for one after the other, until no other can be among the nearest.
 * @param asked readings at different geometries, at least one @param count how many are wanted
 */
export function nearestReadings({ readings, columns }: BankIndex, asked: readonly AngleLab[], count: number): Near[] {
  const need = sharedNeeded(asked.length);
  const own = asked
    .flatMap((g) => {
      const column = columns.find((c) => c.key === keyOf(g));
      return column ? [{ column, lab: g.lab }] : [];
    })
    .sort((p, q) => q.column.count - p.column.count);
  const bound = new Float64Array(readings.length);
  const exact = (i: number): Near => differences(asked, readings[i]!.angles, i);
  // What is alike to a tenth goes by the mean, so it counts too.
  const lastOf = (found: Near[]): number => (found.sort(order)[count - 1]?.max ?? Infinity) + 0.1;
  let last = Infinity;
  for (const [k, { column, lab }] of own.entries()) {
    widen(column, lab, bound, last * last);
    // By one angle most are out already: the nearest there say how near is near enough.
    if (k === 0)
      last = lastOf(
        lowest(bound, 2 * count)
          .map(exact)
          .filter((n) => n.shared >= need),
      );
  }
  const inOrder = lowest(bound, readings.length, last);
  const found: Near[] = [];
  for (let from = 0; from < inOrder.length; from += count) {
    if (bound[inOrder[from]!]! > last * last) break;
    found.push(
      ...inOrder
        .slice(from, from + count)
        .map(exact)
        .filter((n) => n.shared >= need),
    );
    last = Math.min(last, lastOf(found));
  }
  return found.sort(order).slice(0, count);
}
