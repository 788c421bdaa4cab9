import type { Lab } from '../colour/lab';
import { D65_10, type Viewing } from '../colour/tristimulus';
import { defaultTolerance } from '../finishes/tolerances';
import { FAMILIES } from '../finishes/families';
import { STYLES, type Hand } from '../finishes/styles';
import { answerCard } from '../letdown/answer';
import { noiseAt, noiseOf, type RungReading } from '../letdown/readings';
import { findGround } from '../materials/grounds';
import type { EffectMix } from '../materials/effectMix';
import type { PreparedLibrary } from '../materials/shop';
import { effectCoats, factorsToLabs, type EffectCoats } from '../matching/ladder';
import { findStopWindow } from '../matching/stopWindow';
import type { TargetAngle } from '../matching/target';
import { createRandom, normal, seedOf } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';

/** A simulated painter's card: rungs to look at over what is wanted, and behind it the truth. */
export interface CountRound {
  readonly seed: number;
  readonly mixId: string;
  readonly groundId: string;
  /** Rungs in coats, ascending, and by light what they look like at the five angles. */
  readonly rungs: readonly number[];
  readonly lights: readonly {
    readonly name: string;
    readonly wanted: readonly Lab[];
    readonly rungs: readonly (readonly Lab[])[];
  }[];
  /** The count that is nearest, and those between which every angle passes. */
  readonly best: number;
  readonly window: readonly [number, number];
  /** What an instrument says of what is wanted, of the bare ground and of the rungs. */
  readonly read: {
    readonly wanted: readonly Lab[];
    readonly bare: readonly Lab[];
    readonly rungs: readonly (readonly Lab[])[];
  };
}

/** Finishes that get darker with every coat, by this much L* over the card: there one word decides. Ours. */
const DARKER = 12;
const LAST = 6;
const STEP = 0.5;
/** How far another hand may be from the model's, ln: film, flake, lie of the flakes; shift of the dye, nm. */
const HAND = { film: 0.2, flake: 0.15, spread: 0.12, hueNm: 2 } as const;
/** Counts the wanted finish may have been made with. */
const [LEAST, MOST] = [1.5, 4.5] as const;
/** Other draws that are tried for a card with a window; there is always one among so many. */
const TRIES = 40;
const FINE = 0.05;
/** Of the five angles that of 45 degrees. */
const MIDDLE = 2;
const BULB: Viewing = { illuminant: 'A', observer: '10' };

/**
 * A card for a seed: another hand than the model's sprays a mix of the library, and what is wanted was made by a third.
 * @throws Error when no draw has a stop window, which a library of usual mixes does not do
 */
export function drawCount(shop: PreparedLibrary, seed: number): CountRound {
  const { library } = shop;
  for (let k = 0; k < TRIES; k++) {
    const round = tryCount(shop, seed, createRandom(seedOf(seed, `count ${k}`)), library.systems);
    if (round) return round;
  }
  throw new Error('No card of this library has a stop window.');
}

function tryCount(
  shop: PreparedLibrary,
  seed: number,
  random: () => number,
  mixes: readonly EffectMix[],
): CountRound | null {
  const mix = mixes[Math.floor(random() * mixes.length)]!;
  const { start } = FAMILIES[mix.family];
  const ground = shop.ground(findGround(start.groundId, shop.library.grounds));
  const model = shop.model(FIVE_ANGLES);
  const by = (hand: Hand): EffectCoats => ({ coat: shop.coat(mix, 1), style: STYLES[start.style], hand });
  const draw = (): Hand => ({
    film: Math.exp(HAND.film * normal(random)),
    flake: Math.exp(HAND.flake * normal(random)),
    spread: Math.exp(HAND.spread * normal(random)),
    hueNm: HAND.hueNm * normal(random),
  });
  const made = draw();
  // The painter's pot is the other's: hands differ by how much they lay and how it lies.
  const own = { ...draw(), hueNm: made.hueNm ?? 0 };
  const at = (recipe: EffectCoats, n: number) =>
    model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, n)]));
  const wanted = at(by(made), LEAST + (MOST - LEAST) * random());
  const rungs = Array.from({ length: LAST / STEP }, (_, i) => (i + 1) * STEP);
  const laid = [0, ...rungs].map((n) => at(by(own), n));
  const target = factorsToLabs(wanted).map((lab, g): TargetAngle => {
    const angle = FIVE_ANGLES[g]!;
    return { ...angle, lab, tolerance: defaultTolerance(angle.aspecular) };
  });
  const labs = laid.map((f) => factorsToLabs(f));
  const { window, best } = findStopWindow(target, [0, ...rungs], labs, 3);
  const darkens = labs.every((l, i) => i === 0 || l[MIDDLE]![0] < labs[i - 1]![MIDDLE]![0]);
  const far = labs[0]![MIDDLE]![0] - labs.at(-1)![MIDDLE]![0];
  if (
    !window ||
    !darkens ||
    far < DARKER ||
    window[1] - window[0] < 3 * FINE ||
    best.coats < 1 ||
    best.coats > LAST - 1
  )
    return null;
  // Readings of an instrument as it is used on a card.
  const noise = noiseOf(
    null,
    target.map((t) => t.lab[0]),
  );
  const read = (of: readonly Lab[]) =>
    of.map(([l, a, b], g): Lab => {
      const sd = noiseAt(noise, g, l);
      return [l + sd * normal(random), a + sd * normal(random), b + sd * normal(random)];
    });
  const [spot, bare, ...spots] = [target.map((t) => t.lab), ...labs].map(read);
  return {
    ...{ seed, mixId: mix.id, groundId: ground.id, rungs, best: best.coats, window },
    read: { wanted: spot!, bare: bare!, rungs: spots },
    lights: [D65_10, BULB].map((viewing, i) => ({
      name: i ? 'bulb' : 'daylight',
      wanted: factorsToLabs(wanted, viewing),
      rungs: laid.slice(1).map((f) => factorsToLabs(f, viewing)),
    })),
  };
}

/** What the program makes of the first rungs of a card: its count; null where it has none. @param seen how many of them */
export function adviseCount(shop: PreparedLibrary, round: CountRound, seen: number): number | null {
  const mix = shop.library.systems.find((m) => m.id === round.mixId)!;
  const angles = FIVE_ANGLES.map((angle, g): TargetAngle => {
    return { ...angle, lab: round.read.wanted[g]!, tolerance: defaultTolerance(angle.aspecular) };
  });
  const noise = noiseOf(
    null,
    angles.map((t) => t.lab[0]),
  );
  const said = answerCard(
    {
      model: shop.model(FIVE_ANGLES),
      ground: shop.ground(findGround(round.groundId, shop.library.grounds)),
      recipe: { coat: shop.coat(mix, 1), style: STYLES[FAMILIES[mix.family].start.style] },
      viewing: D65_10,
    },
    {
      target: { angles, spots: 3, sameInstrument: true, noise },
      bare: round.read.bare,
      rungs: round.rungs.slice(0, seen).map((coats, i): RungReading => ({ coats, labs: round.read.rungs[i]! })),
      ...{ verdicts: [], handHeld: true, believed: {} },
    },
  );
  return said ? said.card.best : null;
}

/** How a stop came out. */
export type CountOutcome = 'inside' | 'short' | 'over';
export const countOutcome = (round: Pick<CountRound, 'window'>, said: number): CountOutcome =>
  said < round.window[0] - 1e-9 ? 'short' : said > round.window[1] + 1e-9 ? 'over' : 'inside';
