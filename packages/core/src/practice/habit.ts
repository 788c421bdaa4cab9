import { fanAt } from '../spraying/gunFilm';
import { linesOver, samplesOf, spansOf } from './arm';
import { layAll, type PracticeGun } from './deposit';
import { faultOf, figuresOf, lessonSheet, type CoatReview } from './figures';
import { widthOf, type Lesson } from './lessons';
import type { PassRow } from './passRows';

export const HABITS = ['overlap', 'ends', 'trigger', 'walk', 'steady', 'speed', 'distance'] as const;
export type HabitId = (typeof HABITS)[number];

/** The one thing to change first, from the figures, and how much of what is off it would take away, 0..1. */
export interface Habit {
  readonly id: HabitId;
  /** What happened, and what to do: headline. */
  readonly said: string;
  /** How, in a sentence. */
  readonly how: string;
  readonly takesAway: number;
}

/** Below this a coat is fine as it is, and a change that takes away less than this share is not worth a word; ours. */
const [FINE, WORTH] = [0.35, 0.12] as const;

const mean = (of: readonly number[]): number => of.reduce((s, v) => s + v, 0) / Math.max(1, of.length);
const percent = (v: number) => `${Math.round(100 * v)} %`;
const cm = (v: number) => `${Math.abs(v).toFixed(0)} cm`;

/** Trigger on before and off past an edge of the panel, cm; each end of each pass that is near one. */
function margins(rows: readonly PassRow[], width: number): number[] {
  return rows.flatMap((r) => {
    const [low, high] = [Math.min(r.from, r.to), Math.max(r.from, r.to)];
    return [...(low < width / 3 ? [-low] : []), ...(high > (2 * width) / 3 ? [high - width] : [])];
  });
}

/** The same passes with one habit mended. */
function mended(id: HabitId, rows: readonly PassRow[], gun: PracticeGun, lesson: Lesson): readonly PassRow[] {
  const width = widthOf(lesson);
  const between = (r: PassRow, from: number, to: number): PassRow =>
    r.from <= r.to ? { ...r, from, to } : { ...r, from: to, to: from };
  switch (id) {
    case 'overlap': {
      const fan = fanAt(gun, mean(rows.map((r) => r.d)));
      const lines = linesOver(lesson.heightCm, fan, fan * (1 - gun.overlap));
      const spans = spansOf(lesson.panels, true);
      // Where every panel was laid by itself, each has its own passes.
      const sides =
        spans.length > 1 && rows.some((r) => Math.abs(r.to - r.from) < 0.75 * width)
          ? spans.map(([a, b]) => rows.filter((r) => (r.from + r.to) / 2 >= a && (r.from + r.to) / 2 < b))
          : [rows];
      return sides.flatMap((own) => (own.length ? lines.map((y, k) => ({ ...own[k % own.length]!, y })) : []));
    }
    case 'ends':
      return rows.map((r) => ({ ...r, ends: [r.speed, r.speed] as const }));
    case 'trigger': {
      const [left, right] = [-lesson.marginCm, width + lesson.marginCm];
      return rows.map((r) => {
        const [low, high] = [Math.min(r.from, r.to), Math.max(r.from, r.to)];
        return between(r, low < width / 3 ? left : low, high > (2 * width) / 3 ? right : high);
      });
    }
    case 'walk': {
      if (lesson.panels.length < 2) return rows;
      const first = rows.filter((r) => Math.min(r.from, r.to) < lesson.panels[0]! / 2);
      return first.map((r) => between(r, Math.min(r.from, r.to), width - Math.min(r.from, r.to)));
    }
    case 'steady': {
      const speed = Math.exp(mean(rows.map((r) => Math.log(r.speed))));
      return rows.map((r) => paced(r, speed));
    }
    case 'speed':
      return rows.map((r) => paced(r, r.speed * (gun.speedCmS / Math.exp(mean(rows.map((p) => Math.log(p.speed)))))));
    case 'distance':
      return rows.map((r) => ({ ...r, d: gun.distanceCm }));
  }
}

/** A pass at another speed, its ends slower or faster by as much as they were. */
const paced = (r: PassRow, speed: number): PassRow => {
  const [left, right] = r.ends;
  const k = speed / r.speed;
  return { ...r, speed, ends: [left === null ? null : left * k, right === null ? null : right * k] };
};

