import { materialsOf, type Recipe, type StackLayer } from '@steady-gleam/core/finishes';
import type { OwnMaterial } from '@steady-gleam/core/materials';

/** Own materials of some ids and all that those are made of. */
export function withParts(ids: readonly (string | null)[], own: readonly OwnMaterial[]): OwnMaterial[] {
  const found = new Map<string, OwnMaterial>();
  const take = (id: string | null) => {
    const m = id === null || found.has(id) ? undefined : own.find((o) => o.id === id);
    if (!m) return;
    found.set(m.id, m);
    if (m.kind === 'system') [m.carrierId, ...m.colours.map((c) => c.id)].forEach(take);
    if (m.kind === 'ground') [m.pigmentId, m.tintId].forEach(take);
  };
  ids.forEach(take);
  return [...found.values()];
}

/** Ids of everything a finish is laid of: its mix, its ground, its layers. */
export const laidIds = (finish: {
  readonly mixId: string | null;
  readonly pick: Pick<Recipe, 'groundId'> | null;
  readonly layers: readonly StackLayer[] | null;
}): { readonly kind: 'ground' | 'system'; readonly id: string }[] => {
  const laid = materialsOf([{ id: 'f', name: 'f', layers: finish.layers ?? [] }]);
  const all = [
    ...(finish.mixId === null ? [] : [{ kind: 'system' as const, id: finish.mixId }]),
    ...(finish.pick ? [{ kind: 'ground' as const, id: finish.pick.groundId }] : []),
    ...laid,
  ];
  return [...new Map(all.map((m) => [`${m.kind} ${m.id}`, m])).values()];
};
