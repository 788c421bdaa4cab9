import type { Illuminant } from '@steady-gleam/core/colour';
import { coatsOfMix, type Mix } from '@steady-gleam/core/looks';
import {
  canSweep,
  computeMapRows,
  mapCounts,
  packRows,
  sweepStrengths,
  targetUnder,
  type StrengthSweep,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import type { PreparedLibrary } from '@steady-gleam/core/materials';
import type { Compute } from './computeTypes';
import { letOthersIn } from './letOthersIn';

const COUNTS = mapCounts();

/** What a sweep holds for: anything but the strength. */
const keyOf = (mix: Mix, target: readonly TargetAngle[], light: Illuminant, groundIds: readonly string[]): string =>
  JSON.stringify([{ ...mix, strength: null }, target.map((t) => [t.incidence, t.aspecular]), light, groundIds]);

/** Rows of the match map, and what makes them follow a slider. */
export function mapAnswers(library: () => PreparedLibrary): Pick<Compute, 'mapRows' | 'sweep'> {
  /** The sweep that was asked for last; another of the same waits for it. */
  let walking: { readonly key: string; readonly shop: PreparedLibrary; readonly done: Promise<void> } | null = null;
  let ready: { readonly key: string; readonly shop: PreparedLibrary; readonly sweep: StrengthSweep } | null = null;
  const look = (light: Illuminant) => ({ viewing: { illuminant: light, observer: '10' } as const });
  const groundsOf = (shop: PreparedLibrary, ids: readonly string[]) => {
    const asked = new Set(ids);
    return shop.grounds().filter((g) => asked.has(g.id));
  };
  return {
    mapRows: (mix, target, light, groundIds, isMoving) => {
      const shop = library();
      const seen = light === 'D65' ? target : targetUnder(target, look(light).viewing);
      const isReady = ready?.shop === shop && ready.key === keyOf(mix, target, light, groundIds);
      if (isMoving && isReady && canSweep(mix.strength)) return packRows(ready!.sweep.rows(mix.strength, seen));
      const rows = computeMapRows(
        shop.model(target),
        groundsOf(shop, groundIds),
        coatsOfMix(shop, mix),
        COUNTS,
        seen,
        look(light),
      );
      return packRows(rows);
    },
    sweep: (mix, target, light, groundIds) => {
      const shop = library();
      const key = keyOf(mix, target, light, groundIds);
      if (walking?.shop === shop && walking.key === key) return walking.done;
      const walk = sweepStrengths(
        shop.model(target),
        groundsOf(shop, groundIds),
        (strength) => coatsOfMix(shop, { ...mix, strength }),
        COUNTS,
        look(light),
      );
      const isWanted = () => walking?.key === key && walking.shop === shop && library() === shop;
      const done = (async () => {
        for (;;) {
          await letOthersIn();
          if (!isWanted()) return;
          const step = walk.next();
          if (!step.done) continue;
          ready = { key, shop, sweep: step.value };
          return;
        }
      })();
      walking = { key, shop, done };
      return done;
    },
  };
}
