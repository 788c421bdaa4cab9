import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { CoreError } from '../errors';
import { STARTING_GUNS } from '../products/guns';
import { dewCheck, dewPoint, DEW_MARGIN, flashMinutes, type FlashInput } from './flash';
import { fanAt, landingAt } from './gunFilm';
import { setUpDifferences, setUpOf, type SetUp } from './setUp';
import { awayOf, sayCoat, sprayMinutes, type PlannedCoat } from './coatPlan';

const usual: FlashInput = { minutesAt20: 10, temperature: 20, film: 1, chemistry: 'solvent' };
const temperature = fc.double({ min: 5, max: 38, noNaN: true });
const humidity = fc.double({ min: 0.1, max: 0.95, noNaN: true });

describe('flash', () => {
  // Common practice (no source).
  it('is the sheet’s at 20 °C and a full coat, twice as long ten degrees colder', () => {
    expect(flashMinutes(usual)).toBe(10);
    fc.assert(
      fc.property(temperature, (t) => {
        expect(
          flashMinutes({ ...usual, temperature: t - 10 }) / flashMinutes({ ...usual, temperature: t }),
        ).toBeCloseTo(2, 9);
      }),
    );
  });

  it('grows faster than the film, and is none for none', () => {
    expect(flashMinutes({ ...usual, film: 2 })).toBeGreaterThan(2 * flashMinutes(usual));
    expect(flashMinutes({ ...usual, film: 4 })).toBeCloseTo(80, 9);
    expect(flashMinutes({ ...usual, film: 0 })).toBe(0);
  });

  it('only waterborne feels damp air, and nothing feels it without bounds', () => {
    fc.assert(
      fc.property(humidity, humidity, (a, b) => {
        const [dry, damp] = [a, b].sort((p, q) => p - q) as [number, number];
        const water = (h: number) => flashMinutes({ ...usual, chemistry: 'waterborne', humidity: h });
        expect(water(dry)).toBeLessThanOrEqual(water(damp) + 1e-9);
        expect(water(damp)).toBeLessThanOrEqual(30);
        expect(water(dry)).toBeGreaterThanOrEqual(6);
        expect(flashMinutes({ ...usual, humidity: damp })).toBe(10);
      }),
    );
    expect(flashMinutes({ ...usual, chemistry: 'waterborne', humidity: 1 })).toBe(30);
  });

  it('is shorter in moving air, which two-pack never gets', () => {
    expect(flashMinutes({ ...usual, blown: true })).toBeLessThan(10);
    expect(() => flashMinutes({ ...usual, chemistry: 'two-pack', blown: true })).toThrow(CoreError);
    expect(flashMinutes({ ...usual, chemistry: 'two-pack', blown: false })).toBe(10);
  });
});

describe('dew', () => {
  // ISO 8502-4, annex B: air temperature, relative humidity, dew point.
  it.each([
    [20, 0.5, 9.3],
    [20, 0.8, 16.4],
    [10, 0.6, 2.6],
    [30, 0.7, 23.9],
    [15, 0.9, 13.4],
  ])('at %s °C and %s lies at %s °C', (t, h, dew) => {
    expect(Math.abs(dewPoint(t, h) - dew)).toBeLessThan(0.11);
  });

  it('lies at the air’s own temperature in damp air, below it else, and rises with both', () => {
    fc.assert(
      fc.property(temperature, humidity, (t, h) => {
        expect(dewPoint(t, 1)).toBeCloseTo(t, 9);
        expect(dewPoint(t, h)).toBeLessThan(t);
        expect(dewPoint(t, h + 0.01)).toBeGreaterThan(dewPoint(t, h));
        expect(dewPoint(t + 1, h)).toBeGreaterThan(dewPoint(t, h));
      }),
    );
  });

  it('a surface has to clear it by three degrees', () => {
    const dew = dewPoint(20, 0.6);
    expect(dewCheck(20, 0.6, dew + DEW_MARGIN + 0.01).ok).toBe(true);
    expect(dewCheck(20, 0.6, dew + DEW_MARGIN - 0.01).ok).toBe(false);
    expect(dewCheck(20, 0.6, 20)).toMatchObject({ dew, clears: 20 - dew });
  });
});

