import { DEFAULT_TOLERANCES } from './tolerances';
import type { StyleId } from './styles';

/** What the shop's shelf calls a product. */
export type ProductKind =
  'primer' | 'sealer' | 'ground' | 'mid coat' | 'intercoat' | 'flake carrier' | 'tinted clear' | 'clear';

/** Finish families; every one is a job. */
export type FinishFamily =
  'pearl' | 'candy' | 'tri-coat' | 'tinted-clear' | 'metal-flake' | 'colour-shift' | 'weak-hiding';

/** What is looked for in a target: its colour at some angles, how its hue travels over them, or how much flakes cover. */
export type Wanted = 'colour' | 'travel' | 'cover';

/** A layer of a family's usual stack, from substrate to clear. */
export interface FamilyLayer {
  readonly kind: 'sealer' | 'ground' | 'effect' | 'lock' | 'clear';
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
 * Everything the program knows of a family: a row of data, not a branch, and the only place that names one. Counts, rungs, layers,
 * preparation and guns are common practice (no source); each can be changed on the job.
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
  readonly start: { readonly groundId: string; readonly coats: number; readonly style: StyleId };
  /**
   * Coats of the mix that are laid in the pick's own style; those above them are control coats, and the count is of all of them.
   * Null where every counted coat is of one style and control coats come on top, uncounted.
   */
  readonly controlAfter: number | null;
  /** Rungs of a first card, counted as above. */
  readonly rungs: readonly number[];
  readonly wanted: Wanted;
  /** What is matched, as it is said on the target. */
  readonly matched: string;
  /**
   * What an eye says of a rung or a place beside what it has to match. `less` and `more` are of its lightness, or of how densely
   * flakes lie; `beside` are further words, kept as they are said.
   */
  readonly byEye: {
    readonly of: 'lightness' | 'cover';
    readonly less: string;
    readonly more: string;
    readonly beside: readonly string[];
  };
  /** What cannot be undone once it is on. */
  readonly keeps: string;
  /** How the last layer before the ground is sanded. */
  readonly prep: string;
  /** The gun for the effect coats: tips that suit, mm, and how it is led. */
  readonly gun: { readonly tipMm: readonly [number, number]; readonly led: string };
  /** What the shop's shelf calls the product the effect is mixed into. */
  readonly productKind: ProductKind;
  /** The effect itself is a two-pack clear. */
  readonly twoPack: boolean;
  /** Black and grey patches under the effect tell its film. */
  readonly patches: boolean;
  /** Looked at in low light too before it may be called matched. */
  readonly lowLight: boolean;
  /** The count is the sheet's: how far one coat more moves the colour is said beside it, and a grey step is advised. */
  readonly specified: boolean;
  /** Limits of a match by aspecular angle, edge to edge, CIEDE2000; edited per job. */
  readonly limits: Readonly<Record<number, number>>;
}

const HUES = ['redder', 'yellower', 'greener', 'bluer'] as const;
const lightness = (...beside: readonly string[]): FamilyRow['byEye'] => ({
  of: 'lightness',
  less: 'lighter',
  more: 'darker',
  beside,
});

const l = (kind: FamilyLayer['kind'], coats: number, style: StyleId = 'wet'): FamilyLayer => ({ kind, coats, style });

