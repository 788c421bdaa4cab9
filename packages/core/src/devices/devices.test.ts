import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FIVE_ANGLES } from '../optics/geometry';
import { readClimateLine, simulatedClimate } from './climate';
import { sayInstrument } from './instrument';
import { sortBurst } from './keys';
import { createScale, later, shows, type Held } from './simulatedScale';

describe('a burst of an instrument that types', () => {
  const spot = [60.1, 1.5, -20, 55, 2, -18, 40, 3, -15.5, 20, 1, -9, 12, 0.5, -4];
  it.each([
    ['tabs', spot.join('\t')],
    ['lines', spot.join('\n')],
    ['decimal commas', spot.map((v) => String(v).replace('.', ',')).join(' ')],
    ['with their angles', FIVE_ANGLES.flatMap((g, i) => [g.aspecular, ...spot.slice(3 * i, 3 * i + 3)]).join(';')],
  ])('is sorted into angles: %s', (_, text) => {
    const sorted = sortBurst(text, FIVE_ANGLES);
    expect(sorted.ok && sorted.readings.map((r) => [r.aspecular, r.l, r.a, r.b])).toEqual(
      FIVE_ANGLES.map((g, i) => [g.aspecular, ...spot.slice(3 * i, 3 * i + 3)]),
    );
  });

  it('holds several spots one after the other', () => {
    const sorted = sortBurst([...spot, ...spot, ...spot].join(' '), FIVE_ANGLES);
    expect(sorted.ok && [...new Set(sorted.readings.map((r) => r.spot))]).toEqual(['1', '2', '3']);
  });

  it.each([
    ['a figure too few', spot.slice(1).join(' '), '14 figures came, and 15 make a spot'],
    ['nothing', '  ', 'No figures came'],
    [
      'an angle that is not awaited',
      FIVE_ANGLES.flatMap((g, i) => [g.aspecular === 45 ? 60 : g.aspecular, ...spot.slice(3 * i, 3 * i + 3)]).join(' '),
      'What came is of 60°',
    ],
    ['no colour', [260, ...spot.slice(1)].join(' '), 'L* 260'],
  ])('is refused whole with %s', (_, text, said) => {
    const sorted = sortBurst(text, FIVE_ANGLES);
    expect(!sorted.ok && sorted.said).toContain(said);
    expect(!sorted.ok && sorted.said).toContain('Nothing was taken');
  });

  it('of any figures comes back as it was typed', () => {
    const colour = fc.tuple(
      fc.integer({ min: 0, max: 19_000 }),
      fc.integer({ min: -19_000, max: 19_000 }),
      fc.integer({ min: -19_000, max: 19_000 }),
    );
    fc.assert(
      fc.property(fc.array(colour, { minLength: 5, maxLength: 5 }), (labs) => {
        // Figures that look like angles before every three are one more way to read them.
        fc.pre(labs.flat().every((v) => !FIVE_ANGLES.some((g) => g.aspecular === v / 100)));
        const figures = labs.flat().map((v) => v / 100);
        const sorted = sortBurst(figures.map((v) => v.toFixed(2)).join(' '), FIVE_ANGLES);
        expect(sorted.ok && sorted.readings.flatMap((r) => [r.l, r.a, r.b])).toEqual(figures);
      }),
    );
  });
});

describe('a line of a thermometer', () => {
  it.each([
    ['T=21.4C RH=48%', { airC: 21.4, humidity: 0.48, surfaceC: null }],
    ['21.4 48.0', { airC: 21.4, humidity: 0.48, surfaceC: null }],
    ['48 %  21,4 °C  19.0 °C', { airC: 21.4, humidity: 0.48, surfaceC: 19 }],
    ['70.7 F 55 %', { airC: 21.5, humidity: 0.55, surfaceC: null }],
    ['-3.5 C 80 %', { airC: -3.5, humidity: 0.8, surfaceC: null }],
  ])('“%s” is %p', (line, climate) => {
    const read = readClimateLine(line);
    expect(read.is).toBe('climate');
    if (read.is !== 'climate') return;
    expect(read.climate.airC).toBeCloseTo(climate.airC, 6);
    expect(read.climate.humidity).toBeCloseTo(climate.humidity, 6);
    expect(read.climate.surfaceC).toBe(climate.surfaceC);
  });
  it.each(['', 'hello', '21.4 C', '210 C 40 %', '20 C 140 %'])('“%s” is refused in a sentence', (line) => {
    const read = readClimateLine(line);
    expect(read.is === 'fault' && read.said).toContain('Nothing of it is taken.');
  });
});

describe('the simulated air', () => {
  const day = Date.UTC(2026, 5, 3);
  const at = (hour: number) => simulatedClimate(11, day + hour * 3_600_000);
  it('warms and dries till the afternoon, and the part follows', () => {
    expect(at(16).airC).toBeGreaterThan(at(6).airC + 4);
    expect(at(16).humidity).toBeLessThan(at(6).humidity);
    expect(at(11).surfaceC!).toBeLessThan(at(11).airC);
  });
  it('is the same for the same seed and moment', () => expect(at(9)).toEqual(at(9)));
});

describe('the simulated scale', () => {
  const run = (steps: readonly (readonly [Held, number])[]) => {
    let scale = createScale(3, 40);
    for (const [held, n] of steps) for (let i = 0; i < n; i++) scale = later(scale, 100, held);
    return scale;
  };
  it('runs while it is held, dribbles after, then rests', () => {
    const held = run([['pour', 30]]);
    const after = run([
      ['pour', 30],
      ['up', 10],
    ]);
    expect(after.grams).toBeGreaterThan(held.grams + 0.5);
    expect(shows(held).stable).toBe(false);
    expect(shows(after).stable).toBe(false);
    const rests = run([
      ['pour', 30],
      ['up', 40],
    ]);
    expect(shows(rests).stable).toBe(true);
    expect(shows(rests).grams).toBeCloseTo(rests.grams, 0);
  });
  it('drips far slower than it pours, and nothing ever comes out of the cup', () => {
    const gain = (held: Held) => run([[held, 50]]).grams - 40;
    expect(gain('drip')).toBeGreaterThan(2);
    expect(gain('drip')).toBeLessThan(gain('pour') / 10);
    fc.assert(
      fc.property(fc.array(fc.constantFrom<Held>('up', 'drip', 'pour'), { maxLength: 80 }), (held) => {
        let scale = createScale(5);
        for (const how of held) {
          const next = later(scale, 100, how);
          expect(next.grams).toBeGreaterThanOrEqual(scale.grams);
          scale = next;
        }
      }),
    );
  });
});

it('an instrument that gave no reading says what to do', () => {
  expect(sayInstrument({ is: 'read', readings: [] })).toBeNull();
  expect(sayInstrument({ is: 'wants white' })).toContain('white tile');
  expect(sayInstrument({ is: 'failed', why: 'wrong angle' })).toContain('another angle');
});
