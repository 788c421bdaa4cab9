import { describe, expect, it } from '@jest/globals';
import { paperClock, zoneOf } from './clock';

const at = (iso: string) => new Date(iso);

describe('the clock of a paper', () => {
  it('is the painter’s, summer and winter, over midnight and by half hours', () => {
    // Offsets and the changes of 2026 from the IANA time zone database, from memory.
    const berlin = paperClock('Europe/Berlin');
    expect(berlin.moment(at('2026-01-15T12:00:00Z'))).toBe('2026-01-15 13:00');
    expect(berlin.moment(at('2026-07-15T22:30:00Z'))).toBe('2026-07-16 00:30');
    expect(berlin.time(at('2026-03-29T00:59:00Z'))).toBe('01:59');
    expect(berlin.time(at('2026-03-29T01:00:00Z'))).toBe('03:00');
    expect(paperClock('Asia/Kolkata').moment(at('2026-01-15T20:00:00Z'))).toBe('2026-01-16 01:30');
    expect(paperClock('America/New_York').day(at('2026-01-15T03:00:00Z'))).toBe('2026-01-14');
    expect(paperClock('UTC').time(at('2026-01-15T00:00:00Z'))).toBe('00:00');
  });

  it('is UTC where no zone is named that is known', () => {
    for (const asked of [undefined, '', 'Mars/Olympus', 60, ['Europe/Berlin'], 'x'.repeat(200), '../etc'])
      expect(zoneOf(asked)).toBe('UTC');
    expect(zoneOf('Asia/Kolkata')).toBe('Asia/Kolkata');
  });
});
