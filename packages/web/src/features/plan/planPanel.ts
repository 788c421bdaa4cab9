import type { ReactNode } from 'react';
import type { JobWorked } from '../../shared/useJobWork';
import type { usePlan } from './usePlan';

/** What every part of the plan is given. */
export interface PlanPanelProps {
  readonly detail: ReturnType<typeof usePlan>['detail'];
  readonly plan: ReturnType<typeof usePlan>['plan'];
  readonly set: ReturnType<typeof usePlan>['set'];
  readonly work: JobWorked;
  readonly tabs: ReactNode;
}
