import { FAMILIES, FAMILY_IDS, type StartingLayer, type FinishFamily } from './families';
import type { Recipe } from './recipe';
import { STYLES, type StyleId } from './styles';

export type StackLayerKind = 'primer' | 'sealer' | 'ground' | 'effect' | 'lock' | 'clear';

export const LAYER_NAMES: Record<StackLayerKind, string> = {
  primer: 'primer',
  sealer: 'sealer',
  ground: 'ground',
  effect: 'effect',
  lock: 'lock-down clear',
  clear: 'clear',
};

/** Dry film of a nominal full coat, um; common practice (no source), the product's sheet rules. */
export const LAYER_FILM_UM: Record<StackLayerKind, number> = {
  primer: 45,
  sealer: 25,
  ground: 12,
  effect: 9,
  lock: 12,
  clear: 28,
};

/** Coats of one kind in a stack. */
export interface StackLayer {
  readonly id: string;
  readonly kind: StackLayerKind;
  /** Ground or mix laid here; of a sealer the ground whose shade it has, null for a mid grey; null for the rest. */
  readonly materialId: string | null;
  readonly coats: number;
  readonly style: StyleId;
  /** Mix strength of an effect layer; 1 elsewhere. */
  readonly strength: number;
  /** Dry film of one nominal full coat, um. */
  readonly filmUm: number;
}

/** One stack of a piece; a two-tone piece carries several. Layers lie from substrate to clear. */
export interface PieceStack {
  readonly id: string;
  readonly name: string;
  readonly layers: readonly StackLayer[];
}

/** Build above which clear tends to crack and edges to print, um: ours, editable per job; the product's sheet rules. */
export const USUAL_LIMIT_UM = 300;

export function layerFilmUm(layer: StackLayer): number {
  return layer.coats * layer.filmUm * STYLES[layer.style].film;
}

export function stackFilmUm(layers: readonly StackLayer[]): number {
  return layers.reduce((sum, l) => sum + layerFilmUm(l), 0);
}

/** Coats that are laid and not counted: a grip coat before the first effect, a tack coat before the first clear. */
export interface LaidWith {
  readonly grip: boolean;
  readonly tack: boolean;
}

/** Film of every layer as it is laid, um, in their order: with the coats that are not counted. */
export function laidFilmsUm(layers: readonly StackLayer[], laid: LaidWith): number[] {
  const isFirst = (l: StackLayer) => layers.find((o) => o.kind === l.kind) === l;
  return layers.map((l) => {
    const thin = l.kind === 'effect' && laid.grip ? 'grip' : l.kind === 'clear' && laid.tack ? 'tack' : null;
    return layerFilmUm(l) + (thin && isFirst(l) ? STYLES[thin].film * l.filmUm : 0);
  });
}

/** The whole of it, um. */
export const laidFilmUm = (layers: readonly StackLayer[], laid: LaidWith): number =>
  laidFilmsUm(layers, laid).reduce((sum, um) => sum + um, 0);

const layer = (id: string, kind: StackLayerKind, coats: number, more: Partial<StackLayer> = {}): StackLayer => ({
  id,
  kind,
  materialId: null,
  coats,
  style: 'wet',
  strength: 1,
  filmUm: LAYER_FILM_UM[kind],
  ...more,
});

/** What layers need to know of a ground, and of a mix. */
export interface LaidGround {
  readonly id: string;
  /** Left out for a solid. */
  readonly flakes?: unknown;
  /** Full coats until it hides. */
  readonly hidesIn: number;
}

export interface LaidMix {
  readonly id: string;
  readonly family: FinishFamily;
  readonly filmUm: number;
}

/** Layers of a plain job: sealer, ground, effect, control coat when there is one, clear. Ids are `sealer`, `ground` and so on. */
export function layersOf(ground: LaidGround, system: LaidMix, recipe: Recipe): StackLayer[] {
  const effect = { materialId: system.id, strength: recipe.strength, filmUm: system.filmUm };
  const { layers, begins } = FAMILIES[system.family];
  const sealerId = begins.find((l) => l.kind === 'sealer')?.materialId ?? null;
  return layers.flatMap(({ kind, coats, style }, i): StackLayer[] => {
    if (kind === 'ground') {
      // As many as hide, in the style they are laid in; a solid is not laid in fewer than usual.
      const hide = Math.ceil((2 * ground.hidesIn) / STYLES[style].film - 1e-9) / 2;
      return [layer(kind, kind, ground.flakes ? hide : Math.max(coats, hide), { materialId: ground.id, style })];
    }
    if (kind === 'sealer') return [layer(kind, kind, coats, { materialId: sealerId, style })];
    if (kind !== 'effect') {
      const nth = layers.slice(0, i).filter((o) => o.kind === kind).length;
      return [layer(nth ? `${kind}-${nth + 1}` : kind, kind, coats, { style })];
    }
    const laid = layer(kind, kind, recipe.coats, { ...effect, style: recipe.style });
    return recipe.controlCoats
      ? [laid, layer('control', 'effect', recipe.controlCoats, { ...effect, style: 'control' })]
      : [laid];
  });
}

