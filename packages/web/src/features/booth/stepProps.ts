import type { JobPlan, JobState } from '@steady-gleam/core/jobs';
import type { JobLog } from '../../shared/log/useLog';

/** What every step of the booth is given. */
export interface StepProps {
  readonly jobId: string;
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly log: JobLog;
}

/** An area by its name, with its object where the job has several. */
export const areaName = (plan: JobPlan, areaId: string): string => {
  const area = plan.areas.find((a) => a.id === areaId);
  const object = plan.objects.length > 1 ? plan.objects.find((o) => o.id === area?.objectId) : undefined;
  return `${area?.name ?? ''}${object ? `, ${object.name}` : ''}`;
};
