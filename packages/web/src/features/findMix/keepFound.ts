import { materialsApi } from '@steady-gleam/contracts';
import type { FinishFamily, Recipe } from '@steady-gleam/core/finishes';
import type { Pourable } from '@steady-gleam/core/formulate';
import type { Library } from '@steady-gleam/core/materials';
import { call } from '../../shared/apiClient';
import { newId } from '../../shared/newId';
import { familyAsks, systemOf } from './findModel';

/** A mix on the shop's shelf, and where on the map it was found. */
export interface KeptMix {
  readonly mixId: string;
  readonly pick: Recipe;
}

/**
 * Puts a mix that was found on the shop's shelf and uses it. Where that is refused it is taken off the shelf again.
 * @throws ApiFailure
 */
export async function withFound<T>(
  { family, mix, library, piece }: { family: FinishFamily; mix: Pourable; library: Library; piece: string },
  withIt: (kept: KeptMix) => Promise<T>,
): Promise<T> {
  const of = familyAsks(family, library);
  const mixId = newId();
  const material = systemOf(mixId, `Mix for ${piece}`.slice(0, 60), family, mix, of);
  const { version } = await call(materialsApi.put, {
    params: { id: mixId },
    body: { version: 0, material },
  });
  try {
    const pick = { groundId: mix.groundId, strength: 1, style: of.style, coats: mix.coats, controlCoats: 0 };
    return await withIt({ mixId, pick });
  } catch (error) {
    // What a job uses by now stays.
    await call(materialsApi.remove, { params: { id: mixId }, body: { version } }).catch(() => undefined);
    throw error;
  }
}
