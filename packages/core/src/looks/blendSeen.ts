import type { Lab } from '../colour/lab';
import type { StackLayer } from '../finishes/layers';
import { effectCoats, factorsToLabs } from '../matching/ladder';
import type { TargetAngle } from '../matching/target';
import type { PreparedLibrary } from '../materials/shop';
import { existingFinish } from '../optics/existingFinish';
import { FIVE_ANGLES } from '../optics/geometry';
import {
  blendProfile,
  suggestBlend,
  type BlendLayer,
  type BlendLook,
  type BlendProfile,
  type BlendSuggestion,
} from '../spraying/blend';
import { asFilm, effectFilm } from './effectLadder';

/** Shares of the effect film at which a blend is worked out; between them factors are interpolated. */
const STEPS = Array.from({ length: 13 }, (_, i) => i / 12);
/** Blends that are tried pass through the same places again and again: looks are kept by so many parts of both shares. */
const KEPT = 500;

/** A blend from the repair outward over the finish that is there, and the shortest one that is not seen. */
export interface BlendAnswer {
  readonly angles: readonly number[];
  readonly existing: readonly Lab[];
  readonly profile: BlendProfile;
  readonly suggestion: BlendSuggestion | null;
  /** The finish that is there was not read. */
  readonly guessed: boolean;
}

/** Where a blend lies on a job's stack. */
export interface BlendAsk {
  readonly layers: readonly StackLayer[];
  readonly mixId: string;
  /** The finish that is there as it was read; empty where it was not. */
  readonly target: readonly TargetAngle[];
  readonly blend: readonly BlendLayer[];
  readonly repairCm: number;
  readonly lengthCm: number;
}

/** How a blend looks from the repair outward; without readings the finish that is there is taken to be what the stack gives. */
export function blendSeen(
  shop: PreparedLibrary,
  { layers, mixId, target, blend, repairCm, lengthCm }: BlendAsk,
): BlendAnswer {
  const angles = target.length ? target : FIVE_ANGLES;
  const model = shop.model(angles);
  const effects = blend.filter((l) => l.kind === 'effect').reduce((sum, l) => sum + l.film, 0);
  const film = effectFilm(shop, layers, mixId);
  const { ground } = film;
  const recipe = asFilm(film);
  const onGround = STEPS.map((f) =>
    model.over(ground, model.pile([...ground.coats, ...effectCoats(recipe, f * effects)])),
  );
  const existing = target.length ? target.map((t) => t.lab) : factorsToLabs(onGround.at(-1)!);
  const old = existingFinish(model.optics, existing);
  const onOld = STEPS.map((f) => model.over(old, model.pile(effectCoats(recipe, f * effects))));
  const material = shop.library.grounds.find((g) => g.id === ground.id);
  const hides = (coats: number) => (material ? 1 - shop.shows(material, coats) : 1);
  const known = new Map<number, Lab[]>();
  const look: BlendLook = (place) => {
    const share = Math.round((effects > 0 ? place.effect / effects : 0) * KEPT);
    const hidden = Math.round(hides(place.ground) * KEPT);
    const key = hidden * 2 * KEPT + share;
    let labs = known.get(key);
    if (!labs) {
      const [fresh, worn] = [between(onGround, share / KEPT), between(onOld, share / KEPT)];
      const g = hidden / KEPT;
      known.set(key, (labs = factorsToLabs(fresh.map((v, i) => g * v + (1 - g) * worn[i]!))));
    }
    return labs;
  };
  return {
    angles: angles.map((a) => a.aspecular),
    existing,
    profile: blendProfile(blend, look, existing, lengthCm),
    suggestion: suggestBlend(blend, repairCm, lengthCm, look, existing),
    guessed: target.length === 0,
  };
}

/** Factors at a share of the effect film, 0..1, from those at {@link STEPS}. */
function between(list: readonly Float64Array[], share: number): Float64Array {
  const last = STEPS.length - 1;
  const at = Math.min(last - 1e-9, Math.max(0, share * last));
  const [k, t] = [Math.floor(at), at - Math.floor(at)];
  return list[k]!.map((v, i) => v + t * (list[k + 1]![i]! - v));
}
