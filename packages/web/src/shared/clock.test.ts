import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';

/** The clock anew, as a page that has just been opened has it. */
async function fresh() {
  jest.resetModules();
  return import('./clock');
}

const stored = new Map<string, string>();

describe('the shop’s clock on a device', () => {
  beforeEach(() => {
    stored.clear();
    Object.assign(globalThis, {
      localStorage: {
        getItem: (k: string) => stored.get(k) ?? null,
        setItem: (k: string, v: string) => void stored.set(k, v),
      },
    });
  });

  it('is known to half the time an answer took, whatever the device’s own says', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: -86_400_000, max: 86_400_000 }),
        fc.array(fc.record({ up: fc.nat(4000), down: fc.nat(4000) }), { minLength: 1, maxLength: 8 }),
        async (ahead, trips) => {
          const { learnClock, clockOffset } = await fresh();
          stored.clear();
          let now = 1_764_000_000_000;
          for (const { up, down } of trips) {
            // The device sends at its own time, the server answers in between.
            learnClock(now + up - ahead, now, now + up + down);
            now += 10_000;
          }
          const best = Math.min(...trips.map((t) => t.up + t.down));
          expect(Math.abs(clockOffset() + ahead)).toBeLessThanOrEqual(best / 2 + 60);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('follows a device whose clock was set, also by slow answers, and holds while the server is away', async () => {
    const { learnClock, clockOffset } = await fresh();
    learnClock(1_000_000, 1_000_000, 1_000_010);
    expect(Math.abs(clockOffset())).toBeLessThan(10);
    learnClock(1_060_000, 1_660_000, 1_661_000);
    expect(clockOffset()).toBeCloseTo(-600_500, -3);
    // Opened again without the server: what was known last counts.
    const again = await fresh();
    expect(again.clockOffset()).toBeCloseTo(-600_500, -3);
    again.learnClock(NaN, 1, 2);
    expect(again.clockOffset()).toBeCloseTo(-600_500, -3);
  });
});

describe('what is different on this device', () => {
  it('is a line for a clock that is off and one for an address that is not trusted, and nothing else', async () => {
    const { notesHere, sayOff } = await import('./HereNotes');
    expect(notesHere(29_000, true, null)).toEqual([]);
    expect(notesHere(-600_000, true, null)[0]).toContain('10 min ahead of the shop’s');
    expect(notesHere(45_000, true, null)[0]).toContain('45 s behind the shop’s');
    expect(notesHere(0, false, null)).toHaveLength(1);
    expect(notesHere(0, true, 'newer')[0]).toContain('reload the page');
    expect(notesHere(0, true, 'refused')[0]).toContain('keep nothing');
    expect(sayOff(7_200_000)).toBe('2 h');
  });
});

describe('moments and spans', () => {
  it('carry their day where it is not today', async () => {
    const { sayMinutes, timeSaid } = await import('./timeOfDay');
    const now = new Date(2026, 10, 27, 9, 0).getTime();
    expect(timeSaid(new Date(2026, 10, 27, 15, 2).getTime(), now)).toBe('15:02');
    expect(timeSaid(new Date(2026, 10, 26, 15, 2).getTime(), now)).toMatch(/^Thu,? 26 Nov, 15:02$/);
    expect([sayMinutes(14), sayMinutes(200), sayMinutes(180), sayMinutes(5 * 1440)]).toEqual([
      '14 min',
      '3 h 20 min',
      '3 h',
      '5 days',
    ]);
  });
});
