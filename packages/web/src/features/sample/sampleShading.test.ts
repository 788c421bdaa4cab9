import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { EVEN } from '@steady-gleam/core/optics';
import { bodyAt, sampleExposure, shade, SHAPES, type SampleScene } from './sampleShading';

const grey = (v: number) => new Float32Array(EVEN.tilts * EVEN.incidences * 3).fill(v);
const scene = (more: Partial<SampleScene> = {}): SampleScene => ({
  prediction: grey(0.5),
  target: null,
  shape: 'shell',
  lamp: [0.3, 0.4],
  exposure: 1,
  grain: 0,
  grainPx: 2,
  ...more,
});
const place = fc.tuple(fc.double({ min: -1.6, max: 1.6, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }));

describe('curved sample', () => {
  it('has unit normals that face the eye, on every body', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SHAPES.map((s) => s.id)), place, (shape, [x, y]) => {
        const body = bodyAt(shape, x, y);
        if (!body) return;
        expect(Math.hypot(...body.n)).toBeCloseTo(1, 9);
        expect(body.n[2]).toBeGreaterThanOrEqual(0);
        expect(body.p[2]).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  it('is a matt body where the finish is the same at every angle: brightness follows the cosine of the lamp', () => {
    // On a flat card straight under the lamp the cosine is one; lit 0.5, sky 0.5 * 0.2, and no gloss far from the mirror.
    const [r, g, b] = shade(scene({ shape: 'card', lamp: [1.35, 0.8] }), 1.35, 0.8, 0.01)!;
    expect(r).toBeCloseTo(0.6, 2);
    expect([g, b]).toEqual([r, r]);
  });

  it('shows the target on the left and the prediction on the right, touching, and grains only where asked', () => {
    const both = scene({ target: grey(0.2), lamp: [0, 0.6] });
    const left = shade(both, -0.001, -0.5, 0.01)!;
    const right = shade(both, 0.001, -0.5, 0.01)!;
    expect(right[0] / left[0]).toBeCloseTo(2.5, 1);
    const grains = Array.from({ length: 40 }, (_, i) => shade(scene({ grain: 0.4 }), 0.2 + i * 0.02, -0.3, 0.02)![0]);
    const smooth = Array.from({ length: 40 }, (_, i) => shade(scene(), 0.2 + i * 0.02, -0.3, 0.02)![0]);
    const rough = (v: readonly number[]) => v.slice(1).reduce((s, x, i) => s + Math.abs(x - v[i]!), 0);
    expect(rough(grains)).toBeGreaterThan(3 * rough(smooth));
  });

  it('exposes so that the bright parts fit the screen', () => {
    expect(sampleExposure([grey(2), null])).toBeCloseTo(0.5, 9);
    expect(sampleExposure([grey(0.1)])).toBeLessThanOrEqual(1 / 0.3);
  });
});
