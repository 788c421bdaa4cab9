import type { Area } from '@steady-gleam/contracts';
import { type PieceStack, materialsOf } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { randomUUID } from 'crypto';
import type { Db } from '../../db/handle';
import { materials, finishes } from '../../db/schema';
import { ApiError } from '../../errors';
import { mixOfLayers, type FinishRow } from '../finishes/rows';
import { knownMaterial } from '../materials/repo';

export const sameLayers = (a: PieceStack['layers'] | null, b: PieceStack['layers']): boolean =>
  a !== null && JSON.stringify(a) === JSON.stringify(b);
export async function familyOf(tx: Db, mixId: string | null): Promise<string | null> {
  if (mixId === null) return null;
  const known = REFERENCE_LIBRARY.systems.find((m) => m.id === mixId);
  if (known) return known.family;
  const own = await tx.select({ id: materials.id, material: materials.material }).from(materials);
  const found = own.find((m) => m.id === mixId)?.material;
  return found?.kind === 'system' ? found.family : null;
}

export async function newFinish(tx: Db, stack: PieceStack, invented: boolean): Promise<string> {
  const id = randomUUID();
  const mixId = mixOfLayers(stack.layers);
  await tx.insert(finishes).values({
    id,
    name: stack.name,
    matching: '',
    family: await familyOf(tx, mixId),
    mixId,
    layers: stack.layers,
    invented,
  });
  return id;
}

/** The mix of a finish follows its layers. */
export async function mixChange(tx: Db, there: FinishRow, layers: PieceStack['layers']): Promise<Partial<FinishRow>> {
  const mixId = mixOfLayers(layers);
  return mixId === there.mixId ? {} : { mixId, family: await familyOf(tx, mixId) };
}

export async function checkMix(tx: Db, mixId: string): Promise<void> {
  if (!(await knownMaterial(tx, 'system', mixId)))
    throw new ApiError('badRequest', { mixId: 'This mix is not here any more; choose another.' });
}

export async function checkGround(tx: Db, groundId: string): Promise<void> {
  if (!(await knownMaterial(tx, 'ground', groundId)))
    throw new ApiError('badRequest', { groundId: 'This ground is not here any more; choose another.' });
}

export async function checkStacks(tx: Db, stacks: readonly PieceStack[]): Promise<void> {
  for (const { kind, id } of materialsOf(stacks)) {
    if (!(await knownMaterial(tx, kind, id)))
      throw new ApiError('badRequest', {
        stacks: 'A layer names a material that is not here any more; choose another.',
      });
  }
}

/** Every area's finish is among those of the job. @throws ApiError at the areas that one would leave without */
export function checkAreas(stacks: readonly Pick<PieceStack, 'id'>[], areas: readonly Area[] | null | undefined): void {
  const known = new Set(stacks.map((s) => s.id));
  const bare = (areas ?? []).filter((a) => a.finishId !== null && !known.has(a.finishId));
  if (bare.length)
    throw new ApiError('badRequest', {
      stacks: `${bare.map((a) => a.name).join(' and ')} ${bare.length > 1 ? 'get' : 'gets'} that finish: give ${bare.length > 1 ? 'them' : 'it'} another under Pieces first.`,
    });
}
