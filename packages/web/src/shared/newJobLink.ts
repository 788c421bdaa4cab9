import { jobCountSchema, newReadingSetSchema, type ReadingSet } from '@steady-gleam/contracts';
import type { AngleLab } from '@steady-gleam/core/bank';
import { newId } from './newId';
import { shopIso } from './clock';

/** What a job is begun with beside its finish: what stands in the state of the page's address. */
export interface JobStart {
  readonly target: ReadingSet | null;
}

/** Whether a job can be begun with a count: what fits fewer coats than that is all but the bare ground. */
export const isCount = (coats: number | null): coats is number => coats !== null && jobCountSchema.isValidSync(coats);

/** Where a job with a finish of the bank is begun. @param coats of its card; null for what was picked @param asked what the object reads */
export function newJobLink(finishId: string, coats: number | null, asked: readonly AngleLab[] | null) {
  const query = new URLSearchParams({ finish: finishId, ...(coats === null ? {} : { coats: String(coats) }) });
  return { to: `/jobs/new?${query.toString()}`, state: { target: asked && targetOf(asked) } satisfies JobStart };
}

const targetOf = (asked: readonly AngleLab[]): ReadingSet => ({
  ...{ id: newId(), kind: 'target', rungCoats: null, source: 'typed', label: '', objectId: null },
  ...{ state: 'cleared', doubt: null, takenAt: shopIso() },
  readings: asked.map(({ incidence, aspecular, lab: [l, a, b] }) => ({
    ...{ spot: '1', incidence, aspecular },
    ...{ l: Math.max(0, l), a, b },
  })),
});

/** The target a page was opened with; null for none, or for something else. */
export function startOf(state: unknown): JobStart {
  const target = (state as Partial<JobStart> | null)?.target ?? null;
  return { target: target && newReadingSetSchema.isValidSync(target) ? target : null };
}
