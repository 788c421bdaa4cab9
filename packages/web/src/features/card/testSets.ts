import type { ReadingSet } from '@steady-gleam/contracts';
import type { RungVerdict } from '@steady-gleam/core/letdown';

export const target = [15, 45].map((aspecular) => ({
  incidence: 45,
  aspecular,
  lab: [50, 20, 10] as const,
  tolerance: 1.4,
}));
export const set = (label: string, shift: number, more: Partial<ReadingSet> = {}): ReadingSet => ({
  id: label,
  kind: 'chip',
  rungCoats: null,
  label,
  objectId: null,
  state: 'cleared',
  doubt: null,
  source: 'typed',
  takenAt: '2026-11-20T09:00:00.000Z',
  readings: target.map((t) => ({ spot: '1', incidence: 45, aspecular: t.aspecular, l: 50 + shift, a: 20, b: 10 })),
  ...more,
});

export const verdict = (
  coats: number,
  v: RungVerdict['verdict'],
  view: RungVerdict['view'] = 'shade',
): RungVerdict => ({
  coats,
  view,
  verdict: v,
});
