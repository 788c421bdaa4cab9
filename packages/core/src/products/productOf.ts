import { FAMILIES } from '../finishes/families';
import type { StackLayer } from '../finishes/layers';
import { holdsFlake } from '../materials/mixes';
import type { Library } from '../materials/ownMaterials';
import type { Product } from './products';
import type { ProductKind } from '../finishes/families';

const KIND_OF: Record<Exclude<StackLayer['kind'], 'effect'>, ProductKind> = {
  primer: 'primer',
  sealer: 'sealer',
  ground: 'ground',
  lock: 'intercoat',
  clear: 'clear',
};

/** Kind of product a layer is sprayed with. */
export function productKindOf(layer: Pick<StackLayer, 'kind' | 'materialId'>, library: Library): ProductKind {
  if (layer.kind !== 'effect') return KIND_OF[layer.kind];
  const system = library.systems.find((s) => s.id === layer.materialId);
  if (system && holdsFlake(system, library)) return 'flake carrier';
  return system ? FAMILIES[system.family].productKind : 'mid coat';
}

/** The cup a layer comes out of, as the id of its first layer: layers of the same stuff at the same strength share one. */
export function cupOf(
  layer: Pick<StackLayer, 'id' | 'kind' | 'materialId' | 'strength'>,
  layers: readonly StackLayer[],
): string {
  const same = (l: StackLayer) =>
    l.kind === layer.kind &&
    l.materialId === layer.materialId &&
    (l.kind !== 'effect' || l.strength === layer.strength);
  return layers.find(same)?.id ?? layer.id;
}

/** The job's product for a layer: the one it names, else the shop's first of that kind. */
export function productFor(
  layer: Pick<StackLayer, 'id' | 'kind' | 'materialId'>,
  library: Library,
  products: readonly Product[],
  named: Readonly<Record<string, string>>,
): Product | null {
  const own = products.find((p) => p.id === named[layer.id]);
  const kind = productKindOf(layer, library);
  return own ?? products.find((p) => p.kind === kind) ?? null;
}
