import { describe, expect, it } from '@jest/globals';
import { ownSystemSchema } from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY, type OwnSystem } from '@steady-gleam/core/materials';
import { EMPTY, fieldsOf } from './materialForms';
import { mixCandidate, mixCopy, mixValues, type FitMix } from './mixForm';

const library = REFERENCE_LIBRARY;
const id = '00000000-0000-4000-8000-000000000001';
const noFit: FitMix = () => Promise.reject(new Error('nothing is fitted here'));
const make = async (values: Record<string, string>, fit: FitMix = noFit) => {
  const found = await mixCandidate(id, { ...EMPTY.system, name: 'Ours', ...values }, library, fit);
  return found.ok ? (ownSystemSchema.validateSync(found.candidate) as unknown as OwnSystem) : found.errors;
};

describe('a mix of the shop’s own', () => {
  it('follows from its parts', async () => {
    const mix = (await make({
      carrierParts: '6',
      pigmentParts: '1',
      'dyes.0.dyeId': 'lagoon-blue',
      'dyes.0.parts': '0,5',
    })) as OwnSystem;
    expect(mix).toMatchObject({ carrierParts: 6, pigmentParts: 1, strengthFrom: 'parts', drawdown: null });
    expect(mix.cover).toBeGreaterThan(0.2);
    expect(mix.dyes).toEqual([{ dyeId: 'lagoon-blue', parts: 0.5, depth: expect.any(Number) }]);
    // Twice the parts in as much carrier are twice as deep.
    const twice = (await make({
      carrierParts: '6',
      pigmentParts: '2',
      'dyes.0.dyeId': 'lagoon-blue',
      'dyes.0.parts': '1',
    })) as OwnSystem;
    expect(twice.dyes[0]!.depth).toBeCloseTo(2 * mix.dyes[0]!.depth, 9);
    expect(1 - twice.cover).toBeCloseTo((1 - mix.cover) ** 2, 9);
  });

  it('without parts asks for them at their fields, or takes strengths as typed and keeps the parts unknown', async () => {
    expect(await make({})).toEqual({
      carrierParts: 'Give its parts, or say the strengths another way.',
      pigmentParts: 'Give its parts, or say the strengths another way.',
    });
    expect(await make({ strengthFrom: 'typed', cover: '0.25' })).toMatchObject({
      carrierParts: null,
      pigmentParts: null,
      cover: 0.25,
    });
    const bad = await mixCandidate(id, { ...EMPTY.system, strengthFrom: 'typed', cover: 'much' }, library, noFit);
    expect(() => ownSystemSchema.validateSync(bad.ok && bad.candidate)).toThrow();
  });

  it('takes its strength from a reading, in the proportion of its parts; a reading it can’t give is refused', async () => {
    const drawdown = {
      strengthFrom: 'drawdown',
      'drawdown.lab.0': '70',
      'drawdown.lab.1': '-5',
      'drawdown.lab.2': '-20',
      pigmentId: '',
      'dyes.0.dyeId': 'lagoon-blue',
      'dyes.0.parts': '2',
      'dyes.1.dyeId': 'plum-violet',
      'dyes.1.parts': '1',
      carrierParts: '10',
    };
    const mix = (await make(drawdown, async () => ({ factor: 1.5, off: 0.4 }))) as OwnSystem;
    expect(mix.dyes[0]!.depth / mix.dyes[1]!.depth).toBeCloseTo(2, 9);
    expect(mix.drawdown).toEqual({ groundId: 'white', coats: 2, lab: [70, -5, -20] });
    expect(await make(drawdown, async () => ({ factor: 1, off: 14 }))).toEqual({
      'drawdown.lab': expect.stringContaining('nearest stays 14.0 dE00 off'),
    });
  });

  it('opens with what is there: stored, or copied from the library, and keeps it', async () => {
    for (const system of library.systems) {
      const values = mixCopy(system.id, library)!;
      const again = (await make(values)) as OwnSystem;
      expect(again.carrierParts).toBe(system.parts[0]!.parts);
      expect(again.dyes.map((d) => [d.dyeId, d.depth])).toEqual(system.dyes.map((d) => [d.dyeId, d.depth]));
      if (system.flake) expect(again.cover).toBe(system.flake.cover);
      const twice = (await make(mixValues(again))) as OwnSystem;
      expect(twice).toEqual(again);
    }
    // A further dye is offered once one is chosen.
    const names = (values: Record<string, string>) => fieldsOf('system', library, values).map((f) => f.name);
    expect(names({})).not.toContain('dyes.1.dyeId');
    expect(names({ 'dyes.0.dyeId': 'lagoon-blue' })).toContain('dyes.1.dyeId');
  });
});
