import { materialsApi } from '@steady-gleam/contracts';
import type { FinishFamily, Recipe } from '@steady-gleam/core/finishes';
import type { Pourable } from '@steady-gleam/core/formulate';
import type { Library } from '@steady-gleam/core/materials';
import { call } from '../../shared/apiClient';
import { newId } from '../../shared/newId';
import { familyAsks, systemOf } from './findModel';

/** Puts a mix that was found on the shop's shelf. @returns its id, and where on the map it was found @throws ApiFailure */
export async function keepFound(
  family: FinishFamily,
  mix: Pourable,
  library: Library,
  piece: string,
): Promise<{ readonly mixId: string; readonly pick: Recipe }> {
  const of = familyAsks(family, library);
  const mixId = newId();
  const material = systemOf(mixId, `Mix for ${piece}`.slice(0, 60), family, mix, of);
  await call(materialsApi.put, { params: { id: mixId }, body: { version: 0, material } as never });
  return { mixId, pick: { groundId: mix.groundId, strength: 1, style: of.style, coats: mix.coats, controlCoats: 0 } };
}
