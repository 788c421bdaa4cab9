import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { countdown } from '../features/booth/boothStyles';
import { daySaid, sayMinutes, timeOfDay, timeSaid } from './timeOfDay';

const at = (hour: number, minute: number, day = 20) => new Date(2026, 10, day, hour, minute).getTime();

describe('times', () => {
  it('are hours and minutes of the painter’s clock, with their day where it is another', () => {
    expect(timeOfDay(at(14, 5))).toBe('14:05');
    expect(timeSaid(at(14, 5), at(9, 0))).toBe('14:05');
    expect(timeSaid(at(14, 5), at(9, 0, 21))).toBe('Fri 20 Nov, 14:05');
    expect(daySaid('2026-11-20T12:00:00.000Z')).toBe('20 Nov 2026');
  });

  it('spans are in minutes, hours and days, never shorter than they are before two days', () => {
    expect([0, 14, 14.2, 99, 100, 120, 200, 2880, 4000].map(sayMinutes)).toEqual([
      '0 min',
      '14 min',
      '15 min',
      '99 min',
      '1 h 40 min',
      '2 h',
      '3 h 20 min',
      '2 days',
      '3 days',
    ]);
    expect(sayMinutes(-3)).toBe('0 min');
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2879, noNaN: true }), (minutes) => {
        const [, h = '0', m = '0'] = /^(?:(\d+) h ?)?(?:(\d+) min)?$/.exec(sayMinutes(minutes))!;
        const said = Number(h) * 60 + Number(m);
        expect(said).toBeGreaterThanOrEqual(minutes - 1e-6);
        expect(said).toBeLessThan(minutes + 1);
      }),
    );
  });

  it('count down by seconds, to nought and no further', () => {
    expect([0, 900, 59_000, 60_000, 61_500, 3_600_000, 3_661_000, -5].map(countdown)).toEqual([
      '0:00',
      '0:01',
      '0:59',
      '1:00',
      '1:02',
      '1:00:00',
      '1:01:01',
      '0:00',
    ]);
  });
});
