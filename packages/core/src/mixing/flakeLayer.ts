import type { StackLayer } from '../finishes/layers';
import type { GroundMaterial } from '../materials/grounds';
import { holdsFlake } from '../materials/mixes';
import type { Library } from '../materials/ownMaterials';

/** The flake of a stack: its layer, what shows between the flakes, and the clears that bury them. */
export interface FlakeLayer {
  readonly layer: StackLayer;
  /** The last ground below it; null where none is laid. */
  readonly ground: GroundMaterial | null;
  /** Clear and lock-down layers above it, as they are laid. */
  readonly above: readonly StackLayer[];
}

/**
 * The flake layer of a stack: an effect layer of metal flake, or one that is locked down before clear; null where there is none.
 * The ground is that of the layers themselves, not of what was once picked.
 */
export function flakeLayerOf(layers: readonly StackLayer[], library: Library): FlakeLayer | null {
  const isFlake = (l: StackLayer, i: number): boolean => {
    if (l.kind !== 'effect') return false;
    const system = library.systems.find((s) => s.id === l.materialId);
    return (system && holdsFlake(system, library)) || layers[i + 1]?.kind === 'lock';
  };
  const at = layers.findIndex(isFlake);
  if (at < 0) return null;
  const below = layers.slice(0, at).findLast((l) => l.kind === 'ground');
  return {
    layer: layers[at]!,
    ground: library.grounds.find((g) => g.id === below?.materialId) ?? null,
    above: layers.slice(at + 1).filter((l) => l.kind === 'lock' || l.kind === 'clear'),
  };
}

/**
 * The stack with a flake dose in it: its coats, and the clears that bury it. The clears asked for are laid by the first clear
 * layer above the flake; those that come after the sanding stay as they are.
 * @param buryCoats clears before sanding, the lock-down coats among them
 */
export function withFlakeDose(
  layers: readonly StackLayer[],
  found: FlakeLayer,
  dose: { readonly coats: number; readonly filmUm: number },
  buryCoats: number,
): StackLayer[] {
  const locked = found.above.filter((l) => l.kind === 'lock').reduce((sum, l) => sum + l.coats, 0);
  const first = found.above.find((l) => l.kind === 'clear');
  return layers.map((l) =>
    l.id === found.layer.id
      ? { ...l, coats: dose.coats, filmUm: dose.filmUm }
      : l.id === first?.id
        ? { ...l, coats: Math.max(1, buryCoats - locked) }
        : l,
  );
}
