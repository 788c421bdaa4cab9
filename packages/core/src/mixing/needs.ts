import { spreadingRate, quantityMl } from './quantity';

/** Transfer efficiency is seldom known better than this before a gun has taught it, as a fraction of itself; ours. */
export const TRANSFER_SD = 0.15;

export interface Need {
  readonly ml: number;
  /** One standard deviation of the transfer efficiency either way. */
  readonly low: number;
  readonly high: number;
}

/** What a layer takes, ready to spray, as a range. @param transferSd relative. */
export function needOf(q: Parameters<typeof quantityMl>[0], transferSd = TRANSFER_SD): Need {
  const at = (factor: number) => quantityMl({ ...q, transferEfficiency: Math.min(1, q.transferEfficiency * factor) });
  return { ml: at(1), low: at(Math.exp(transferSd)), high: at(Math.exp(-transferSd)) };
}

/** A batch that was sprayed out, with what was left of it. */
export interface Used {
  /** Dry film meant x area, um m2 (that is ml of solids). */
  readonly solidMl: number;
  readonly volumeSolids: number;
  /** Really used, ml; and what cup and gun keep. */
  readonly usedMl: number;
  readonly lossMl: number;
}

/** Scatter of one batch's lesson: film and area are themselves guesses; ours, in ln. */
const LESSON_SD = 0.2;

/**
 * A gun's transfer efficiency from what batches really took: the mean of prior and lessons in ln, each by its certainty.
 * Batches that used no more than cup and gun keep teach nothing. @param prior fraction and relative sd.
 */
export function learnTransfer(
  prior: { readonly mean: number; readonly sd: number },
  batches: readonly Used[],
): { readonly mean: number; readonly sd: number; readonly lessons: number } {
  let weight = 1 / prior.sd ** 2;
  let sum = Math.log(prior.mean) * weight;
  let lessons = 0;
  for (const b of batches) {
    const sprayed = b.usedMl - b.lossMl;
    if (!(sprayed > 0 && b.solidMl > 0)) continue;
    const efficiency = Math.min(1, Math.max(0.05, b.solidMl / b.volumeSolids / sprayed));
    sum += Math.log(efficiency) / LESSON_SD ** 2;
    weight += 1 / LESSON_SD ** 2;
    lessons++;
  }
  return { mean: Math.min(1, Math.exp(sum / weight)), sd: Math.sqrt(1 / weight), lessons };
}

/**
 * What a leftover of matching colour saves as a first ground coat over the whole area.
 * @returns full coats it gives (rounded down to halves) and the ready-to-spray ground it saves, ml.
 */
export function leftoverAsGround(q: {
  readonly leftoverMl: number;
  readonly area: number;
  /** Dry film of a ground coat, um. */
  readonly filmUm: number;
  readonly leftoverSolids: number;
  readonly groundSolids: number;
  readonly transferEfficiency: number;
}): { readonly coats: number; readonly savesMl: number } {
  const areaCoats = ((q.leftoverMl / 1000) * spreadingRate(q.leftoverSolids, q.filmUm) * q.transferEfficiency) / q.area;
  const coats = Math.floor(areaCoats * 2 + 1e-9) / 2;
  return { coats, savesMl: (coats * q.filmUm * q.area) / q.groundSolids / q.transferEfficiency };
}
