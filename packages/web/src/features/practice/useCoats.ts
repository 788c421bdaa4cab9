import {
  firstHabit,
  lessonSheet,
  reviewCoat,
  type CoatReview,
  type GunSample,
  type Habit,
  type Lesson,
  type PracticeGun,
} from '@steady-gleam/core/practice';
import { useMemo, useState } from 'react';
import { keepCoat, keepScore, readPractised } from '../../shared/practised';

/** A coat as it was laid, with what was said of it. */
export interface LaidCoat {
  readonly samples: readonly GunSample[];
  readonly review: CoatReview;
  readonly habit: Habit | null;
}

/** The coats of a lesson: what lies on the panel, the one that is being laid, and the one before it. */
export interface Coats {
  readonly number: number;
  /** Film of the coats before this one. */
  readonly base: Float64Array;
  readonly now: LaidCoat | null;
  /** The try before this one, on the same panel. */
  readonly before: LaidCoat | null;
  /** The newest coat of this lesson on this device, for its ghost. */
  readonly ghost: readonly GunSample[] | null;
  readonly rest: (samples: readonly GunSample[]) => void;
  /** The coat is wiped off and laid again. */
  readonly again: () => void;
  /** The coat stays, and the next one goes over it. */
  readonly next: () => void;
  readonly afresh: () => void;
}

/** Without passes there is nothing to keep. */
const isLaid = (coat: LaidCoat | null): coat is LaidCoat => coat !== null && coat.review.rows.length > 0;

export function useCoats(lesson: Lesson, gun: PracticeGun): Coats {
  const bare = useMemo(() => new Float64Array(lessonSheet(lesson).film.length), [lesson]);
  const [number, setNumber] = useState(1);
  const [base, setBase] = useState(bare);
  const [now, setNow] = useState<LaidCoat | null>(null);
  const [before, setBefore] = useState<LaidCoat | null>(null);
  const [ghost, setGhost] = useState(() => readPractised().coats[lesson.id] ?? null);
  const keep = (coat: LaidCoat) => {
    keepScore(lesson.id, coat.review.points);
    keepCoat(lesson.id, coat.samples, coat.review.hand);
    setGhost(coat.samples);
  };
  return {
    ...{ number, base, now, before, ghost },
    rest: (samples) => {
      const review = reviewCoat(samples, gun, lesson);
      // Half a panel has no habit yet.
      setNow({ samples: [...samples], review, habit: review.isCovered ? firstHabit(review, gun, lesson) : null });
    },
    again: () => {
      if (isLaid(now)) {
        keep(now);
        setBefore(now);
      }
      setNow(null);
    },
    next: () => {
      if (!isLaid(now)) return;
      keep(now);
      const { film } = now.review;
      setBase(base.map((v, i) => v + film[i]!));
      setNumber(number + 1);
      setNow(null);
      setBefore(null);
    },
    afresh: () => {
      setBase(bare);
      setNumber(1);
      setNow(null);
      setBefore(null);
    },
  };
}
