import { fanAt } from '../spraying/gunFilm';
import type { GunSample, PracticeGun } from './deposit';
import { END_CM, type PassRow } from './passRows';

/** How an arm, or a hand that is thought of, lays a coat. */
export interface ArmSettings {
  readonly overlap: number;
  readonly speedCmS: number;
  readonly distanceCm: number;
  /** Trigger on before the edge and off beyond it, cm; below zero late and early. */
  readonly marginCm: number;
  /** Speed in the last stretch over the panel, against the middle. */
  readonly endSpeed: number;
  /** Every panel by itself instead of all in one walk. */
  readonly apart: boolean;
  /** Errors of the lines and of the speeds (ln) by pass, in turn. */
  readonly aimCm: readonly number[];
  readonly speedLn: readonly number[];
}

/** The gun's own way: what a coat is reckoned with. */
export const ownWay = (gun: PracticeGun, marginCm: number): ArmSettings => ({
  overlap: gun.overlap,
  speedCmS: gun.speedCmS,
  distanceCm: gun.distanceCm,
  marginCm,
  endSpeed: 1,
  apart: false,
  aimCm: [],
  speedLn: [],
});

/** What is laid on: widths of the panels and their height, cm. */
export interface Panels {
  readonly panels: readonly number[];
  readonly heightCm: number;
}

/** Spans of the panels along the side, or of all of it. */
export function spansOf(panels: readonly number[], apart: boolean): (readonly [number, number])[] {
  const width = panels.reduce((a, b) => a + b, 0);
  if (!apart) return [[0, width]];
  let from = 0;
  return panels.map((w) => [from, (from += w)] as const);
}

/** Lines that cover a height: as many as touch it. @returns cm from the top */
export function linesOver(heightCm: number, fanCm: number, pitchCm: number): number[] {
  const first = -Math.ceil(fanCm / 2 / pitchCm) + 1;
  const lines: number[] = [];
  for (let k = first; k * pitchCm < heightCm + fanCm / 2; k++) if (k * pitchCm > -fanCm / 2) lines.push(k * pitchCm);
  return lines;
}

/** The passes an arm makes. */
export function armRows(gun: PracticeGun, { panels, heightCm }: Panels, arm: ArmSettings): PassRow[] {
  const fan = fanAt(gun, arm.distanceCm);
  const lines = linesOver(heightCm, fan, fan * (1 - arm.overlap));
  return spansOf(panels, arm.apart).flatMap(([from, to], n) =>
    lines.map((line, k): PassRow => {
      const there = k % 2 === 0;
      const speed = arm.speedCmS * Math.exp(arm.speedLn[(k + n) % Math.max(1, arm.speedLn.length)] ?? 0);
      const [a, b] = [from - arm.marginCm, to + arm.marginCm];
      return {
        ...{ from: there ? a : b, to: there ? b : a, held: [false, false], speed, d: arm.distanceCm },
        y: line + (arm.aimCm[(k + n) % Math.max(1, arm.aimCm.length)] ?? 0),
        ends: [speed * arm.endSpeed, speed * arm.endSpeed],
      };
    }),
  );
}

/** Passes as the gun would move along them, one after the other; between them it goes over with the trigger off. */
export function samplesOf(rows: readonly PassRow[], { panels }: Panels): GunSample[] {
  const width = panels.reduce((a, b) => a + b, 0);
  const samples: GunSample[] = [];
  let t = 0;
  for (const row of rows) {
    const before = samples.at(-1);
    if (before) t += Math.hypot(row.from - before.x, row.y - before.y) / row.speed;
    const [left, right] = row.ends;
    const speedAt = (x: number) =>
      x < END_CM ? (left ?? row.speed) : x > width - END_CM ? (right ?? row.speed) : row.speed;
    const way = Math.sign(row.to - row.from);
    const inside = (x: number) => (x - row.from) * way > 1e-9 && (row.to - x) * way > 1e-9;
    const stops = [row.from, ...[END_CM, width - END_CM].filter(inside).sort((a, b) => way * (a - b)), row.to];
    stops.forEach((x, i) => {
      if (i) t += Math.abs(x - stops[i - 1]!) / speedAt((x + stops[i - 1]!) / 2);
      samples.push({ t, x, y: row.y, d: row.d, on: i < stops.length - 1 });
    });
  }
  return samples;
}

/** The same way with a sample at least this often, s: for what is shown in its own time. */
export function samplesEvery(samples: readonly GunSample[], seconds: number): GunSample[] {
  return samples.flatMap((s, i) => {
    const next = samples[i + 1];
    if (!next) return [s];
    const pieces = Math.max(1, Math.ceil((next.t - s.t) / seconds));
    return Array.from({ length: pieces }, (_, k): GunSample => {
      const at = (a: number, b: number) => a + (k / pieces) * (b - a);
      return { t: at(s.t, next.t), x: at(s.x, next.x), y: at(s.y, next.y), d: at(s.d, next.d), on: s.on };
    });
  });
}
