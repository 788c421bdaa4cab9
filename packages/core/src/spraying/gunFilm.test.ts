import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { filmOfSettings, flowAt, settingsForFilm, type GunSettings } from './gunFilm';
import { STARTING_GUNS } from '../products/guns';

const gun = STARTING_GUNS[0]!;
const own: GunSettings = {
  overlap: 0.75,
  distanceCm: gun.distanceCm,
  pressureBar: gun.pressureBar,
  turns: gun.turns,
  tipMm: gun.tipMm,
  speedCmS: gun.speedCmS,
};
const SOLIDS = 0.3;
const film = (more: Partial<GunSettings> = {}) => filmOfSettings(gun, { ...own, ...more }, SOLIDS);
const settings = fc.record({
  overlap: fc.double({ min: 0, max: 0.9, noNaN: true }),
  distanceCm: fc.double({ min: 8, max: 40, noNaN: true }),
  pressureBar: fc.double({ min: 0.5, max: 4, noNaN: true }),
  turns: fc.double({ min: 0.5, max: 6, noNaN: true }),
  tipMm: fc.double({ min: 0.8, max: 2.2, noNaN: true }),
  speedCmS: fc.double({ min: 10, max: 120, noNaN: true }),
});

describe('the film a gun lays as it is set', () => {
  it('is the mass balance at the gun’s own settings, worked by hand', () => {
    // ml/min x solids x what lands over the cm2 covered in a minute; 1 cm of film is 10 000 um.
    const landed = gun.flowMlMin * SOLIDS * gun.transfer;
    const covered = gun.speedCmS * 60 * gun.fanCm * (1 - 0.75);
    expect(film()).toBeCloseTo((landed / covered) * 1e4, 9);
  });

  it('halves at twice the speed, doubles when half of each pass lies on the one before', () => {
    fc.assert(
      fc.property(settings, (at) => {
        const once = filmOfSettings(gun, at, SOLIDS);
        expect(filmOfSettings(gun, { ...at, speedCmS: 2 * at.speedCmS }, SOLIDS)).toBeCloseTo(once / 2, 9);
        expect(filmOfSettings(gun, { ...at, overlap: (1 + at.overlap) / 2 }, SOLIDS) / once).toBeCloseTo(2, 9);
        expect(filmOfSettings(gun, at, SOLIDS / 2)).toBeCloseTo(once / 2, 9);
      }),
    );
  });

  it('falls with distance and pressure, rises with needle and tip, until the tip is what limits', () => {
    expect(film({ distanceCm: gun.distanceCm + 5 })).toBeLessThan(film());
    expect(film({ pressureBar: gun.pressureBar + 0.5 })).toBeLessThan(film());
    expect(film({ turns: gun.turns * 0.5 })).toBeCloseTo(film() / 2, 9);
    expect(film({ tipMm: gun.tipMm * 2 })).toBeCloseTo(film() * 4, 9);
    const wide = flowAt(gun, { turns: gun.turns * 1.6, tipMm: gun.tipMm });
    expect(flowAt(gun, { turns: gun.turns * 3, tipMm: gun.tipMm })).toBeCloseTo(wide, 9);
  });

  it('is met by the settings that are advised for it, wherever a hand and the needle reach', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STARTING_GUNS),
        fc.double({ min: 0.3, max: 1.4, noNaN: true }),
        fc.double({ min: 0.5, max: 0.75, noNaN: true }),
        (g, share, overlap) => {
          const at = { overlap, distanceCm: g.distanceCm, pressureBar: g.pressureBar, tipMm: g.tipMm };
          const wanted = filmOfSettings(g, { ...at, turns: g.turns, speedCmS: g.speedCmS }, SOLIDS) * share;
          const advised = settingsForFilm(g, at, SOLIDS, wanted);
          expect(filmOfSettings(g, advised, SOLIDS) / wanted).toBeGreaterThan(0.95);
          expect(filmOfSettings(g, advised, SOLIDS) / wanted).toBeLessThan(1.05);
          // Quarter turns, and a speed a hand can keep.
          expect((advised.turns * 4) % 1).toBeCloseTo(0, 9);
          expect(advised.speedCmS).toBeLessThan(g.speedCmS * 2.3);
        },
      ),
    );
  });

  it('that nobody can lay is answered by the nearest a hand can do', () => {
    const at = { overlap: 0.75, distanceCm: gun.distanceCm, pressureBar: gun.pressureBar, tipMm: gun.tipMm };
    expect(filmOfSettings(gun, settingsForFilm(gun, at, SOLIDS, film() * 50), SOLIDS)).toBeLessThan(film() * 50);
    expect(filmOfSettings(gun, settingsForFilm(gun, at, SOLIDS, film() / 200), SOLIDS)).toBeGreaterThan(film() / 200);
  });
});
