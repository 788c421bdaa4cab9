import type { Gun } from '../products/guns';
import { fanAt, landingAt } from '../spraying/gunFilm';
import { TRIGGER_RAMP_CM } from '../spraying/passes';
import { fanShare, type FanProfile } from '../spraying/ripple';

/** The gun that is practised with. At its own distance, speed and overlap it lays one coat. */
export interface PracticeGun extends Pick<Gun, 'fanCm' | 'distanceCm' | 'speedCmS' | 'transfer' | 'pressureBar'> {
  readonly profile: FanProfile;
  /** Overlap at which a pass at the gun's own speed lays one coat, fraction. */
  readonly overlap: number;
}

/** Where a gun is: time s, place on the sheet and distance from it cm, trigger. */
export interface GunSample {
  readonly t: number;
  readonly x: number;
  readonly y: number;
  readonly d: number;
  readonly on: boolean;
}

/** Film on a panel in coats, row by row from the top left, and what went past it, coats times cm2. */
export interface Sheet {
  readonly widthCm: number;
  readonly heightCm: number;
  readonly cellCm: number;
  readonly columns: number;
  readonly rows: number;
  readonly film: Float64Array;
  beyond: number;
}

/** Part of a sheet, in cells; the last ones are not in it. */
export interface Patch {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Side of a cell, cm: a tenth of a usual fan's rim. */
const CELL_CM = 0.5;
/** A stroke is cut so that it moves along the fan by this share of it at most. */
const ALONG_FAN = 1 / 32;
/** And nearer or further by this share of the gun's own distance. */
const ALONG_DISTANCE = 1 / 12;

export function createSheet(widthCm: number, heightCm: number, cellCm = CELL_CM): Sheet {
  const [columns, rows] = [Math.round(widthCm / cellCm), Math.round(heightCm / cellCm)];
  return { widthCm, heightCm, cellCm, columns, rows, film: new Float64Array(columns * rows), beyond: 0 };
}

/** What lands in a second with the trigger full, coats times cm2: its own distance, speed and overlap lay one coat. */
export function landingRate(gun: PracticeGun, distanceCm: number): number {
  const usual = gun.speedCmS * gun.fanCm * (1 - gun.overlap);
  const at = (d: number) => landingAt(gun, { distanceCm: d, pressureBar: gun.pressureBar });
  return (usual * at(distanceCm)) / at(gun.distanceCm);
}

/** Film below a place of a box of width w that moved from a to b at one speed, as a share of all of it. */
function movedBox(at: number, w: number, a: number, b: number): number {
  const box = (u: number) => (u <= -w / 2 ? 0 : u >= w / 2 ? 1 : u / w + 0.5);
  if (Math.abs(b - a) < 1e-9) return box(at - a);
  // The box's share summed over where its middle was.
  const sum = (u: number) => (u <= -w / 2 ? 0 : u >= w / 2 ? u : (u + w / 2) ** 2 / (2 * w));
  return (sum(at - a) - sum(at - b)) / (b - a);
}

/**
 * Lays what lands while the gun moves between two places with the trigger on. Across the pass it lies by the fan, along it in a
 * band as narrow as the trigger's ramp of a pass picture: the same passes lie alike there and here.
 * @returns the cells that changed; null when nothing landed on the panel
 */
export function laySegment(sheet: Sheet, gun: PracticeGun, from: GunSample, to: GunSample): Patch | null {
  const pieces = Math.max(
    1,
    Math.ceil(Math.abs(to.y - from.y) / (gun.fanCm * ALONG_FAN)),
    Math.ceil(Math.abs(to.d - from.d) / (gun.distanceCm * ALONG_DISTANCE)),
  );
  let patch: Patch | null = null;
  for (let k = 0; k < pieces; k++) {
    const at = (u: number, a: number, b: number) => a + u * (b - a);
    const middle = (k + 0.5) / pieces;
    const d = at(middle, from.d, to.d);
    const y = at(middle, from.y, to.y);
    const [a, b] = [at(k / pieces, from.x, to.x), at((k + 1) / pieces, from.x, to.x)];
    const amount = landingRate(gun, d) * ((to.t - from.t) / pieces);
    const laid = layBand(sheet, gun, { a, b, y, d, amount });
    if (laid) patch = patch ? union(patch, laid) : laid;
  }
  return patch;
}

function layBand(
  sheet: Sheet,
  gun: PracticeGun,
  { a, b, y, d, amount }: { a: number; b: number; y: number; d: number; amount: number },
): Patch | null {
  const { cellCm, columns, rows, film } = sheet;
  const fan = fanAt(gun, d);
  const narrow = (TRIGGER_RAMP_CM * d) / gun.distanceCm;
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  const within = (v: number, most: number) => Math.min(most, Math.max(0, v));
  const left = within(Math.floor((low - narrow / 2) / cellCm), columns);
  const right = within(Math.ceil((high + narrow / 2) / cellCm), columns);
  const top = within(Math.floor((y - fan / 2) / cellCm), rows);
  const bottom = within(Math.ceil((y + fan / 2) / cellCm), rows);
  if (left >= right || top >= bottom) {
    sheet.beyond += amount;
    return null;
  }
  const along = new Float64Array(right - left);
  let before = movedBox(left * cellCm, narrow, low, high);
  let landed = 0;
  for (let i = left; i < right; i++) {
    const next = movedBox((i + 1) * cellCm, narrow, low, high);
    along[i - left] = next - before;
    landed += next - before;
    before = next;
  }
  let across = 0;
  let above = fanShare(gun.profile, (top * cellCm - y) / fan);
  for (let j = top; j < bottom; j++) {
    const next = fanShare(gun.profile, ((j + 1) * cellCm - y) / fan);
    const share = next - above;
    above = next;
    across += share;
    const thick = (amount * share) / (cellCm * cellCm);
    for (let i = left; i < right; i++) film[j * columns + i]! += thick * along[i - left]!;
  }
  sheet.beyond += amount * (1 - landed * across);
  return { left, top, right, bottom };
}

export const union = (a: Patch, b: Patch): Patch => ({
  left: Math.min(a.left, b.left),
  top: Math.min(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
});

/** Lays a whole coat: between two samples the trigger is as at the first. */
export function layAll(sheet: Sheet, gun: PracticeGun, samples: readonly GunSample[]): Sheet {
  for (let i = 1; i < samples.length; i++) if (samples[i - 1]!.on) laySegment(sheet, gun, samples[i - 1]!, samples[i]!);
  return sheet;
}

/** Where the gun was at a time, between its samples. */
export function gunAt(samples: readonly GunSample[], t: number): GunSample | null {
  if (!samples.length) return null;
  let [low, high] = [0, samples.length - 1];
  if (t <= samples[0]!.t) return samples[0]!;
  if (t >= samples[high]!.t) return { ...samples[high]!, on: false };
  while (high - low > 1) {
    const m = (low + high) >> 1;
    if (samples[m]!.t <= t) low = m;
    else high = m;
  }
  const [p, q] = [samples[low]!, samples[high]!];
  const u = (t - p.t) / Math.max(1e-9, q.t - p.t);
  return { t, x: p.x + u * (q.x - p.x), y: p.y + u * (q.y - p.y), d: p.d + u * (q.d - p.d), on: p.on };
}
