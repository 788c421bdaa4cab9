import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { decimalIn } from './decimal';

describe('a figure as people write it', () => {
  it('is the same with a point and with a comma', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true, noDefaultInfinity: true }), (v) => {
        const text = v.toFixed(3);
        expect(decimalIn(text)).toBe(Number(text));
        expect(decimalIn(` ${text.replace('.', ',')} `)).toBe(Number(text));
      }),
    );
  });

  it.each([',5', '5,', '+1,5', '1e3'])('“%s” is one', (text) => {
    expect(decimalIn(text)).toBe(Number(text.replace(',', '.')));
  });

  it('has a minus as a document writes it, or as a keyboard does', () => {
    expect(decimalIn('−3,5')).toBe(-3.5);
    expect(decimalIn('-3.5')).toBe(-3.5);
    expect(decimalIn('3−5')).toBeNaN();
    expect(decimalIn('−−3')).toBeNaN();
  });

  it.each(['', ' ', '.', ',', '1,234.5', '1.234,5', '1 234', '12 g', 'x', '--1', '0x10', 'Infinity'])(
    '“%s” is none: it is said, never guessed',
    (text) => {
      expect(decimalIn(text)).toBeNaN();
    },
  );
});
