import { describe, expect, it } from '@jest/globals';
import { toCgats, toColourXml, toReadingsCsv } from './exportReadings';
import { wholeness } from './whole';

const readings = [15, 45, 110].map((aspecular, i) => ({
  ...{ spot: '1', incidence: 45, aspecular },
  ...{ l: 50 + i, a: 3.25, b: -7.5 },
}));

describe('a file that is being written', () => {
  it.each([
    ['CGATS', toCgats(readings)],
    ['XML', toColourXml(readings)],
  ])('as %s is whole at its end, and at no moment before', (_, text) => {
    const end = text.trimEnd().length;
    expect(wholeness(text)).toBe('whole');
    for (let n = 1; n < end; n++) expect([n, wholeness(text.slice(0, n))]).toEqual([n, 'half']);
  });
  it('as a table may be whole behind every line, and is half within one', () => {
    const text = toReadingsCsv(readings);
    for (let n = 1; n < text.length; n++)
      expect(wholeness(text.slice(0, n))).toBe(/[\r\n]$/.test(text.slice(0, n)) ? 'maybe' : 'half');
  });
  it('that is empty is not there', () => expect(wholeness(' \n')).toBe('half'));
});
