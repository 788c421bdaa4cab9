import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { LINE_FORMS, lineCutter, readScaleLine, sayScaleFault, weigher, type LineForm } from './scaleLines';

const form = (id: string): LineForm => LINE_FORMS.find((f) => f.id === id)!;

describe('a line of a scale', () => {
  // Forms as scales are seen to send them, from memory; recorded as text.
  it.each([
    ['words', 'ST  +  123.4 g', 123.4, true],
    ['words', 'US  +   98.71 g', 98.71, false],
    ['words', 'S      12.30 g', 12.3, true],
    ['words', 'D      12.30 g', 12.3, false],
    ['words', 'ST,+0001.234kg', 1234, true],
    ['words', '+ 45,6 g ?', 45.6, false],
    ['words', '  45.6 g', 45.6, false],
    ['unit', '+  123.4 g', 123.4, true],
    ['unit', '+  123.4  ', 123.4, false],
    ['unit', '-    0.3 g', -0.3, true],
    ['plain', '123.4 g', 123.4, null],
    ['plain', '\u00020.0500 kg\u0003', 50, null],
    ['plain', '250000 mg', 250, null],
  ])('of form %s, “%s”, is %p g, at rest: %p', (id, line, grams, stable) => {
    const read = readScaleLine(line, form(id));
    expect(read).toMatchObject({ is: 'weight', stable });
    expect((read as { grams: number }).grams).toBeCloseTo(grams, 6);
  });

  it.each([
    ['ST  +  0.272 lb', 'not grams', 'pounds'],
    ['12.3 oz', 'not grams', 'ounces'],
    ['OL', 'too much', 'overloaded'],
    ['ST  ------', 'too much', 'overloaded'],
    ['ERR 3', 'too much', 'fault'],
    ['hello', 'no figure', 'can’t be read'],
    ['12.3 g 14.2 g', 'no figure', 'can’t be read'],
    ['12.3', 'no figure', 'can’t be read'],
  ])('“%s” is refused whole: %s, said with what to do', (line, why, said) => {
    const read = readScaleLine(line, form('words'));
    expect(read).toMatchObject({ is: 'fault', why });
    expect(sayScaleFault(read as Parameters<typeof sayScaleFault>[0])).toContain(said);
  });

  it('is never read as a weight it does not say, whatever comes', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), fc.constantFrom(...LINE_FORMS), (line, f) => {
        const read = readScaleLine(line, f);
        if (read.is !== 'weight') return;
        expect(Number.isFinite(read.grams)).toBe(true);
        expect(line).toMatch(/\d/);
      }),
    );
  });

  it('comes out the same however the cable cuts it', () => {
    const lines = Array.from({ length: 30 }, (_, i) => `ST + ${(i * 7.3).toFixed(1)} g`);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 60 }), (cuts) => {
        const cut = lineCutter();
        const text = lines.map((l) => `${l}\r\n`).join('');
        const found: string[] = [];
        for (let at = 0, i = 0; at < text.length; i++) {
          const n = cuts[i % cuts.length]!;
          found.push(...cut(text.slice(at, at + n)));
          at += n;
        }
        expect(found).toEqual(lines);
      }),
    );
  });
});

describe('a scale that does not mark its rest', () => {
  it('rests when it stayed the same for a while, and begins anew when the clock jumps back', () => {
    const read = weigher(form('plain'));
    const at = (line: string, ms: number) => read(line, ms) as { stable: boolean; grams: number };
    expect(at('10.0 g', 0).stable).toBe(false);
    expect(at('10.0 g', 500).stable).toBe(false);
    expect(at('10.1 g', 900).stable).toBe(true);
    expect(at('12.0 g', 1000).stable).toBe(false);
    expect(at('12.0 g', 200).stable).toBe(false);
    expect(at('12.0 g', 1100).stable).toBe(true);
  });
});
