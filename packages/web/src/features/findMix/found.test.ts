import { describe, expect, it } from '@jest/globals';
import { FAMILIES, FAMILY_IDS } from '@steady-gleam/core/finishes';
import { ownSystemSchema } from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { askOf, familyAsks, isFound, sayLacks, systemOf } from './findModel';

const library = REFERENCE_LIBRARY;
const target: TargetAngle[] = [15, 45, 110].map((aspecular) => ({
  ...{ incidence: 45, aspecular, tolerance: aspecular === 110 ? 4 : 1 },
  lab: [50, 0, 0],
}));
const ID = '00000000-0000-4000-8000-000000000001';

describe('what is asked of a search', () => {
  it('is what the family’s own mixes are made of', () => {
    for (const family of FAMILY_IDS) {
      const asked = askOf(family, target, library);
      const own = library.systems.filter((m) => m.family === family);
      expect(asked.filmUm).toBe(own[0]!.filmUm);
      expect(asked.style).toBe(FAMILIES[family].start.style);
      expect(asked.mostPigments > 0).toBe(own.some((m) => m.flakes.length > 0));
      expect(asked.target).toBe(target);
      expect([...asked.counts].sort((a, b) => a - b)).toEqual(asked.counts);
    }
  });

  it('of a shop without any mix of the family stands on its first carrier', () => {
    const bare = { ...library, systems: [] };
    expect(familyAsks('pearl', bare)).toMatchObject({ mostPigments: 0, carrierId: library.carriers[0]!.id, filmUm: 9 });
    expect(isFound('pearl', bare)).toBe(false);
  });

  it('is for families whose mixes are flakes that tint and dyes', () => {
    expect(isFound('pearl', library)).toBe(true);
    expect(FAMILY_IDS.filter((f) => !isFound(f, library)).length).toBeGreaterThan(0);
  });
});

describe('what the nearest one lacks', () => {
  it('is said where it is furthest off for what is allowed there', () => {
    expect(
      sayLacks(
        [
          [50, 0, 0],
          [53, 0, 0],
          [58, 0, 0],
        ],
        target,
      ),
    ).toMatch(/^At 45° what is missing is darker/);
    expect(
      sayLacks(
        [
          [50, 0, 0],
          [51, 0, 0],
          [58, 0, 0],
        ],
        target,
      ),
    ).toMatch(/^At 110° /);
  });
});

describe('a found mix on the shelf', () => {
  it('is one the schema takes, with its parts to 100 of the carrier and its strengths as they were found', () => {
    const mix = {
      parts: [
        { kind: 'flake' as const, id: 'blue-pearl-fine', parts: 12 },
        { kind: 'dye' as const, id: 'lagoon-blue', parts: 3.5 },
      ],
      pigments: [{ pigmentId: 'blue-pearl-fine', cover: 0.3 }],
      dyes: [{ dyeId: 'lagoon-blue', depth: 0.4 }],
    };
    const of = familyAsks('pearl', library);
    const own = systemOf(ID, 'Tub 5, found', 'pearl', mix, of);
    expect(ownSystemSchema.validateSync(own)).toEqual(own);
    expect(own.carrierParts).toBe(100);
    expect(own.colours).toEqual([
      { kind: 'flake', id: 'blue-pearl-fine', parts: 12, strength: 0.3 },
      { kind: 'dye', id: 'lagoon-blue', parts: 3.5, strength: 0.4 },
    ]);
    expect(own).toMatchObject({ strengthFrom: 'typed', drawdown: null, filmUm: of.filmUm });
  });
});