/**
 * What the layers say about a job's mix: the ground under its first coats, their number and style, a control coat on top.
 * @returns null when the stack does not lay the mix over a ground.
 */
export function recipeOf(layers: readonly StackLayer[], mixId: string): Recipe | null {
  const first = layers.findIndex((l) => l.kind === 'effect' && l.materialId === mixId && l.style !== 'control');
  if (first < 0) return null;
  const ground = layers.slice(0, first).findLast((l) => l.kind === 'ground');
  if (!ground?.materialId) return null;
  const { style, strength } = layers[first]!;
  const above = layers.slice(first).filter((l) => l.kind === 'effect' && l.materialId === mixId);
  return {
    groundId: ground.materialId,
    coats: above.filter((l) => l.style !== 'control').reduce((sum, l) => sum + l.coats, 0),
    strength,
    style,
    controlCoats: above.filter((l) => l.style === 'control').reduce((sum, l) => sum + l.coats, 0),
  };
}

/** The stack with a new pick in it: its ground, its effect coats in one layer, its control coat; all else stays. */
export function withRecipe(layers: readonly StackLayer[], mixId: string, recipe: Recipe): StackLayer[] {
  const old = recipeOf(layers, mixId);
  if (!old) return [...layers];
  const first = layers.findIndex((l) => l.kind === 'effect' && l.materialId === mixId && l.style !== 'control');
  const groundAt = layers.slice(0, first).findLastIndex((l) => l.kind === 'ground');
  const model = layers[first]!;
  return layers.flatMap((l, i): StackLayer[] => {
    if (i === groundAt) return [{ ...l, materialId: recipe.groundId }];
    if (i === first) {
      const laid = { ...l, coats: recipe.coats, style: recipe.style, strength: recipe.strength };
      if (!recipe.controlCoats) return [laid];
      const control = layers.find((o) => o.kind === 'effect' && o.materialId === mixId && o.style === 'control');
      return [
        laid,
        {
          ...model,
          id: control?.id ?? `${model.id}-control`,
          coats: recipe.controlCoats,
          style: 'control',
          strength: recipe.strength,
        },
      ];
    }
    return i > first && l.kind === 'effect' && l.materialId === mixId ? [] : [l];
  });
}

/** A way to begin a stack: its layers from substrate to clear. */
interface StartingStack {
  readonly id: string;
  readonly name: string;
  readonly layers: readonly StartingLayer[];
}

/** Ways to begin a stack: every family's, and one without an effect. Counts are common practice (no source). */
export const STARTING_STACKS: readonly StartingStack[] = [
  ...FAMILY_IDS.map((id) => ({ id, name: FAMILIES[id].name, layers: FAMILIES[id].begins })),
  {
    id: 'bare',
    name: 'Ground and clear only',
    layers: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 3, materialId: 'white' },
      { kind: 'clear', coats: 2 },
    ],
  },
];

/** A starting stack with the job's own mix in it. @param newId makes a fresh id a call. @throws RangeError for no such stack */
export function startingLayers(id: string, system: LaidMix, newId: () => string): StackLayer[] {
  const found = STARTING_STACKS.find((s) => s.id === id);
  if (!found) throw new RangeError(`There is no starting stack ${id}.`);
  return found.layers.map(({ kind, coats, style = 'wet', materialId = null }) =>
    layer(
      newId(),
      kind,
      coats,
      kind === 'effect' ? { style, materialId: system.id, filmUm: system.filmUm } : { style, materialId },
    ),
  );
}

/** Materials a stack's layers name. */
export function materialsOf(stacks: readonly PieceStack[]): { kind: 'ground' | 'system'; id: string }[] {
  return stacks.flatMap((s) =>
    s.layers.flatMap((l) =>
      l.materialId ? [{ kind: l.kind === 'effect' ? ('system' as const) : ('ground' as const), id: l.materialId }] : [],
    ),
  );
}
