import type { ReadingSet } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES, familyTable, limitAt } from '@steady-gleam/core/finishes';
import { stacksOfPick } from '@steady-gleam/core/jobs';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { findGround } from '@steady-gleam/core/materials';
import { useCallback, useMemo } from 'react';
import { shopIso } from '../../shared/clock';
import { pickedCount, pickOf, sayCount } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { useAddReadings, type PageDetail } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { TRAVEL_ANGLES, USUAL_ANGLES } from '../../shared/angles';

const NONE: readonly TargetAngle[] = [];

/** A look that is designed: the map is drawn from where the pick stands, and the place that is chosen becomes the target. */
export function useDesign(detail: PageDetail, wanted: boolean) {
  const { job, familyLimits } = detail;
  const { library } = useLibrary();
  const add = useAddReadings(job);
  const row = FAMILIES[job.family];
  const pick = pickOf(job);
  const angles = row.wanted === 'travel' ? [...USUAL_ANGLES, ...TRAVEL_ANGLES] : USUAL_ANGLES;
  const layers = wanted ? stacksOfPick(job.mixId, pick, library)[0]!.layers : null;
  const { value } = useCompute(layers && `design/${JSON.stringify([layers, angles])}`, (c) =>
    c.stackLook(layers!, angles),
  );
  const from = useMemo(() => {
    if (!wanted || !value) return NONE;
    const usual = familyTable(row.limits, familyLimits?.own ?? null);
    return angles.map((a, g) => ({ ...a, lab: value[g]!, tolerance: limitAt(a.aspecular, usual, job.limits) }));
    // Angles follow from the family.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [wanted, value, row, familyLimits, job.limits]);
  const { mutateAsync, isPending, error } = add;
  const { objectId } = detail;
  const keep = useCallback(
    async (labs: readonly Lab[]): Promise<void> => {
      const set: ReadingSet = {
        ...{ id: newId(), kind: 'target', rungCoats: null, source: 'designed', label: '', objectId },
        ...{ state: 'cleared', doubt: null, takenAt: shopIso() },
        readings: from.map(({ incidence, aspecular }, g) => {
          const [l, a, b] = labs[g]!;
          return { spot: 'as designed', incidence, aspecular, l: Math.max(0, l), a, b };
        }),
      };
      await mutateAsync(set);
    },
    [from, objectId, mutateAsync],
  );
  const said = `${sayCount(job.family, pickedCount(job))} over ${findGround(pick.groundId, library.grounds).name.toLowerCase()}`;
  // One value as long as nothing of it changes: what is drawn from it is not drawn again at every step of the slider.
  return useMemo(
    () => ({ on: wanted && from.length > 0, from, said, busy: isPending, error, keep }),
    [wanted, from, said, isPending, error, keep],
  );
}
