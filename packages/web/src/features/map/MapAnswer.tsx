import { FAMILIES } from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import type { TargetAngle } from '@steady-gleam/core/matching';
import type { Job } from '@steady-gleam/contracts';
import { memo } from 'react';
import { Answer } from '../../shared/Answer';
import { useLibrary } from '../../shared/library';
import { useCompute } from '../../worker/useCompute';
import { cellOf, sayAnswer, sayGreyStep, sayMissing } from './mapModel';
import type { ShownMap } from './useMatchMap';

/** Coats a weak-hiding colour is specified with; common practice (no source). */
const SPECIFIED = [3, 3.5, 4] as const;

interface MapAnswerProps {
  readonly job: Job;
  readonly shown: ShownMap;
  readonly settled: boolean;
  readonly target: readonly TargetAngle[];
}

/** What the map says of its target. */
export const MapAnswer = memo(function MapAnswer({ job, shown, settled, target }: MapAnswerProps) {
  const { library } = useLibrary();
  const { map, mix } = shown;
  const nothingPasses = !map.rows.some((r) => r.stop.window);
  const { groundId, coats } = map.best;
  const help = useCompute(
    settled && nothingPasses ? JSON.stringify(['help', mix, map.best, target]) : null,
    // Strengths and counts are what the map itself looks through.
    (c) => c.nudge(mix, groundId, coats, target, cellOf(map, groundId, coats).labs, null),
  );
  const { answer, why } = sayAnswer(map, library.grounds);
  const step = FAMILIES[job.family].specified ? sayGreyStep(map, target, library.grounds, SPECIFIED) : null;
  const missing = nothingPasses
    ? sayMissing(map, target, help.value, library, findMix(job.mixId, library.systems))
    : null;
  return <Answer why={missing ? `${why} ${missing}` : step ? `${step} ${why}` : why}>{answer}</Answer>;
});

/** The same where nothing has to be matched. @param from what is looked at first, in words */
export function DesignAnswer({ from }: { from: string }) {
  return (
    <Answer
      why={`Figures say how far each place lies from where you start, ${from}. Put aside what you like and look at it on a body; what you choose becomes the target, and its card what your hand makes of it.`}
    >
      Nothing has to be matched: choose what you like.
    </Answer>
  );
}
