import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { averageReadings } from './readings';
import { parseReadingsCsv } from './readingsCsv';

const problems = (text: string) => {
  const r = parseReadingsCsv(text);
  if (r.ok) throw new Error('expected problems');
  return r.problems.map((p) => `${p.line ?? '-'}: ${p.message}`);
};

describe('readings from CSV', () => {
  it('reads named columns in any order, with several spots, lamps, separators and a byte order mark', () => {
    const r = parseReadingsCsv(
      '\uFEFFb*;L*;a*;Aspecular;Spot\n-36.1;76.2;-21.8;15;1\n-35.9;76.6;-21.2;15;2\n\n-31.4;68;-19.2;45;1\n',
    );
    expect(r.ok && r.readings).toEqual([
      { spot: '1', incidence: 45, aspecular: 15, l: 76.2, a: -21.8, b: -36.1 },
      { spot: '2', incidence: 45, aspecular: 15, l: 76.6, a: -21.2, b: -35.9 },
      { spot: '1', incidence: 45, aspecular: 45, l: 68, a: -19.2, b: -31.4 },
    ]);
    const averaged = averageReadings(r.ok ? r.readings : []);
    expect(averaged.map((a) => [a.aspecular, a.spots])).toEqual([
      [15, 2],
      [45, 1],
    ]);
    expect(averaged[0]!.lab[0]).toBeCloseTo(76.4, 9);
    expect(averaged[0]!.spread).toBeGreaterThan(0.1);
  });

  it('says line by line what to change, and takes nothing', () => {
    expect(problems('')).toEqual(['-: This file is empty.']);
    expect(problems('L,a,b\n1,2,3')[0]).toContain('missing: aspecular');
    expect(problems('aspecular,L,a,b')[0]).toContain('no readings');
    const said = problems(
      'aspecular,L,a,b\n15,-3,0,0\n25,abc,0,0\n45,201,0,0\n45,50,0,\n75,"1,212.5",0,0\n110,20,0,0\n110,21,0,0',
    );
    expect(said[0]).toBe('2: L* is -3; it must lie between 0 and 200.');
    expect(said[1]).toContain('3: L* must be a number');
    expect(said[2]).toBe('4: L* is 201; it must lie between 0 and 200.');
    expect(said[3]).toBe('5: b* is missing.');
    expect(said.join()).toContain('6: L* must be a number');
    const comma = parseReadingsCsv('aspecular;L;a;b\n15;76,2;-21,8;-36,1');
    expect(comma.ok && comma.readings[0]).toMatchObject({ l: 76.2, a: -21.8, b: -36.1 });
    expect(said.join()).toContain('8: Spot 1 at 110° was already given on line 7.');
  });

  it('refuses rubbish quickly and never throws', () => {
    expect(problems('x'.repeat(5_000_000))[0]).toContain('over 1 MB');
    expect(problems('\0\u0001binary')[0]).toContain('not a text file');
    fc.assert(fc.property(fc.string({ maxLength: 300 }), (text) => typeof parseReadingsCsv(text).ok === 'boolean'));
  });
});