export const FAMILIES: Readonly<Record<FinishFamily, FamilyRow>> = {
  pearl: {
    id: 'pearl',
    name: 'Three-stage pearl',
    what: 'pearl in clear binder over white or pastel',
    layers: [l('sealer', 1), l('ground', 3), l('effect', 3), l('clear', 2)],
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 3, materialId: 'white' },
      { kind: 'effect', coats: 3 },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'white', coats: 3, style: 'wet' },
    controlAfter: null,
    rungs: [1, 2, 3, 4],
    wanted: 'colour',
    matched: 'colour from face to flop',
    byEye: lightness(...HUES),
    keeps: 'One coat too many does not come off: then it is the ground again.',
    prep: 'P500 to P600 under the ground',
    gun: { tipMm: [1.2, 1.4], led: 'walk the whole side' },
    productKind: 'mid coat',
    twoPack: false,
    patches: false,
    lowLight: true,
    specified: false,
    limits: DEFAULT_TOLERANCES,
  },
  candy: {
    id: 'candy',
    name: 'Candy over metallic',
    what: 'dye in intercoat clear over bright metallic',
    layers: [l('sealer', 1), l('ground', 3), l('effect', 3), l('clear', 2)],
    begins: [
      { kind: 'primer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'silver-fine' },
      { kind: 'ground', coats: 1, materialId: 'silver-fine', style: 'control' },
      { kind: 'effect', coats: 4, style: 'light' },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'silver-fine', coats: 3, style: 'wet' },
    controlAfter: null,
    rungs: [2, 3, 4, 5],
    wanted: 'colour',
    matched: 'colour, and its depth at the face',
    byEye: lightness(...HUES, 'weaker', 'deeper'),
    keeps:
      'Neither a coat too many, nor the dark edge of a side done panel by panel, nor a flaw of the ground comes off.',
    prep: 'P600 to P800 under the metallic',
    gun: { tipMm: [1.2, 1.4], led: 'walk the whole side' },
    productKind: 'intercoat',
    twoPack: false,
    patches: false,
    lowLight: false,
    specified: false,
    limits: DEFAULT_TOLERANCES,
  },
  'tri-coat': {
    id: 'tri-coat',
    name: 'Tri-coat over solid',
    what: 'pearl and dye in one mid coat (6:1:1 and the like) over a solid bright ground',
    layers: [l('sealer', 1), l('ground', 2), l('effect', 2, 'medium'), l('clear', 2)],
    begins: [
      { kind: 'sealer', coats: 1, materialId: 'signal-rose' },
      { kind: 'ground', coats: 2, materialId: 'ticket-red' },
      { kind: 'effect', coats: 2, style: 'medium' },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'ticket-red', coats: 2, style: 'medium' },
    controlAfter: null,
    rungs: [1, 2, 3],
    wanted: 'colour',
    matched: 'colour from face to flop, and in low light',
    byEye: lightness(...HUES),
    keeps: 'One coat too many does not come off; an uneven sealer shows through the ground.',
    prep: 'P600 under the sealer; the sealer evened to the ground’s own shade',
    gun: { tipMm: [1.2, 1.4], led: 'walk the whole side' },
    productKind: 'mid coat',
    twoPack: false,
    patches: false,
    lowLight: true,
    specified: false,
    limits: DEFAULT_TOLERANCES,
  },
  'tinted-clear': {
    id: 'tinted-clear',
    name: 'Tinted clear',
    what: 'tint in two-pack clear over an effect base',
    layers: [l('sealer', 1), l('ground', 3), l('effect', 2), l('clear', 1)],
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'gold' },
      { kind: 'effect', coats: 2 },
      { kind: 'clear', coats: 1 },
    ],
    start: { groundId: 'silver-fine', coats: 2, style: 'wet' },
    controlAfter: null,
    rungs: [1, 1.5, 2, 2.5],
    wanted: 'colour',
    matched: 'colour; a black and a grey patch under it are the film gauge',
    byEye: lightness(...HUES, 'weaker', 'deeper'),
    keeps: 'Neither a coat too many nor a fat edge comes off: a run stays a dark spot.',
    prep: 'P600 under the base',
    gun: { tipMm: [1.3, 1.3], led: 'walk the whole side, the edge kept wet: twin guns, slow hardener' },
    productKind: 'tinted clear',
    twoPack: true,
    patches: true,
    lowLight: false,
    specified: false,
    limits: DEFAULT_TOLERANCES,
  },
  'metal-flake': {
    id: 'metal-flake',
    name: 'Metal flake',
    what: 'flakes of 0.1 to 0.6 mm in binder or intercoat over a ground',
    layers: [l('sealer', 1), l('ground', 2), l('effect', 2), l('lock', 1), l('clear', 3), l('clear', 2)],
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'silver-coarse' },
      { kind: 'effect', coats: 2 },
      { kind: 'lock', coats: 1 },
      { kind: 'clear', coats: 3 },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'silver-fine', coats: 2, style: 'wet' },
    controlAfter: null,
    rungs: [1, 2, 3],
    wanted: 'cover',
    matched: 'cover, size mix and sparkle; colour of flake and ground as the mean over an area',
    byEye: { of: 'cover', less: 'sparser', more: 'denser', beside: ['finer', 'coarser', 'ground shows'] },
    keeps: 'Flakes under the lock-down clear are buried: none comes out, and sanding must never reach them.',
    prep: 'P400 under the ground',
    gun: { tipMm: [1.8, 2.5], led: 'keep it moving, and the cup stirred: flake settles' },
    productKind: 'flake carrier',
    twoPack: false,
    patches: false,
    lowLight: false,
    specified: false,
    limits: { [-15]: 4, 15: 4, 25: 3, 45: 2, 75: 2, 110: 2.5 },
  },
  'colour-shift': {
    id: 'colour-shift',
    name: 'Colour-shift',
    what: 'interference flakes that travel, over black',
    layers: [l('sealer', 1), l('ground', 2, 'medium'), l('effect', 1, 'medium'), l('clear', 2)],
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'black', style: 'medium' },
      { kind: 'effect', coats: 1, style: 'medium' },
      { kind: 'effect', coats: 2, style: 'control' },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'black', coats: 3, style: 'medium' },
    controlAfter: 1,
    rungs: [2, 3],
    wanted: 'travel',
    matched: 'hue over angle (its travel), then lightness at the face',
    byEye: lightness('turns too early', 'turns too late', 'duller', 'blotchy'),
    keeps: 'A blotch does not even out: it is the black again.',
    prep: 'P800 or finer: every scratch shows',
    gun: { tipMm: [1.2, 1.4], led: 'the control coats from twice as far' },
    productKind: 'mid coat',
    twoPack: false,
    patches: false,
    lowLight: false,
    specified: false,
    limits: DEFAULT_TOLERANCES,
  },
  'weak-hiding': {
    id: 'weak-hiding',
    name: 'Weak-hiding colour',
    what: 'translucent solid or fine metallic over a chosen ground, a specified 3 to 4 coats',
    layers: [l('sealer', 1), l('ground', 2), l('effect', 3), l('clear', 2)],
    begins: [
      { kind: 'sealer', coats: 1 },
      { kind: 'ground', coats: 2, materialId: 'grey-63' },
      { kind: 'effect', coats: 3 },
      { kind: 'clear', coats: 2 },
    ],
    start: { groundId: 'white', coats: 3, style: 'wet' },
    controlAfter: null,
    rungs: [2, 3, 4, 5],
    wanted: 'colour',
    matched: 'colour, how far one coat more moves it, and that the ground is even below it',
    byEye: lightness(...HUES, 'ground shows through'),
    keeps: 'A coat beyond the specified count moves the colour away again, and does not come off.',
    prep: 'P500 to P600 under the ground',
    gun: { tipMm: [1.3, 1.4], led: 'even coats, edges first: there it hides least' },
    productKind: 'mid coat',
    twoPack: false,
    patches: false,
    lowLight: false,
    specified: true,
    limits: DEFAULT_TOLERANCES,
  },
};

export const FAMILY_IDS = Object.keys(FAMILIES) as readonly FinishFamily[];

/** Families a try-out is offered of: those whose colour is what is matched, in coats that are all alike. */
export const TRY_OUT_FAMILIES: readonly FinishFamily[] = FAMILY_IDS.filter(
  (f) => FAMILIES[f].wanted === 'colour' && FAMILIES[f].controlAfter === null && !FAMILIES[f].specified,
);
