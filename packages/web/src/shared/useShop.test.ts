import { describe, expect, it } from '@jest/globals';
import type { Batch } from '@steady-gleam/contracts';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import fc from 'fast-check';
import { batchesOf, sayUntaught, transferOf } from './useShop';

const gun = STARTING_GUNS[0]!;
const batch = (more: Partial<Batch> = {}): Batch =>
  ({
    ...{ id: 'b1', jobId: 'j', piece: 'Shell', layerId: 'effect', name: 'Lagoon pearl', gunId: gun.id, version: 1 },
    ...{ mixedAt: '2026-11-20T09:00:00.000Z', endedAt: '2026-11-20T10:00:00.000Z', potMinutes: null, onCard: false },
    ...{ ml: 1000, leftMl: 300, lossMl: 40, solidMl: 90, volumeSolids: 0.2, teaches: true, removedAt: null },
    ...{ parts: [], corrections: [], note: '' },
    ...more,
  }) as Batch;

describe('what a gun has learned', () => {
  it('is of batches it sprayed to their end, that are still there', () => {
    const others = [batch({ gunId: null }), batch({ leftMl: null }), batch({ removedAt: '2026-11-21T09:00:00.000Z' })];
    expect(batchesOf(gun, [batch(), ...others])).toEqual([batch()]);
  });

  it('is its stated share until a batch teaches it; one that is left out teaches nothing', () => {
    expect(transferOf(gun, []).mean).toBeCloseTo(gun.transfer, 9);
    expect(transferOf(gun, [batch({ teaches: false })])).toEqual(transferOf(gun, []));
    expect(transferOf(gun, [batch()]).lessons).toBe(1);
  });

  it('moves toward what its batches show, surer with each, and stays a share', () => {
    fc.assert(
      fc.property(fc.integer({ min: 250, max: 900 }), fc.integer({ min: 1, max: 6 }), (used, many) => {
        const taught = transferOf(
          gun,
          Array.from({ length: many }, (_, i) => batch({ id: `b${i}`, leftMl: 1000 - used })),
        );
        // Solids on the piece over solids that left the cup.
        const shown = 90 / (0.2 * (used - 40));
        expect(taught.lessons).toBe(many);
        expect(taught.mean).toBeGreaterThan(0);
        expect(taught.mean).toBeLessThanOrEqual(1);
        expect(Math.sign(taught.mean - gun.transfer)).toBe(
          Math.abs(shown - gun.transfer) < 1e-3
            ? Math.sign(taught.mean - gun.transfer)
            : Math.sign(Math.min(1, shown) - gun.transfer),
        );
        expect(taught.sd).toBeLessThan(transferOf(gun, []).sd);
      }),
    );
  });

  it('is said when a batch is taken out again, where it taught something', () => {
    const one = batch({ leftMl: 500 });
    expect(sayUntaught(gun, one, [one])).toMatch(
      /^Gun 1, 1\.3 tip is taken to land 65 % again; with this batch it was \d+ %\.$/,
    );
    expect(sayUntaught(undefined, one, [one])).toBe('');
    expect(sayUntaught(gun, batch({ teaches: false }), [])).toBe('');
  });
});
