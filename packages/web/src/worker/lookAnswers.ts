import {
  blendSeen,
  controlShift,
  dyeLook,
  effectFilm,
  effectLadder,
  groundColours,
  groundLadder,
  layerColours,
  lookAt,
  patchLooks,
  pigmentLook,
  probeLook,
  sampleSeen,
  sectionColours,
  stackLook,
  stripesReach,
  stripesSeen,
  type LookLadder,
} from '@steady-gleam/core/looks';
import { STYLES } from '@steady-gleam/core/finishes';
import { findGround, findMix, type PreparedLibrary } from '@steady-gleam/core/materials';
import type { Compute } from './computeTypes';

/** Films of a practice panel that are looked at; colours run on between them. */
const PRACTICE_STEPS = 64;

type Looks =
  | 'pigmentLook'
  | 'dyeLook'
  | 'probe'
  | 'patches'
  | 'sectionColours'
  | 'groundColours'
  | 'layerColours'
  | 'stackLook'
  | 'stripes'
  | 'practiceLook'
  | 'controlShift'
  | 'blend'
  | 'sample';

/** How films look: everything drawn as a colour but the map. */
export function lookAnswers(library: () => PreparedLibrary): Pick<Compute, Looks> {
  /** The ladder last asked for: a slider of a set-up asks for it again and again. */
  let kept: { readonly key: string; readonly shop: PreparedLibrary; readonly ladder: LookLadder } | null = null;
  return {
    pigmentLook: (pigmentId, cover) => pigmentLook(library(), pigmentId, cover),
    dyeLook: (dyeId) => dyeLook(library(), dyeId),
    probe: (mix, groundId, coats, target, light) => probeLook(library(), mix, groundId, coats, target, light),
    patches: (mix, groundId, counts) => patchLooks(library(), mix, groundId, counts),
    sectionColours: (mix, groundId, coats) => sectionColours(library(), mix, groundId, coats),
    groundColours: () => groundColours(library()),
    layerColours: (layers) => layerColours(library(), layers),
    stackLook: (layers, angles) => stackLook(library(), layers, angles),
    stripes: (layers, mixId, setup, of) => {
      const shop = library();
      const reach = stripesReach(setup);
      if (of === 'ground') return stripesSeen(groundLadder(shop, layers, setup.coats, reach), setup);
      const most = Math.ceil(reach);
      const key = JSON.stringify([layers, mixId, most]);
      if (kept?.key !== key || kept.shop !== shop)
        kept = { key, shop, ladder: effectLadder(shop, effectFilm(shop, layers, mixId), most) };
      return stripesSeen(kept.ladder, setup);
    },
    practiceLook: (mixId, groundId, most) => {
      const shop = library();
      const ladder = effectLadder(
        shop,
        {
          ground: shop.ground(findGround(groundId, shop.library.grounds)),
          coat: shop.coat(findMix(mixId, shop.library.systems), 1),
          spread: STYLES.wet.spread,
        },
        most,
      );
      return Array.from({ length: PRACTICE_STEPS }, (_, i) => lookAt(ladder, (most * i) / (PRACTICE_STEPS - 1)));
    },
    controlShift: (layers, mixId, coats, angles) => controlShift(library(), layers, mixId, coats, angles),
    blend: (ask) => blendSeen(library(), ask),
    sample: (layers, target) => sampleSeen(library(), layers, target),
  };
}
