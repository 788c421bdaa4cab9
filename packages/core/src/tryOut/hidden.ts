import type { Lab } from '../colour/lab';
import { FAMILIES, type FinishFamily } from '../finishes/families';
import { STYLES, type StyleId } from '../finishes/styles';
import { findGround } from '../materials/grounds';
import type { Library } from '../materials/ownMaterials';
import { findMix } from '../materials/mixes';
import type { PreparedLibrary } from '../materials/shop';
import { createRandom, normal, seedOf } from '../numeric/random';
import { drawForeign, sightOf, type ForeignTruth } from '../study/foreign';
import { SCATTER } from '../study/painterFigures';

/**
 * What stands behind the curtain of a try-out: a pot, a hand and grounds that nobody tells the program, and a finish that someone else
 * made of the same mix.
 */
export interface Hidden {
  readonly seed: number;
  readonly truth: ForeignTruth;
  readonly mixId: string;
  /** Of the finish that is matched; its film is in `truth.made`. */
  readonly wanted: { readonly groundId: string; readonly strength: number; readonly style: StyleId };
  /** Film of a coat of this painter, against a nominal one. */
  readonly hand: number;
}

/** How much lighter or darker than the family's usual ground the hidden one may be, L*; ours. */
const NEAR_L = 30;
/** Strengths the hidden finish was mixed in. */
const STRENGTHS = [0.8, 1.2] as const;

const pick = <T>(of: readonly T[], random: () => number): T => of[Math.floor(random() * of.length)]!;

/** What is behind the curtain; the same for the same seed. */
export function drawHidden(seed: number, family: FinishFamily, library: Library): Hidden {
  const random = createRandom(seedOf(seed, family));
  const { start } = FAMILIES[family];
  const usual = findGround(start.groundId, library.grounds);
  const grounds = library.grounds.filter(
    (g) => !!g.flakes === !!usual.flakes && Math.abs(g.lab[0] - usual.lab[0]) <= NEAR_L,
  );
  const mix = pick(
    library.systems.filter((m) => m.family === family),
    random,
  );
  const ground = pick(grounds, random);
  const strength = STRENGTHS[0] + (STRENGTHS[1] - STRENGTHS[0]) * random();
  return {
    seed,
    mixId: mix.id,
    wanted: { groundId: ground.id, strength, style: start.style },
    hand: Math.exp(SCATTER.hand * normal(random)),
    truth: drawForeign(random),
  };
}

/** What of a pick the true colours follow from. */
export interface Picked {
  readonly groundId: string;
  readonly strength: number;
  readonly style: StyleId;
}

/** Films that are remembered. */
const MOST_SEEN = 40;
/** Rays per colour: what the tracer scatters stays well under what an instrument does. */
export const RAYS = 2000;

/** True colours, traced when they are asked for. */
export type Sight = ReturnType<typeof sightOf>;

/**
 * True colours of the painter's own film over what he picked, and of the finish he matches.
 * @param picked null while nothing is. @param rays per colour
 */
export function hiddenSight(shop: PreparedLibrary, hidden: Hidden, picked: Picked | null, rays = RAYS): Sight {
  const mix = findMix(hidden.mixId, shop.library.systems);
  const of = ({ groundId, strength, style }: Picked) =>
    sightOf(
      hidden.truth,
      {
        ground: shop.ground(findGround(groundId, shop.library.grounds)),
        recipe: { coat: shop.coat(mix, strength), style: STYLES[style] },
      },
      rays,
    );
  const [own, other] = [of(picked ?? hidden.wanted), of(hidden.wanted)];
  // What is seen at the usual angles is traced once.
  const seen = new Map<number, Lab[]>();
  let made: Lab[] | null = null;
  const once = (film: number): Lab[] => {
    const known = seen.get(film) ?? own.at(film);
    if (seen.size >= MOST_SEEN) seen.clear();
    seen.set(film, known);
    return known;
  };
  return {
    at: (film, geometries) => (geometries ? own.at(film, geometries) : once(film)),
    made: (geometries, film) => (geometries ? other.made(geometries, film) : (made ??= other.made())),
  };
}
