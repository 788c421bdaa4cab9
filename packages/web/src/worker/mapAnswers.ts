import type { Illuminant } from '@steady-gleam/core/colour';
import { coatsOfMix, type Mix } from '@steady-gleam/core/looks';
import {
  computeMapRows,
  mapCounts,
  packRows,
  sweepStrengths,
  targetUnder,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import type { PreparedLibrary } from '@steady-gleam/core/materials';
import type { Compute, SweptMap } from './computeTypes';
import { viewingOf } from './viewingOf';
import { letOthersIn } from './letOthersIn';

const COUNTS = mapCounts();

/** What a sweep holds for: anything but the strength. */
const keyOf = (mix: Mix, target: readonly TargetAngle[], light: Illuminant, groundIds: readonly string[]): string =>
  JSON.stringify([{ ...mix, strength: null }, target, light, groundIds]);

/** Rows of the match map, and what makes them follow a slider. */
export function mapAnswers(library: () => PreparedLibrary): Pick<Compute, 'mapRows' | 'sweep'> {
  /** The sweep that was asked for last; another of the same waits for it. */
  let walking: {
    readonly key: string;
    readonly shop: PreparedLibrary;
    readonly done: Promise<SweptMap | null>;
  } | null = null;
  const seenIn = (target: readonly TargetAngle[], light: Illuminant) =>
    light === 'D65' ? target : targetUnder(target, viewingOf(light));
  const groundsOf = (shop: PreparedLibrary, ids: readonly string[]) => {
    const asked = new Set(ids);
    return shop.grounds().filter((g) => asked.has(g.id));
  };
  return {
    mapRows: (mix, target, light, groundIds) => {
      const shop = library();
      const rows = computeMapRows(
        shop.model(target),
        groundsOf(shop, groundIds),
        coatsOfMix(shop, mix),
        COUNTS,
        seenIn(target, light),
        { viewing: viewingOf(light) },
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
        viewingOf(light),
      );
      const isWanted = () => walking?.key === key && walking.shop === shop && library() === shop;
      const done = (async () => {
        for (;;) {
          await letOthersIn();
          if (!isWanted()) return null;
          const step = walk.next();
          if (step.done) return { sweep: step.value, seen: seenIn(target, light) };
        }
      })();
      walking = { key, shop, done };
      return done;
    },
  };
}
