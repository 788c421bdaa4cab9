import { describe, expect, it } from '@jest/globals';
import { array, number, object, string } from 'yup';
import { checkWith, formPath } from './checkWith';

describe('what was typed, held against a schema', () => {
  it('gives what is kept, or the first sentence of every path', () => {
    const list = object({ parts: array(object({ parts: number().typeError('A number.').min(0, 'Not below 0.') })) });
    expect(checkWith(list, { parts: [{ parts: 2 }] })).toEqual({ ok: true, value: { parts: [{ parts: 2 }] } });
    expect(checkWith(list, { parts: [{ parts: -1 }, { parts: 'x' }] })).toEqual({
      ok: false,
      faults: { 'parts.0.parts': 'Not below 0.', 'parts.1.parts': 'A number.' },
    });
    expect(checkWith(list, { parts: [{ parts: -1 }] }, () => 'all')).toEqual({
      ok: false,
      faults: { all: 'Not below 0.' },
    });
  });

  it('a fault that is none of the schema’s is not swallowed', () => {
    const broken = string().test('broken', 'never', () => {
      throw new RangeError('broken');
    });
    expect(() => checkWith(broken, 'x')).toThrow('broken');
  });

  it('paths are those of the form', () => {
    expect(formPath('areas[0].measures.width')).toBe('areas.0.measures.width');
    expect(formPath('a[1][12].b')).toBe('a.1.12.b');
    expect(formPath('')).toBe('');
  });
});
