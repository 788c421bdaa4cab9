import type { AngleLab, BankReading, NearestFinish } from '@steady-gleam/core/bank';
import type { Lab, Illuminant } from '@steady-gleam/core/colour';
import type { StackLayer, StyleId } from '@steady-gleam/core/finishes';
import type { ProductsCsvResult, ImportHints, ImportResult } from '@steady-gleam/core/formats';
import type { CardAnswer, CardAsk, KnownHand } from '@steady-gleam/core/letdown';
import type { FormulateStep, Pourable, Rated } from '@steady-gleam/core/formulate';
import type {
  BlendAnswer,
  BlendAsk,
  Mix,
  PatchLook,
  ProbeLook,
  SampleLook,
  SectionColours,
  StripesLook,
} from '@steady-gleam/core/looks';
import type { Nudge, RatedRecipe, StrengthSweep, TargetAngle } from '@steady-gleam/core/matching';
import type { ColourKind, OwnMaterial, OwnSystem } from '@steady-gleam/core/materials';
import type { Geometry } from '@steady-gleam/core/optics';
import type { PassSetup } from '@steady-gleam/core/spraying';
import type { CountRound } from '@steady-gleam/core/practice';

/** What a mix is looked for by. */
export interface FormulateAsk {
  readonly target: readonly TargetAngle[];
  readonly style: StyleId;
  readonly filmUm: number;
  readonly mostPigments: number;
  readonly mostDyes: number;
  readonly counts: readonly number[];
}

/** Mixes no other beats, and the nearest of all as it was found. */
export interface FormulaFound {
  readonly mixes: readonly Pourable[];
  readonly nearest: Rated | null;
}

/** A part of a match map at every strength, and the target as it is seen in its light. */
export interface SweptMap {
  readonly sweep: StrengthSweep;
  readonly seen: readonly TargetAngle[];
}

/** Everything the screens have computed, off the main thread. */
export interface Compute {
  /** Tells the worker of the shop's own materials; what is asked afterwards knows them. */
  setMaterials(own: readonly OwnMaterial[]): void;
  /** Tells the worker what the bank holds; what is asked afterwards is looked for among it. */
  setBank(readings: readonly BankReading[]): void;
  /** The finishes of the bank nearest to a reading. @param of one of them alone, or null */
  nearest(asked: readonly AngleLab[], of: string | null): readonly NearestFinish[];
  /** A pigment alone over white and over black, from face to flop. */
  pigmentLook(pigmentId: string, cover: number): { white: readonly Lab[]; black: readonly Lab[] };
  /** A dye over white: half a coat to four coats. */
  dyeLook(dyeId: string): readonly Lab[];
  /**
   * Rows of the match map, packed (see `packRows`), for some of the grounds: two workers share a map.
   * @param light the light the cells and the target are looked at under; D65 is how the target was read.
   */
  mapRows(mix: Mix, target: readonly TargetAngle[], light: Illuminant, groundIds: readonly string[]): Float64Array;
  /**
   * These rows at every strength of the mix, so that the page tells them while a slider moves. Whatever else is asked comes in between its
   * steps. @returns null where a newer one ended it
   */
  sweep(
    mix: Mix,
    target: readonly TargetAngle[],
    light: Illuminant,
    groundIds: readonly string[],
  ): Promise<SweptMap | null>;
  /** What the panel says of one place on the map beyond the map's own figures. */
  probe(mix: Mix, groundId: string, coats: number, target: readonly TargetAngle[], light: Illuminant): ProbeLook;
  /** Recipes over some grounds; stops between grounds when `stopped` says so. */
  search(
    mix: Mix,
    target: readonly TargetAngle[],
    groundIds: readonly string[],
    ticket: number,
    onGround: (done: number) => void,
  ): Promise<RatedRecipe[] | null>;
  /**
   * Mixes of what stands on the shelf that come nearest to a target, as they can be poured; ended between grounds when `stopped` says
   * so. @param onStep told the share that is done and the best so far
   */
  formulate(ask: FormulateAsk, ticket: number, onStep: (step: FormulateStep) => void): Promise<FormulaFound | null>;
  /** Ends the search with this ticket at the next ground. */
  stopSearch(ticket: number): void;
  /** What brings a sprayed card to the target. @param weaker see the core's nudge */
  nudge(
    mix: Mix,
    groundId: string,
    coats: number,
    target: readonly TargetAngle[],
    card: readonly Lab[],
    weaker: number | null,
  ): Nudge | null;
  /** Readings of a file's text; see the core. */
  importReadings(text: string, hints: ImportHints): ImportResult;
  /** Products of a CSV's text; see the core. */
  importProducts(text: string): ProductsCsvResult;
  /** Strength of a mix from the reading of a drawdown: the factor on the cover and depths given. */
  fitMix(
    colours: readonly { readonly kind: ColourKind; readonly id: string; readonly strength: number }[],
    filmUm: number,
    drawdown: NonNullable<OwnSystem['drawdown']>,
  ): { readonly factor: number; readonly off: number };
  /**
   * What a card says of the count, by instrument and by eye; null when there is nothing to go by.
   * @param on mix and ground the card was sprayed with; null where nothing is picked
   */
  card(
    on: { readonly mix: Mix; readonly groundId: string } | null,
    ask: Omit<CardAsk, 'believed'>,
    earlier: readonly KnownHand[],
  ): CardAnswer | null;
  /** Patches under tinted clear: the ground, a black and a grey patch, each under n coats. */
  patches(mix: Mix, groundId: string, counts: readonly number[]): readonly PatchLook[];
  sectionColours(mix: Mix, groundId: string, coats: number): SectionColours;
  /** The look of every ground by its id, 45 degrees from the mirror. */
  groundColours(): Readonly<Record<string, Lab>>;
  /** The look after each layer of a stack, 45 degrees from the mirror. */
  layerColours(layers: readonly StackLayer[]): readonly Lab[];
  /** The whole stack at some angles. */
  stackLook(layers: readonly StackLayer[], angles: readonly Geometry[]): readonly Lab[];
  /** What a way of spraying leaves on a panel: the film, its look, and the cheapest change that hides its stripes. */
  stripes(layers: readonly StackLayer[], mixId: string, setup: PassSetup, of: 'effect' | 'ground'): StripesLook;
  /** A blend from the repair outward over the finish that is there, and the shortest one that is not seen. */
  blend(ask: BlendAsk): BlendAnswer;
  /** Looks of a mix over a ground from no film to `most` coats of it, in even steps. */
  practiceLook(mixId: string, groundId: string, most: number): readonly (readonly Lab[])[];
  /** A card of a simulated painter, and what the program makes of the first rungs of it. */
  practiceCard(seed: number): CountRound;
  practiceAdvice(round: CountRound, seen: number): number | null;
  /** What one control coat changes of so many coats of the mix, Lab per angle. */
  controlShift(layers: readonly StackLayer[], mixId: string, coats: number, angles: readonly Geometry[]): Lab[];
  /** The stack on a curved body, beside its target. */
  sample(layers: readonly StackLayer[], target: readonly TargetAngle[]): SampleLook;
}
