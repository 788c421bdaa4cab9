import { type Lab, D65_10 } from '../colour';
import { type DemoTruth, demoReadings } from '../demo';
import { STYLES, defaultTolerance } from '../finishes';
import { averageReadings } from '../formats';
import {
  type RungReading,
  type LadderOf,
  type TargetRead,
  noiseOf,
  type CardOptions,
  type CardSaid,
  readCard,
} from '../letdown';
import { prepareLibrary, findGround, findMix } from '../materials';
import { FIVE_ANGLES } from '../optics';

const shop = prepareLibrary();
export const model = shop.model(FIVE_ANGLES);
export const read = (truth: DemoTruth, coats: number, seed: number, spots = ['1']): Lab[] =>
  averageReadings(demoReadings(shop, truth, coats, spots, seed)).map((a) => a.lab);
export const rungsOf = (truth: DemoTruth, counts: readonly number[], seed: number): RungReading[] =>
  counts.map((coats, k) => ({ coats, labs: read(truth, coats, seed + k) }));
export const base = { strength: 1, style: 'wet', edgeScale: 1.2 } as const;
export const KINDS = [
  { groundId: 'aqua-pastel', mixId: 'lagoon-pearl' },
  { groundId: 'silver-fine', mixId: 'cinder-candy' },
  { groundId: 'gold', mixId: 'smoke-tea-clear' },
] as const;
export const NOMINAL = { film: 1, flake: 1, spread: 1 };
export const ladderOf = (truth: DemoTruth): LadderOf => ({
  model,
  ground: shop.ground(findGround(truth.groundId)),
  recipe: { coat: shop.coat(findMix(truth.mixId), truth.strength), style: STYLES[truth.style] },
  viewing: D65_10,
});

export const targetOf = (labs: readonly Lab[], more: Partial<TargetRead> = {}): TargetRead => ({
  angles: FIVE_ANGLES.map((g, k) => ({ ...g, lab: labs[k]!, tolerance: defaultTolerance(g.aspecular) })),
  spots: 3,
  sameInstrument: true,
  noise: noiseOf(null, []),
  ...more,
});

export const cardOf = (
  truth: DemoTruth,
  rungs: readonly RungReading[],
  target = targetOf(read({ ...truth, hand: NOMINAL }, 2.6, 5, ['1', '2', '3'])),
  options: CardOptions = {},
  bare: readonly Lab[] | null = null,
): CardSaid => readCard(ladderOf(truth), target, { bare, rungs, noise: target.noise }, options);
