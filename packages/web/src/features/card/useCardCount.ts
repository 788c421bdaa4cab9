import type { Job, JobDetail, ReadingSet } from '@steady-gleam/contracts';
import { FAMILIES, STYLES } from '@steady-gleam/core/finishes';
import { spotLabsOf, spotsOf } from '@steady-gleam/core/formats';
import {
  adviseFirst,
  noiseOf,
  noiseOfSpots,
  type Advised,
  type CardAnswer,
  type CardSaid,
  type RungReading,
  type RungVerdict,
  type TargetRead,
} from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { findMix, type Library } from '@steady-gleam/core/materials';
import { flakeDepthOf } from '@steady-gleam/core/mixing';
import { useMemo } from 'react';
import { useLibrary } from '../../shared/library';
import { mixOf, pickOf, rungReadingsOf, targetOf } from '../../shared/jobModel';
import { useCompute } from '../../worker/useCompute';
import { rungVerdicts } from './eyeModel';

/** What a job's card says of the count, by readings, by eye, or both. */
export interface CardCount {
  readonly target: readonly TargetAngle[];
  /** Cleared rungs of the plan that were read, the bare ground, and what was said of its rungs by eye. */
  readonly readings: readonly RungReading[];
  readonly bare: RungReading | null;
  readonly said: readonly RungVerdict[];
  /** Scatter of the painter's own repeated spots, Lab units; null where none was read twice. */
  readonly scatter: number | null;
  /** Null while there is nothing to go by, and until it is worked out. */
  readonly answer: CardAnswer | null;
  readonly card: CardSaid | null;
  readonly error: string | null;
  readonly best: number | null;
  /** First stop. */
  readonly advice: Advised | null;
  /** Film of the hand against nominal, as its card taught it. */
  readonly hand: number | null;
}

/** Cleared readings of the card, its bare ground among them. */
export function cardReadings(rungs: readonly ReadingSet[], planned: readonly number[], target: readonly TargetAngle[]) {
  const cleared = rungs.filter((r) => r.state === 'cleared');
  return {
    readings: rungReadingsOf(
      cleared.filter((r) => planned.includes(r.rungCoats ?? -1)),
      target,
    ),
    bare:
      rungReadingsOf(
        cleared.filter((r) => r.rungCoats === 0),
        target,
      )[0] ?? null,
  };
}

/** Depth of the flakes in a counted coat, where an eye goes by how densely they lie; undefined where it does not. */
function flakesSeen(job: Job, library: Library): number | undefined {
  if (FAMILIES[job.family].byEye.of !== 'cover') return undefined;
  const { strength, style } = pickOf(job);
  const depth = flakeDepthOf(findMix(job.mixId, library.systems));
  return depth > 0 ? depth * strength * STYLES[style].film : undefined;
}

/** Works out what the card says; the card's own page, the job and the booth ask alike. */
export function useCardCount(detail: JobDetail): CardCount {
  const { job, target: set, card, rungs, verdicts, earlier, familyLimits } = detail;
  const target = useMemo(() => targetOf(set, { job, familyLimits }), [set, job, familyLimits]);
  const planned = card?.rungs ?? [];
  const { readings, bare } = cardReadings(rungs, planned, target);
  const said = rungVerdicts(verdicts).filter((v) => planned.includes(v.coats));
  const scatter = noiseOfSpots([...(set ? [set] : []), ...rungs].map((s) => spotLabsOf(s.readings)));
  const read: TargetRead | null = target.length
    ? {
        angles: target,
        spots: Math.max(1, set ? spotsOf(set.readings) : 1),
        sameInstrument: card?.settings.sameInstrument ?? true,
        noise: noiseOf(
          scatter,
          target.map((t) => t.lab[0]),
        ),
      }
    : null;
  const cover = flakesSeen(job, useLibrary().library);
  const asks = read ? job.pick !== null : said.length > 0;
  const on = job.pick ? { mix: mixOf(job), groundId: pickOf(job).groundId } : null;
  const ask = {
    target: read,
    bare: bare?.labs ?? null,
    rungs: readings,
    verdicts: said,
    handHeld: card?.onStand === false,
    ...(cover === undefined ? {} : { cover }),
    ...(card ? { cuts: { little: card.settings.eyeLittle, clear: card.settings.eyeClear } } : {}),
  };
  const { value, error } = useCompute(asks ? JSON.stringify([on, ask, earlier]) : null, (c) =>
    c.card(on, ask, earlier),
  );
  const answer = asks ? (value ?? null) : null;
  const fit = answer?.card.fit ?? null;
  const advice = useMemo(() => (answer ? adviseFirst(answer.card) : null), [answer]);
  return {
    target,
    readings,
    bare,
    said,
    scatter,
    answer,
    card: answer?.card ?? null,
    error,
    best: answer?.card.best ?? null,
    advice,
    hand: fit ? Math.exp(fit.film.mean) : null,
  };
}
