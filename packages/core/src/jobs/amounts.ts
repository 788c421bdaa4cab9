import type { Library } from '../materials/ownMaterials';
import type { MixGroup } from '../mixing/groups';
import { productKindOf } from '../products/productOf';
import type { StackLayer } from '../finishes/layers';
import { cupOf } from '../products/productOf';
import type { Cell, JobLayer } from './job';
import type { JobPlan } from './planTypes';

/** What comes out of one cup in a job. */
export interface Cup {
  /** Of its first layer. */
  readonly id: string;
  readonly name: string;
  readonly kind: StackLayer['kind'];
  readonly first: JobLayer;
  readonly layers: readonly JobLayer[];
  /** Coats that count, on the area that gets most of them. */
  readonly coats: number;
  /** m2 it is laid on, each area once. */
  readonly areaM2: number;
  /** Dry film x area of all its cells, grip and tack coats with them; um m2, that is ml of solids. */
  readonly solidMl: number;
}

/**
 * Cups of a job from substrate to clear, each with what all its cells come to; a cup that nothing is laid of is left out.
 * @param cells those that are laid; the plan's where left out
 */
export function cupsOf(plan: Pick<JobPlan, 'layers' | 'cells'>, cells: readonly Cell[] = plan.cells): Cup[] {
  const ids = [...new Set(plan.layers.map((l) => cupOf(l, plan.layers)))];
  return ids.flatMap((id): Cup[] => {
    const own = cells.filter((c) => c.coat.cupId === id);
    const layers = plan.layers.filter((l) => cupOf(l, plan.layers) === id);
    const first = layers.find((l) => l.id === id)!;
    if (!own.length) return [];
    const areas = [...new Set(own.map((c) => c.areaId))].map((a) => own.filter((c) => c.areaId === a));
    return [
      {
        id,
        name: own[0]!.coat.name,
        kind: first.kind,
        first,
        layers,
        coats: Math.max(...areas.map((list) => list.reduce((s, c) => s + c.coats, 0))),
        areaM2: areas.reduce((s, list) => s + Math.max(...list.map((c) => c.areaM2)), 0),
        solidMl: own.reduce((s, c) => s + c.coat.filmUm * c.areaM2, 0),
      },
    ];
  });
}

/** What a gun leaves in its cup and hose of so little, ml; ours. */
export const LEFT_IN_GUN_ML = 15;

/** What one cell takes out of the cup, ml ready to spray. @param transfer share of the spray that lands, 0..1 */
export const cellMl = (cell: Pick<Cell, 'areaM2' | 'coat'>, transfer: number): number =>
  (cell.areaM2 * cell.coat.filmUm) / cell.coat.volumeSolids / transfer;

/**
 * How much of the cup is let down with as much of its carrier for one cell of a coat let down 1:1, ml, to the next 5.
 * @param transfer share of the spray that lands, 0..1
 */
export function letDownMl(cell: Pick<Cell, 'areaM2' | 'coat'>, transfer: number): number {
  return Math.ceil((cellMl(cell, transfer) + LEFT_IN_GUN_ML) / 2 / 5) * 5;
}

/**
 * What has to be mixed for a job, from substrate to clear; layers of the same stuff share a cup.
 * @param hand film per coat of a mix as the card taught it, against nominal
 */
export function groupsOf(
  plan: Pick<JobPlan, 'layers' | 'cells'>,
  library: Library,
  hand: { readonly mixId: string; readonly film: number } | null = null,
): MixGroup[] {
  return cupsOf(plan).map((cup) => ({
    id: cup.id,
    name: cup.name,
    kind: cup.kind,
    productKind: productKindOf(cup.first, library),
    materialId: cup.first.materialId,
    strength: cup.first.strength,
    coats: cup.coats,
    areaM2: cup.areaM2,
    solidMl: cup.solidMl * (cup.kind === 'effect' && hand?.mixId === cup.first.materialId ? hand.film : 1),
  }));
}
