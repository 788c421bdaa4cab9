import type { ReadingSet } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import { shopIso } from './clock';
import { newId } from './newId';

/** A target of one colour at one angle under the usual lamp, where there was no instrument. @param doubt Lab units */
export const oneSpotTarget = (
  source: 'photo' | 'chip',
  aspecular: number,
  [l, a, b]: Lab,
  doubt: number,
): ReadingSet => ({
  ...{ id: newId(), kind: 'target', rungCoats: null, source, label: '', objectId: null },
  ...{ state: 'cleared', doubt, takenAt: shopIso() },
  readings: [{ spot: source, incidence: 45, aspecular, l: Math.max(0, l), a, b }],
});
