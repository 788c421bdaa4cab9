import { finishSchema, type Finish } from '@steady-gleam/contracts';
import type { PieceStack } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import type { finishes } from '../../db/schema';

export type FinishRow = typeof finishes.$inferSelect;

/** @throws ValidationError where the row is not what the contract says */
export function toFinish(row: FinishRow): Finish {
  const { id, name, codes, matching, mixId, pick, layers, origin, tryOut, invented, version } = row;
  return finishSchema.validateSync({
    ...{ id, name, codes, matching, mixId, pick, layers, origin, tryOut, invented, version },
    // A finish that came with the layers of a piece was stored without.
    family: row.family ?? REFERENCE_LIBRARY.systems.find((m) => m.id === mixId)?.family ?? null,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
  });
}

/** The mix of the first effect layer of a stack; null for one that lays none. */
export const mixOfLayers = (layers: PieceStack['layers']): string | null =>
  layers.find((l) => l.kind === 'effect')?.materialId ?? null;
