import { FAMILIES, FAMILY_IDS, type FinishFamily } from '../finishes/families';

/** How a rung looks beside the target, seen from one place. */
export type Verdict = 'much lighter' | 'lighter' | 'match' | 'darker' | 'much darker';
export const VERDICTS: readonly Verdict[] = ['much lighter', 'lighter', 'match', 'darker', 'much darker'];
/** Which way its hue is off. */
export type HueWord = 'redder' | 'yellower' | 'greener' | 'bluer';
export const HUE_WORDS: readonly HueWord[] = ['redder', 'yellower', 'greener', 'bluer'];
/** How its peel is off, under clear. */
export const PEEL_WORDS = ['rougher', 'flatter'] as const;
export const isPeelWord = (word: string | null | undefined): boolean => PEEL_WORDS.some((w) => w === word);
/** All that may be said beside a verdict; what is no hue is kept, and no evidence of the count. */
export const EYE_WORDS: readonly string[] = [
  ...new Set([...HUE_WORDS, ...FAMILY_IDS.flatMap((id) => FAMILIES[id].byEye.beside), ...PEEL_WORDS]),
];
/** Where the painter stood. */
export type EyeView = 'sun face' | 'sun flop' | 'shade' | 'lamp' | 'low light' | 'shop light';
/** `shop light` is where a job is handed over; nobody judges a card in it. */
export const EYE_VIEWS: readonly EyeView[] = ['sun face', 'sun flop', 'shade', 'low light', 'lamp', 'shop light'];
const CARD_VIEWS: readonly EyeView[] = ['sun face', 'sun flop', 'shade', 'lamp', 'low light'];
/** Places a card, and a coat in the booth, of a family are looked at from. */
export const viewsOf = (family: FinishFamily): readonly EyeView[] =>
  CARD_VIEWS.filter((v) => v !== 'low light' || FAMILIES[family].lowLight);

/** What has to be looked at before a finish may be called matched, as it is said: the face, the flop, and low light where it tells. */
export type LookedAt = 'at the face' | 'in the flop' | 'in low light';
const LOOKED_AT: readonly (readonly [LookedAt, readonly EyeView[]])[] = [
  ['at the face', ['sun face', 'lamp']],
  ['in the flop', ['sun flop']],
  ['in low light', ['low light']],
];

/** What an eye has not seen yet of a finish of a family. @param seen the places it was looked at from */
export function missingViews(family: FinishFamily, seen: readonly EyeView[]): LookedAt[] {
  const asked = viewsOf(family);
  return LOOKED_AT.filter(([, from]) => from.some((v) => asked.includes(v)) && !from.some((v) => seen.includes(v))).map(
    ([what]) => what,
  );
}

const FROM: Readonly<Record<EyeView, string>> = {
  'sun face': 'at the face in the sun',
  'sun flop': 'in the sun’s flop',
  shade: 'in open shade',
  'low light': 'at dusk',
  lamp: 'under the booth lamp',
  'shop light': 'in the shop’s light',
};
/** A place to stand as it stands in a sentence. */
export const sayFrom = (view: EyeView): string => FROM[view];

export interface RungVerdict {
  readonly coats: number;
  readonly view: EyeView;
  readonly verdict: Verdict;
  readonly hue?: string | null;
}

/** Differences at which an eye says so, dE00: a little, and clearly. From memory; a painter with a sharper eye sets them lower. */
export interface EyeCuts {
  readonly little: number;
  readonly clear: number;
}

export const USUAL_CUTS: EyeCuts = { little: 1, clear: 3 };
