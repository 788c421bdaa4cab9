import { describe, expect, it } from '@jest/globals';
import { logApi } from '@steady-gleam/contracts';
import { eventOf } from '@steady-gleam/core/jobs';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { ValidationError } from 'yup';
import { ApiError, fieldsOf } from '../errors';
import { checkSigns, countInText, DEEPEST, MOST_VALUES, readBody, TooDeep, tooLong } from './bodies';

const schema = logApi.addEvents.body;
const event = () => eventOf({ id: randomUUID(), at: 1, kind: 'note', text: 'x' });
const faultsOf = async (body: unknown): Promise<Record<string, string>> => {
  try {
    await readBody(schema, body);
  } catch (error) {
    if (error instanceof ApiError) return error.fields ?? {};
    if (error instanceof ValidationError) return fieldsOf(error);
    throw error;
  }
  return {};
};

describe('a body', () => {
  it('is counted as it stands, before it is parsed, and what stands in texts counts for nothing', () => {
    const counted = (value: unknown): boolean => {
      try {
        countInText(null, null, Buffer.from(JSON.stringify(value)));
        return true;
      } catch {
        return false;
      }
    };
    expect(counted(Array.from({ length: MOST_VALUES + 1 }, () => ({})))).toBe(false);
    expect(counted(Array.from({ length: 1000 }, () => ({})))).toBe(true);
    expect(counted([',"[{'.repeat(100_000)])).toBe(true);
    expect(counted(['\\",[{'.repeat(100_000)])).toBe(true);
  });

  it('is refused where its lists stand in one another too deep, long before its checking would run out of room', () => {
    const nested = (deep: number) => Buffer.from('['.repeat(deep) + ']'.repeat(deep));
    expect(() => countInText(null, null, nested(DEEPEST))).not.toThrow();
    expect(() => countInText(null, null, nested(DEEPEST + 1))).toThrow(TooDeep);
    // One after the other is not in one another.
    expect(() => countInText(null, null, Buffer.from(`[${'[1],'.repeat(200)}[1]]`))).not.toThrow();
    expect(() => countInText(null, null, Buffer.from(JSON.stringify(['['.repeat(200)])))).not.toThrow();
  });

  it('with a list that is too long is refused at the list, whatever stands in it', async () => {
    const long = { events: Array.from({ length: 5000 }, () => ({})) };
    expect(tooLong(schema, long)).toEqual({ events: 'At most 500 are taken here.' });
    expect(Object.keys(await faultsOf(long))).toEqual(['events']);
    expect(Object.keys(tooLong(schema, { events: [{ cells: Array.from({ length: 201 }, () => null) }] }))).toEqual([
      'events[0].cells',
    ]);
    expect(tooLong(schema, { events: [event()] })).toEqual({});
  });

  it('is told of its first faults only', async () => {
    const faults = await faultsOf({ events: Array.from({ length: 400 }, () => ({})) });
    expect(Object.keys(faults).length).toBeGreaterThan(5);
    expect(Object.keys(faults).length).toBeLessThanOrEqual(20);
    expect(Object.keys(faults)[0]).toMatch(/^events\[0\]\./);
  });

  it('says the same of a long list as of a short one: the item at fault, and what the schema makes of the others', async () => {
    const list = Array.from({ length: 60 }, event);
    const bent = list.map((e, i) => (i === 41 ? { ...e, at: -1 } : e));
    expect(Object.keys(await faultsOf({ events: bent }))).toEqual(['events[41].at']);
    // As an earlier program sends it, without a look.
    const read = await readBody(schema, { events: list.map((e) => ({ ...e, look: undefined })) });
    expect(read.events.every((e) => e.look === null)).toBe(true);
    expect(await faultsOf({ events: list, more: 1 })).not.toEqual({});
    expect(await faultsOf({})).toHaveProperty(['events']);
    expect(await faultsOf(null)).toHaveProperty(['events']);
  });

  it('lets others have their turn while it is checked', async () => {
    let turns = 0;
    let over = false;
    const turn = () => {
      turns++;
      if (!over) setImmediate(turn);
    };
    setImmediate(turn);
    await readBody(schema, { events: Array.from({ length: 500 }, event) });
    over = true;
    expect(turns).toBeGreaterThan(8);
  });

  it('is refused for keys every object has, and for signs that are no text, anywhere in it', () => {
    const refused = (body: unknown): boolean => {
      try {
        checkSigns(body);
        return false;
      } catch (error) {
        return error instanceof ApiError && error.code === 'badRequest';
      }
    };
    expect(refused(JSON.parse('{"a":[{"__proto__":1}]}'))).toBe(true);
    expect(refused({ a: { constructor: 1 } })).toBe(true);
    expect(refused({ a: ['x\0'] })).toBe(true);
    expect(refused({ a: ['\ud800'] })).toBe(true);
    fc.assert(
      fc.property(fc.jsonValue({ noUnicodeString: false }), (value) => {
        const text = JSON.stringify(value);
        const isOdd =
          /\\u0000|\\ud[89ab]/i.test(text) ||
          /"(__proto__|constructor|toString|valueOf|hasOwnProperty|isPrototypeOf|propertyIsEnumerable|toLocaleString|__\w+__)":/.test(
            text,
          );
        if (!isOdd) expect(refused(value)).toBe(false);
      }),
    );
  });
});
