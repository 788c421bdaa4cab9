import { layerFilmUm, layersOf } from '../finishes/layers';
import type { Carrier } from '../materials/carriers';
import type { GroundMaterial } from '../materials/grounds';
import type { EffectMix } from '../materials/effectMix';
import { STYLES, type StyleId } from '../finishes/styles';

/** Transfer efficiency of an HVLP gun: 65 %, common practice (no source). */
export const USUAL_TRANSFER = 0.65;
/** Volume solids of a ground coat ready to spray: common practice (no source); the product's sheet rules. */
const GROUND_SOLIDS = 0.25;

/** What a recipe comes to on a square metre. */
export interface RecipeFigures {
  /** Dry film of the effect coats, um. */
  readonly effectUm: number;
  /** Flash of the effect coats at 20 C, minutes. */
  readonly minutes: number;
  /** Effect mix ready to spray, litres per square metre. */
  readonly litresPerM2: number;
  /** Effect mix and ground, currency per square metre. */
  readonly costPerM2: number;
}

/** Film, time and material of a recipe in the nominal hand. @param film factor of film per coat, style aside (1 = nominal). */
export function recipeFigures(
  ground: GroundMaterial,
  system: EffectMix,
  carrier: Carrier,
  laid: { readonly coats: number; readonly style: StyleId; readonly controlCoats: number; readonly film?: number },
): RecipeFigures {
  const film = (laid.coats * STYLES[laid.style].film + laid.controlCoats * STYLES.control.film) * (laid.film ?? 1);
  // The effect film is the hand's; the ground under it is that of a plain job.
  const layers = layersOf(ground, system, { ...laid, groundId: ground.id, strength: 1 });
  const effectUm = film * system.filmUm;
  // Litres on a square metre: dry film over solids, over what lands.
  const litres = (um: number, solids: number) => um / 1000 / solids / USUAL_TRANSFER;
  const litresPerM2 = litres(effectUm, carrier.volumeSolids);
  const groundUm = layerFilmUm(layers.find((l) => l.kind === 'ground')!);
  return {
    effectUm,
    minutes: (Math.ceil(laid.coats) + Math.ceil(laid.controlCoats)) * system.flashMinutes,
    litresPerM2,
    costPerM2: litresPerM2 * system.pricePerLitre + litres(groundUm, GROUND_SOLIDS) * ground.pricePerLitre,
  };
}