function sayHabit(id: HabitId, { rows, hand }: CoatReview, gun: PracticeGun, lesson: Lesson): [string, string] {
  const speed = Math.exp(mean(rows.map((r) => Math.log(r.speed))));
  const target = lesson.marginCm;
  switch (id) {
    case 'overlap': {
      const has = hand?.overlap ?? 0;
      const off = has < gun.overlap - 0.05 ? 'too little' : has > gun.overlap + 0.05 ? 'too much' : 'uneven';
      return [
        off === 'uneven'
          ? 'The passes lie unevenly: keep the same step from one to the next.'
          : `Overlap ${percent(has)}, ${off}: aim at the rim of the last pass.`,
        `At ${percent(gun.overlap)} the passes lie ${Number((gun.fanCm * (1 - gun.overlap)).toFixed(1))} cm apart; the first has its middle on the upper edge.`,
      ];
    }
    case 'ends': {
      const ends = rows.flatMap((r) => r.ends.flatMap((e) => (e === null ? [] : [e / r.speed])));
      return mean(ends) < 1
        ? [
            'It slows at the ends: keep moving past the edge.',
            `Speed falls to ${percent(mean(ends))} in the last 10 cm.`,
          ]
        : [
            'It hurries at the ends: keep one speed over the whole panel.',
            `Speed rises to ${percent(mean(ends))} there.`,
          ];
    }
    case 'trigger': {
      if (rows.filter((r) => r.held[1]).length > rows.length / 4)
        return [
          'The trigger stays on while you turn: let go before.',
          `Trigger off ${target ? `${target} cm past the edge` : 'at the edge'}, turn outside, on again on the way back.`,
        ];
      const past = mean(margins(rows, widthOf(lesson)));
      const where = past < 0 ? `${cm(past)} inside the edge` : `${cm(past)} past it`;
      return [
        past < target
          ? `The trigger comes late and goes early: ${where} on average.`
          : `The trigger stays on too long: ${where} on average.`,
        target
          ? `On ${target} cm before the edge, off ${target} cm past it, the hand already moving.`
          : 'The edges are cut in: on at the edge, off at the edge, the hand already moving.',
      ];
    }
    case 'walk':
      return [
        'The break is doubled: walk the whole side in one stroke.',
        'One pass goes over both panels; the trigger stays on across the break.',
      ];
    case 'steady':
      return [
        'The passes differ in speed: count one time for every pass.',
        `They go from ${Math.min(...rows.map((r) => r.speed)).toFixed(0)} to ${Math.max(...rows.map((r) => r.speed)).toFixed(0)} cm/s.`,
      ];
    case 'speed':
      return [
        speed > gun.speedCmS ? 'Too fast: the coat stays thin.' : 'Too slow: the coat gets heavy.',
        `${speed.toFixed(0)} cm/s, where ${gun.speedCmS} lays the coat that is planned.`,
      ];
    case 'distance': {
      const d = mean(rows.map((r) => r.d));
      return [
        d > gun.distanceCm ? 'Too far away: less lands, and it lands dry.' : 'Too near: it lands wet and narrow.',
        `${d.toFixed(0)} cm on average, where this gun wants ${gun.distanceCm} cm.`,
      ];
    }
  }
}

/**
 * The one habit to change first: the passes are laid again with one mended at a time, and the one that takes away most of what is
 * off is said.
 * @returns null for a coat that is fine, or one without passes
 */
export function firstHabit(review: CoatReview, gun: PracticeGun, lesson: Lesson): Habit | null {
  const { rows } = review;
  if (!rows.length || faultOf(review.figures) < FINE) return null;
  const faultLaid = (of: readonly PassRow[]) =>
    faultOf(figuresOf(layAll(lessonSheet(lesson), gun, samplesOf(of, lesson)), lesson, of));
  const now = faultLaid(rows);
  const best = HABITS.map((id) => ({ id, gain: now - faultLaid(mended(id, rows, gun, lesson)) })).reduce((a, b) =>
    b.gain > a.gain ? b : a,
  );
  if (best.gain < WORTH * now) return null;
  const [said, how] = sayHabit(best.id, review, gun, lesson);
  return { ...{ id: best.id, said, how }, takesAway: Math.min(1, best.gain / Math.max(now, faultOf(review.figures))) };
}
