import { describe, expect, it } from '@jest/globals';
import { ownMaterialSchema, ownSystemSchema } from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY, type OwnSystem } from '@steady-gleam/core/materials';
import { EMPTY, fieldsOf } from './materialForms';
import { mixCandidate, mixCopy, mixValues, withRatio, type FitMix } from './mixForm';

const library = REFERENCE_LIBRARY;
const id = '00000000-0000-4000-8000-000000000001';
const noFit: FitMix = () => Promise.reject(new Error('nothing is fitted here'));
const make = async (values: Record<string, string>, fit: FitMix = noFit) => {
  const found = await mixCandidate(id, { ...EMPTY.system, name: 'Ours', ...values }, library, fit);
  return found.ok ? (ownMaterialSchema.validateSync(found.value) as OwnSystem) : found.faults;
};

describe('a mix of the shop’s own', () => {
  it('follows from its parts', async () => {
    const mix = (await make({
      carrierParts: '6',
      'colours/0/parts': '1',
      'colours/1/id': 'dye/lagoon-blue',
      'colours/1/parts': '0,5',
    })) as OwnSystem;
    expect(mix).toMatchObject({ carrierParts: 6, strengthFrom: 'parts', drawdown: null });
    expect(mix.colours).toEqual([
      { kind: 'flake', id: 'white-pearl-fine', parts: 1, strength: expect.any(Number) },
      { kind: 'dye', id: 'lagoon-blue', parts: 0.5, strength: expect.any(Number) },
    ]);
    expect(mix.colours[0]!.strength).toBeGreaterThan(0.2);
    // Twice the parts in as much carrier are twice as deep.
    const twice = (await make({
      carrierParts: '6',
      'colours/0/parts': '2',
      'colours/1/id': 'dye/lagoon-blue',
      'colours/1/parts': '1',
    })) as OwnSystem;
    expect(twice.colours[1]!.strength).toBeCloseTo(2 * mix.colours[1]!.strength, 9);
    expect(1 - twice.colours[0]!.strength).toBeCloseTo((1 - mix.colours[0]!.strength) ** 2, 9);
  });

  it('holds many colours: two flakes, dyes and base colours, whose shares are of the whole film', async () => {
    const mix = (await make({
      carrierParts: '3',
      'colours/0/parts': '1',
      'colours/1/id': 'flake/aluminium-coarse',
      'colours/1/parts': '0.5',
      'colours/2/id': 'dye/plum-violet',
      'colours/2/parts': '0.2',
      'colours/3/id': 'solid/solid-white',
      'colours/3/parts': '2',
      'colours/4/id': 'solid/solid-red',
      'colours/4/parts': '1',
    })) as OwnSystem;
    expect(mix.colours.map((c) => c.kind)).toEqual(['flake', 'flake', 'dye', 'solid', 'solid']);
    // White : red : carrier 2 : 1 : 3.
    expect(mix.colours[3]!.strength).toBeCloseTo(1 / 3, 9);
    expect(mix.colours[4]!.strength).toBeCloseTo(1 / 6, 9);
    const over = { ...mix, colours: mix.colours.map((c) => (c.kind === 'solid' ? { ...c, strength: 0.6 } : c)) };
    expect(() => ownSystemSchema.validateSync(over)).toThrow('more than the whole film');
  });

  it('takes 6:1:1 as it stands on the sheet', async () => {
    const values = withRatio({ 'colours/1/id': 'dye/rosehip-magenta' }, '6:1:1');
    const mix = (await make(values)) as OwnSystem;
    expect([mix.carrierParts, ...mix.colours.map((c) => c.parts)]).toEqual([6, 1, 1]);
    expect(withRatio({ carrierParts: '4' }, '6:')).toEqual({ carrierParts: '4', ratio: '6:' });
  });

  it('without parts asks for them at their fields, or takes strengths as typed and keeps the parts unknown', async () => {
    expect(await make({})).toEqual({
      carrierParts: 'Give its parts, or say the strengths another way.',
      'colours/0/parts': 'Give its parts, or say the strengths another way.',
    });
    expect(await make({ strengthFrom: 'typed', 'colours/0/strength': '0.25' })).toMatchObject({
      carrierParts: null,
      colours: [{ parts: null, strength: 0.25 }],
    });
    const much = { ...EMPTY.system, strengthFrom: 'typed', 'colours/0/strength': 'much' };
    const bad = await mixCandidate(id, much, library, noFit);
    expect(() => ownSystemSchema.validateSync(bad.ok && bad.value)).toThrow();
  });

  it('takes its strength from a reading, in the proportion of its parts; a reading it can’t give is refused', async () => {
    const drawdown = {
      strengthFrom: 'drawdown',
      'drawdown/lab/0': '70',
      'drawdown/lab/1': '-5',
      'drawdown/lab/2': '-20',
      'colours/0/id': 'dye/lagoon-blue',
      'colours/0/parts': '2',
      'colours/1/id': 'dye/plum-violet',
      'colours/1/parts': '1',
      carrierParts: '10',
    };
    const mix = (await make(drawdown, async () => ({ factor: 1.5, off: 0.4 }))) as OwnSystem;
    expect(mix.colours[0]!.strength / mix.colours[1]!.strength).toBeCloseTo(2, 9);
    expect(mix.drawdown).toEqual({ groundId: 'white', coats: 2, lab: [70, -5, -20] });
    expect(await make(drawdown, async () => ({ factor: 1, off: 14 }))).toEqual({
      'drawdown/lab': expect.stringContaining('nearest stays 14.0 dE00 off'),
    });
  });

  it('opens with what is there: stored, or copied from the library, and keeps it', async () => {
    for (const system of library.systems) {
      const values = mixCopy(system.id, library)!;
      const again = (await make(values)) as OwnSystem;
      expect(again.carrierParts).toBe(system.parts[0]!.parts);
      const strengths = (kind: string) => again.colours.filter((c) => c.kind === kind).map((c) => c.strength);
      expect(strengths('dye')).toEqual(system.dyes.map((d) => d.depth));
      expect(strengths('flake')).toEqual(system.flakes.map((f) => f.cover));
      expect(strengths('solid').map((v) => v.toFixed(4))).toEqual(system.solids.map((f) => f.share.toFixed(4)));
      const twice = (await make(mixValues(again))) as OwnSystem;
      expect(twice).toEqual(again);
    }
    // A further colour is offered once one is chosen.
    const names = (values: Record<string, string>) => fieldsOf('system', library, values).map((f) => f.name);
    expect(names({})).not.toContain('colours/1/id');
    expect(names({ 'colours/0/id': 'dye/lagoon-blue' })).toContain('colours/1/id');
  });
});
