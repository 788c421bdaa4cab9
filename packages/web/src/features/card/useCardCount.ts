import type { JobDetail } from '@steady-gleam/contracts';
import type { Assessment, RungReading, RungVerdict } from '@steady-gleam/core/letdown';
import type { Advice, TargetAngle } from '@steady-gleam/core/matching';
import { useMemo } from 'react';
import { pickOf, mixOf, rungReadingsOf, targetOf } from '../../shared/jobModel';
import { useCompute } from '../../worker/useCompute';
import { adviseByEye, rungVerdicts, type EyeAdvice } from './eyeModel';

/** What a job's card says of the count, by readings, by eye, or both. */
export interface CardCount {
  readonly target: readonly TargetAngle[];
  /** Cleared rungs of the plan that were read, and what was said of its rungs by eye. */
  readonly readings: readonly RungReading[];
  readonly said: readonly RungVerdict[];
  /** Null without a target or a pick, and until it is worked out. */
  readonly assessment: Assessment | null;
  readonly error: string | null;
  readonly eye: EyeAdvice | null;
  readonly best: number | null;
  /** Counts to aim for: those that pass, or the ones that come closest. */
  readonly aim: readonly [number, number] | null;
  /** Some count passes at every angle. */
  readonly inside: boolean;
  readonly advice: Advice | null;
}

/** Works out what the card says; the card's own page and the job ask alike. */
export function useCardCount({ job, target: set, card, rungs, verdicts, earlier }: JobDetail): CardCount {
  const target = useMemo(() => targetOf(set), [set]);
  const mix = mixOf(job);
  const { groundId } = pickOf(job);
  const planned = card?.rungs ?? [];
  const readings = rungReadingsOf(
    rungs.filter((r) => r.state === 'cleared' && planned.includes(r.rungCoats ?? -1)),
    target,
  );
  const said = rungVerdicts(verdicts).filter((v) => planned.includes(v.coats));
  const last = Math.max(6, ...planned) + 1;
  const handHeld = card?.onStand === false;
  const canAssess = target.length > 0 && job.pick !== null;
  const { value, error } = useCompute(
    canAssess ? JSON.stringify([mix, groundId, target, readings, last, handHeld, earlier]) : null,
    (c) => c.assess(mix, groundId, target, readings, last, handHeld, earlier),
  );
  const assessment = canAssess ? value : null;
  const eye = adviseByEye(said, assessment, handHeld);
  return {
    target,
    readings,
    said,
    assessment,
    error,
    eye,
    best: eye?.posterior.best ?? assessment?.best ?? null,
    aim: eye?.window ?? assessment?.aim.counts ?? null,
    inside: assessment?.aim.inside ?? true,
    advice: eye?.advice ?? assessment?.advice ?? null,
  };
}