describe('the set-up of a card against the plan’s', () => {
  const gun = STARTING_GUNS[0]!;
  const coat = {
    ...{ overlap: 0.75, distanceCm: 15, pressureBar: 1.4, turns: 2, tipMm: 1.3, speedCmS: 45 },
    ...{ style: 'wet' as const, volumeSolids: 0.2 },
  };
  const card: SetUp = { gun: gun.name, tipMm: 1.3, pressureBar: 1.4, distanceCm: 15, overlap: 0.75, turns: 2 };

  it('is the same within a tenth', () => {
    expect(setUpDifferences(card, gun, coat)).toEqual([]);
    expect(setUpDifferences({ ...card, distanceCm: 15.9, pressureBar: 1.5 }, gun, coat)).toEqual([]);
  });

  it('names what is otherwise and what a coat lays against the card’s then', () => {
    const [fewer] = setUpDifferences({ ...card, turns: 2.5 }, gun, coat);
    expect(fewer).toMatchObject({ what: 'turns', card: 2.5, plan: 2 });
    expect(fewer!.lays!).toBeLessThan(1);
    const [overlapped] = setUpDifferences({ ...card, overlap: 0.5 }, gun, coat);
    expect(overlapped!.lays!).toBeCloseTo(2, 9);
    expect(setUpDifferences({ ...card, gun: 'another' }, gun, coat)).toEqual([
      { what: 'gun', card: 'another', plan: gun.name, lays: null },
    ]);
  });

  it('says nothing of what was not said, nor of a light coat’s distance', () => {
    const silent = setUpOf({ gun: gun.name, pressureBar: 1.4, settings: {} });
    expect(silent).toEqual({
      gun: gun.name,
      pressureBar: 1.4,
      distanceCm: null,
      tipMm: null,
      overlap: null,
      turns: null,
    });
    expect(setUpDifferences(silent, gun, coat)).toEqual([]);
    expect(setUpDifferences({ ...card, distanceCm: 25 }, gun, { ...coat, style: 'light' })).toEqual([]);
  });
});

describe('coats at the gun', () => {
  const gun = STARTING_GUNS[0]!;
  const coat = { name: 'Cinder candy', number: 2, of: 3, style: 'wet', counted: true } as PlannedCoat;

  it('are called by name and number, those that are not counted by their style', () => {
    expect(sayCoat(coat)).toBe('Cinder candy 2 of 3');
    expect(sayCoat({ ...coat, of: 1 })).toBe('Cinder candy');
    expect(sayCoat({ ...coat, counted: false, style: 'tack' })).toBe('Cinder candy, tack coat');
  });

  it('take as long as their strokes: twice the area twice as long, never under half a minute', () => {
    const laid = { speedCmS: 45, overlap: 0.5 };
    fc.assert(
      fc.property(fc.double({ min: 3, max: 30, noNaN: true }), (m2) => {
        expect(sprayMinutes(2 * m2, gun, laid)).toBeCloseTo(2 * sprayMinutes(m2, gun, laid), 9);
        expect(sprayMinutes(m2, gun, { ...laid, overlap: 0.75 })).toBeCloseTo(2 * sprayMinutes(m2, gun, laid), 9);
      }),
    );
    expect(sprayMinutes(0.001, gun, laid)).toBe(0.5);
  });

  it('are laid from further away when they are control or light ones; the fan widens, less lands', () => {
    expect([awayOf('wet'), awayOf('light'), awayOf('control')]).toEqual([1, 1.4, 2]);
    expect(fanAt(gun, 2 * gun.distanceCm)).toBe(2 * gun.fanCm);
    const at = (distanceCm: number) => landingAt(gun, { distanceCm, pressureBar: gun.pressureBar });
    expect(at(gun.distanceCm)).toBeCloseTo(gun.transfer, 12);
    expect(at(30)).toBeLessThan(at(15));
    expect(at(400)).toBe(0.03);
  });
});
