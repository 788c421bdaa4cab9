import type { PassSettings } from '@steady-gleam/contracts';
import type { GunSample, LessonId, PractisedHand } from '@steady-gleam/core/practice';
import { array, boolean, number, object } from 'yup';

/** What practice leaves on this device, and on no other: what was scored, the newest coats, and the hand they show. */
export interface Practised {
  readonly scores: Readonly<Partial<Record<LessonId | 'count' | 'mix', readonly number[]>>>;
  /** The newest coat of each lesson, for its ghost. */
  readonly coats: Readonly<Partial<Record<LessonId, readonly GunSample[]>>>;
  readonly hand: PractisedHand | null;
}

const KEPT = 'steady-gleam.practice';
const NONE: Practised = { scores: {}, coats: {}, hand: null };
/** Scores of a lesson that are kept. */
const MOST_SCORES = 30;
/** Samples of a coat that are kept: about two minutes of them. */
const MOST_SAMPLES = 8000;

const finite = number().required();
const handSchema = object({
  overlap: finite.min(-1).max(1),
  speedSd: finite.min(0),
  distanceSd: finite.min(0),
  aimSdCm: finite.min(0),
  passes: finite.min(1),
});
const scoresSchema = object({
  ...Object.fromEntries(['overlap', 'edges', 'side', 'count', 'mix'].map((k) => [k, array(finite).optional()])),
});
const coatSchema = array(object({ t: finite, x: finite, y: finite, d: finite, on: boolean().required() })).required();

/** A sample as five whole numbers: ms, mm, mm, mm, trigger. */
const packed = (s: GunSample) => [...[s.t * 1000, s.x * 10, s.y * 10, s.d * 10].map(Math.round), s.on ? 1 : 0];
function unpacked(rows: unknown): GunSample[] {
  const samples = (rows as number[][]).map(([t, x, y, d, on]) => ({
    t: t! / 1000,
    ...{ x: x! / 10, y: y! / 10, d: d! / 10, on: on === 1 },
  }));
  return coatSchema.validateSync(samples);
}

/** Reads what is there; what can't be read counts as none. */
export function readPractised(): Practised {
  try {
    const raw = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, unknown>;
    const coats = (raw['coats'] ?? {}) as Record<string, unknown>;
    return {
      scores: scoresSchema.validateSync(raw['scores'] ?? {}),
      coats: Object.fromEntries(Object.entries(coats).map(([id, rows]) => [id, unpacked(rows)])),
      hand: raw['hand'] ? handSchema.validateSync(raw['hand']) : null,
    };
  } catch {
    return NONE;
  }
}

function keep(next: Practised): void {
  const coats = Object.fromEntries(
    Object.entries(next.coats).map(([id, samples]) => [id, samples.slice(0, MOST_SAMPLES).map(packed)]),
  );
  try {
    localStorage.setItem(KEPT, JSON.stringify({ ...next, coats }));
  } catch {
    // A device that is full practises without keeping anything.
  }
}

export function keepScore(of: LessonId | 'count' | 'mix', points: number): void {
  const now = readPractised();
  keep({ ...now, scores: { ...now.scores, [of]: [...(now.scores[of] ?? []), points].slice(-MOST_SCORES) } });
}

/** Keeps a coat as the newest of its lesson, and the hand it shows. */
export function keepCoat(lesson: LessonId, samples: readonly GunSample[], hand: PractisedHand | null): void {
  const now = readPractised();
  keep({ ...now, coats: { ...now.coats, [lesson]: samples }, hand: hand ?? now.hand });
}

export const forgetPractised = (): void => localStorage.removeItem(KEPT);

/** Overlaps that passes can be laid with. */
export const [LEAST_OVERLAP, MOST_OVERLAP] = [0.2, 0.85] as const;

/** A hand that was practised, as a first guess for passes; null while there is none. */
export function practisedHand(
  hand: PractisedHand | null,
): Pick<PassSettings, 'overlap' | 'speedSd' | 'distanceSd' | 'aimSdCm'> | null {
  if (!hand) return null;
  const most = (v: number, limit: number) => Number(Math.min(limit, v).toFixed(3));
  return {
    overlap: Number(Math.min(MOST_OVERLAP, Math.max(LEAST_OVERLAP, hand.overlap)).toFixed(2)),
    speedSd: most(hand.speedSd, 0.5),
    distanceSd: most(hand.distanceSd, 0.5),
    aimSdCm: most(hand.aimSdCm, 10),
  };
}
