import { fanAt } from '../spraying/gunFilm';
import type { GunSample, PracticeGun } from './deposit';

/** One pass over the panel, as it was moved. */
export interface PassRow {
  /** Where the spray began and ended, cm from the left edge, and which way it went. */
  readonly from: number;
  readonly to: number;
  /** Whether the trigger stayed on through the turn before and after it. */
  readonly held: readonly [boolean, boolean];
  readonly y: number;
  readonly d: number;
  /** In the middle, and in the last stretch over the panel at its left and right end, cm/s; null where it did not come there. */
  readonly speed: number;
  readonly ends: readonly [number | null, number | null];
}

/** Shorter sprays are dabs, no passes; a turn is one when it goes back this far; the stretch that is an end. All cm, ours. */
const [DAB, TURN] = [12, 3] as const;
export const END_CM = 10;

/** Samples of the trigger held, cut where the hand turns back. */
function strokesOf(samples: readonly GunSample[]): { readonly of: GunSample[]; readonly held: [boolean, boolean] }[] {
  const strokes: { of: GunSample[]; held: [boolean, boolean] }[] = [];
  let run: GunSample[] = [];
  let wasHeld = false;
  const close = (held: boolean) => {
    if (run.length > 1) strokes.push({ of: run, held: [wasHeld, held] });
    wasHeld = held;
  };
  let heading = 0;
  let furthest = 0;
  for (const [i, s] of samples.entries()) {
    const before = samples[i - 1];
    if (!s.on && !before?.on) continue;
    if (!before?.on) {
      run = [];
      [wasHeld, heading, furthest] = [false, 0, 0];
    }
    run.push(s);
    const gone = s.x - run[0]!.x;
    if (heading === 0 && Math.abs(gone) > TURN) heading = Math.sign(gone);
    if (heading !== 0) {
      const last = run[furthest] ?? s;
      if (heading * (s.x - last.x) >= 0) furthest = run.length - 1;
      else if (heading * (last.x - s.x) > TURN) {
        const rest = run.slice(furthest);
        run = run.slice(0, furthest + 1);
        close(true);
        run = rest;
        [heading, furthest] = [-heading, rest.length - 1];
      }
    }
    if (!s.on) {
      close(false);
      run = [];
    }
  }
  if (run.length) close(false);
  return strokes;
}

/** Mean speed of a stroke between two places across, cm/s; null where it did not go through there. */
function speedIn(stroke: readonly GunSample[], from: number, to: number): number | null {
  let [time, way] = [0, 0];
  for (let i = 1; i < stroke.length; i++) {
    const [a, b] = [stroke[i - 1]!, stroke[i]!];
    const [low, high] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const inside = Math.min(high, to) - Math.max(low, from);
    if (high - low < 1e-9) {
      // Standing still counts where it is.
      if (a.x >= from && a.x <= to) time += b.t - a.t;
      continue;
    }
    if (inside <= 0) continue;
    const share = inside / (high - low);
    time += share * (b.t - a.t);
    way += share * Math.hypot(b.x - a.x, b.y - a.y);
  }
  return way > 0.5 * (to - from) && time > 0 ? way / time : null;
}

/** The passes of a coat, in the order they were laid. @param widthCm of all panels */
export function passesOf(samples: readonly GunSample[], widthCm: number): PassRow[] {
  return strokesOf(samples).flatMap(({ of, held }): PassRow[] => {
    const [first, last] = [of[0]!, of.at(-1)!];
    if (Math.abs(last.x - first.x) < DAB) return [];
    const [low, high] = [Math.max(0, Math.min(first.x, last.x)), Math.min(widthCm, Math.max(first.x, last.x))];
    if (high - low < DAB / 2) return [];
    let [time, ySum, dSum] = [0, 0, 0];
    for (let i = 1; i < of.length; i++) {
      const dt = of[i]!.t - of[i - 1]!.t;
      time += dt;
      ySum += (dt * (of[i]!.y + of[i - 1]!.y)) / 2;
      dSum += (dt * (of[i]!.d + of[i - 1]!.d)) / 2;
    }
    const reaches = (at: number) => Math.min(first.x, last.x) <= at && Math.max(first.x, last.x) >= at;
    const middle = high - low > 3 * END_CM ? ([low + END_CM, high - END_CM] as const) : ([low, high] as const);
    const speed = speedIn(of, ...middle) ?? Math.abs(last.x - first.x) / Math.max(1e-6, last.t - first.t);
    return [
      {
        ...{ from: first.x, to: last.x, held, speed },
        y: time > 0 ? ySum / time : first.y,
        d: time > 0 ? dSum / time : first.d,
        ends: [
          reaches(END_CM) ? speedIn(of, 0, END_CM) : null,
          reaches(widthCm - END_CM) ? speedIn(of, widthCm - END_CM, widthCm) : null,
        ],
      },
    ];
  });
}

/**
 * How fast the gun moved with the trigger on, from the left edge of the panel to its right one: way over time in each of some
 * stretches. @returns cm/s; null where it was not
 */
export function speedAlong(samples: readonly GunSample[], widthCm: number, stretches: number): (number | null)[] {
  const [time, way] = [new Float64Array(stretches), new Float64Array(stretches)];
  const wide = widthCm / stretches;
  for (let i = 1; i < samples.length; i++) {
    const [a, b] = [samples[i - 1]!, samples[i]!];
    if (!a.on) continue;
    const [low, high] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const from = Math.max(0, Math.floor(low / wide));
    for (let k = from; k < stretches && k * wide <= high; k++) {
      const inside = Math.min(high, (k + 1) * wide) - Math.max(low, k * wide);
      const share = high - low < 1e-9 ? 1 : Math.max(0, inside) / (high - low);
      time[k]! += share * (b.t - a.t);
      way[k]! += share * Math.hypot(b.x - a.x, b.y - a.y);
    }
  }
  return Array.from(time, (t, k) => (t > 0 ? way[k]! / t : null));
}

/** A hand as its passes show it, for pictures of passes: overlap, and scatter from pass to pass as there. */
export interface PractisedHand {
  readonly overlap: number;
  readonly speedSd: number;
  readonly distanceSd: number;
  readonly aimSdCm: number;
  readonly passes: number;
}

const mean = (of: readonly number[]): number => of.reduce((s, v) => s + v, 0) / of.length;
const sd = (of: readonly number[]): number => {
  const m = mean(of);
  return of.length > 1 ? Math.sqrt(of.reduce((s, v) => s + (v - m) ** 2, 0) / (of.length - 1)) : 0;
};

/** What passes say of a hand; null with fewer than four of them. */
export function handOfPasses(rows: readonly PassRow[], gun: PracticeGun): PractisedHand | null {
  if (rows.length < 4) return null;
  const lines = rows.map((r) => r.y).sort((a, b) => a - b);
  const pitches = lines.slice(1).map((y, i) => y - lines[i]!);
  const fan = fanAt(gun, mean(rows.map((r) => r.d)));
  return {
    overlap: 1 - mean(pitches) / fan,
    // A pitch has the errors of two lines.
    aimSdCm: sd(pitches) / Math.SQRT2,
    speedSd: sd(rows.map((r) => Math.log(r.speed))),
    distanceSd: sd(rows.map((r) => Math.log(r.d))),
    passes: rows.length,
  };
}
