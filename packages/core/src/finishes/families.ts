import { DEFAULT_TOLERANCES } from './tolerances';
import type { StyleId } from './styles';

/** What the shop's shelf calls a product. */
export type ProductKind =
  'primer' | 'sealer' | 'ground' | 'mid coat' | 'intercoat' | 'flake carrier' | 'tinted clear' | 'clear';

/** Finish families that can be a job. */
export type FinishFamily = 'pearl' | 'candy' | 'tinted-clear';

/** A layer of a family's usual stack, from substrate to clear. */
export interface FamilyLayer {
  readonly kind: 'sealer' | 'ground' | 'effect' | 'clear';
  readonly coats: number;
  readonly style: StyleId;
}

/** A layer a stack begins with; an effect is of the job's own mix. */
export interface StartingLayer {
  readonly kind: 'primer' | 'sealer' | 'ground' | 'effect' | 'lock' | 'clear';
  readonly coats: number;
  readonly style?: StyleId;
  readonly materialId?: string;
}

/**
 * Everything the program knows of a family: a row of data, not a branch. Counts, rungs and layers are common practice (no source);
 * each can be changed on the job.
 */
export interface FamilyRow {
  readonly id: FinishFamily;
  readonly name: string;
  readonly what: string;
  /** From substrate to clear; the ground's coats are those over a solid, a metallic hides in fewer. */
  readonly layers: readonly FamilyLayer[];
  /** Layers a painter may begin the stack with, from substrate to clear. */
  readonly begins: readonly StartingLayer[];
  /** Where the pick starts before anything was picked. */
  readonly start: { readonly groundId: string; readonly coats: number };
  /** Rungs of a first card, coats. */
  readonly rungs: readonly number[];
  /** What the shop's shelf calls the product the effect is mixed into. */
  readonly productKind: ProductKind;
  /** The effect itself is a two-pack clear. */
  readonly twoPack: boolean;
  /** Black and grey patches under the effect tell its film. */
  readonly patches: boolean;
  /** Limits of a match by aspecular angle, edge to edge, CIEDE2000; edited per job. */
  readonly limits: Readonly<Record<number, number>>;
}

const stack = (coats: number, clears: number): readonly FamilyLayer[] => [
  { kind: 'sealer', coats: 1, style: 'wet' },
  { kind: 'ground', coats: 3, style: 'wet' },
  { kind: 'effect', coats, style: 'wet' },
  { kind: 'clear', coats: clears, style: 'wet' },
];

export const FAMILIES: Readonly<Record<FinishFamily, FamilyRow>> = {
  pearl: {
    id: 'pearl',
    name: 'Three-stage pearl',
    what: 'pearl in clear binder over white or pastel',
    layers: stack(3, 2),
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 3, materialId: 'white' },
      { kind: 'effect', coats: 3 },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'white', coats: 3 },
    rungs: [1, 2, 3, 4],
    productKind: 'mid coat',
    twoPack: false,
    patches: false,
    limits: DEFAULT_TOLERANCES,
  },
  candy: {
    id: 'candy',
    name: 'Candy over metallic',
    what: 'dye in intercoat clear over bright metallic',
    layers: stack(3, 2),
    begins: [
      { kind: 'primer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'silver-fine' },
      { kind: 'ground', coats: 1, materialId: 'silver-fine', style: 'control' },
      { kind: 'effect', coats: 4, style: 'light' },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'silver-fine', coats: 3 },
    rungs: [2, 3, 4, 5],
    productKind: 'intercoat',
    twoPack: false,
    patches: false,
    limits: DEFAULT_TOLERANCES,
  },
  'tinted-clear': {
    id: 'tinted-clear',
    name: 'Tinted clear',
    what: 'tint in two-pack clear over an effect base',
    layers: stack(2, 1),
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'gold' },
      { kind: 'effect', coats: 2 },
      { kind: 'clear', coats: 1 },
    ],
    start: { groundId: 'silver-fine', coats: 2 },
    rungs: [1, 1.5, 2, 2.5],
    productKind: 'tinted clear',
    twoPack: true,
    patches: true,
    limits: DEFAULT_TOLERANCES,
  },
};

export const FAMILY_IDS = Object.keys(FAMILIES) as readonly FinishFamily[];
