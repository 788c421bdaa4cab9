import { describe, expect, it } from '@jest/globals';
import {
  FIVE_ANGLES,
  findGround,
  findSystem,
  layersOf,
  unpackRows,
  mapCounts,
  type TargetAngle,
} from '@steady-gleam/core';
import { createCompute } from './compute';

const mix = { systemId: 'lagoon-pearl', strength: 1, style: 'wet', controlCoat: false } as const;
const compute = createCompute();
const layers = layersOf(findGround('aqua-pastel'), findSystem('lagoon-pearl'), {
  ...mix,
  groundId: 'aqua-pastel',
  coats: 3,
});
const target: TargetAngle[] = compute
  .stackLook(layers, FIVE_ANGLES)
  .map((lab, g) => ({ ...FIVE_ANGLES[g]!, lab, tolerance: 1.4 }));

describe('what the worker answers', () => {
  it('gives the asked rows of the map, in daylight and under another light', () => {
    const ids = ['white', 'aqua-pastel'];
    const rows = (light: 'D65' | 'A') =>
      unpackRows(compute.mapRows(mix, target, light, ids), ids, mapCounts(), FIVE_ANGLES.length);
    expect(rows('D65')[1]!.stop.best.coats).toBeCloseTo(3, 1);
    // A pearl seen under a bulb is another colour, but its own recipe is still the nearest.
    expect(rows('A')[1]!.cells[5]!.labs[0]).not.toEqual(rows('D65')[1]!.cells[5]!.labs[0]);
    expect(Math.abs(rows('A')[1]!.stop.best.coats - 3)).toBeLessThan(0.6);
  });

  it('stops a search at the next ground, and says how far it came until then', async () => {
    const ids = ['white', 'value-8', 'value-7', 'black'];
    const seen: number[] = [];
    const stopped = await compute.search(mix, target, ids, 7, (done) => {
      seen.push(done);
      if (done === 2) compute.stopSearch(7);
    });
    expect(stopped).toBeNull();
    expect(seen).toEqual([1, 2]);
    const whole = await compute.search(mix, target, ['aqua-pastel'], 8, () => undefined);
    expect(whole![0]!.meanDe).toBeLessThan(0.1);
  });

  it('looks closely at one place: figures, second light, what shows through, sparkle', () => {
    const look = compute.probe(mix, 'aqua-pastel', 3, target, 'A');
    expect(look.figures.effectUm).toBeCloseTo(27, 9);
    expect(look.contrast).toBeGreaterThan(0.1);
    expect(look.contrast).toBeLessThan(0.9);
    expect(look.sparkle).toBeGreaterThan(0);
    expect(look.second.illuminant).toBe('A');
    const deep = compute.probe(mix, 'aqua-pastel', 6, target, 'A');
    expect(deep.contrast).toBeGreaterThan(look.contrast);
  });

  it('shows less and less of the patches under more tinted clear', () => {
    const tint = { systemId: 'smoke-tea-clear', strength: 1, style: 'wet', controlCoat: false } as const;
    const [one, two] = compute.patches(tint, 'gold', [1, 2]);
    expect(one!.ground[0] - one!.black[0]).toBeGreaterThan(two!.ground[0] - two!.black[0]);
    expect(one!.grey[0]).toBeGreaterThan(one!.black[0]);
  });
});
