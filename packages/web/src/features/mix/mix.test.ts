import { describe, expect, it } from '@jest/globals';
import { findSystem, quantityMl } from '@steady-gleam/core';
import { batchFor, faultsOf, partsAt, START, type MixForm } from './mixModel';

const system = findSystem('lagoon-pearl');
const form = (more: Partial<MixForm>): MixForm => ({ ...START, ...more });

describe('the batch of a job', () => {
  it('is what the quantity says, rounded up, in the parts of the mix at its strength', () => {
    const batch = batchFor(form({ values: { area: '3' } }), system, 0.18, { filmCoats: 3, strength: 1.2 })!;
    // Worked by hand: 3 m2 x 3 coats x 9 um / 0.18 / 0.65 + 40 ml = 732.3 ml.
    expect(batch.needed).toBeCloseTo(732.3, 1);
    expect(batch.needed).toBeCloseTo(
      quantityMl({ area: 3, coats: 3, dryFilm: 9, volumeSolids: 0.18, transferEfficiency: 0.65, loss: 40 }),
      9,
    );
    expect(batch.ml).toBe(750);
    expect(batch.low).toBeLessThan(batch.needed);
    expect(batch.high).toBeGreaterThan(batch.needed);
    expect(partsAt(system, 1.2).map((p) => p.parts)).toEqual([6, 1.2, 0.6]);
    expect(batch.parts.at(-1)!.mark).toBeCloseTo(750, 9);
    expect(batch.parts[0]!.grams).toBeCloseTo((750 * 6 * 0.94) / 7.8, 6);
  });

  it('names what is no figure, and mixes nothing meanwhile', () => {
    const bad = form({
      shape: 'tub',
      values: { top: 'wide', bottom: '0', height: '0,4' },
      transfer: '120',
      pieces: '0',
    });
    expect(faultsOf(bad)).toEqual({
      top: 'A number in metres.',
      bottom: 'More than zero.',
      transfer: 'Between 5 and 100 %.',
      pieces: 'Between 1 and 200.',
    });
    expect(batchFor(bad, system, 0.18, { filmCoats: 3, strength: 1 })).toBeNull();
  });
});
