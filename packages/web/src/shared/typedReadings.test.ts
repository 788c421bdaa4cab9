import { describe, expect, it } from '@jest/globals';
import { READING_LIMITS } from '@steady-gleam/core/formats';
import fc from 'fast-check';
import type { ValidationError } from 'yup';
import { TRAVEL_ANGLES, USUAL_ANGLES, angleKey, sayAngle } from './angles';
import { emptyRow, isEmpty, rowsOf, rowsSchema, type Row } from './typedReadings';

const row = (more: Partial<Row> = {}): Row => ({ ...emptyRow(USUAL_ANGLES[2]!), l: '50', a: '1', b: '-2', ...more });
/** What is said, by the path of the field it is said at. */
const said = (...rows: Row[]): Record<string, string> => {
  try {
    rowsSchema.validateSync({ rows }, { abortEarly: false });
    return {};
  } catch (error) {
    return Object.fromEntries((error as ValidationError).inner.map((e) => [e.path ?? '', e.message]));
  }
};

describe('readings as they are typed', () => {
  it('an angle that was not read may stay open; one begun has to be whole', () => {
    expect(said(emptyRow(USUAL_ANGLES[0]!), row())).toEqual({});
    expect(isEmpty({ l: ' ', a: '', b: '\t' })).toBe(true);
    expect(said(row({ a: '' }))).toEqual({ 'rows[0].a': 'a* is missing.' });
    expect(said(row({ l: 'bright', b: '2;5' }))).toEqual({
      'rows[0].l': 'L* must be a number.',
      'rows[0].b': 'b* must be a number.',
    });
  });

  it('takes a decimal comma as it takes a point', () => {
    expect(said(row({ l: '50,25', a: '−3,5' }))).toEqual({});
  });

  it('says bounds at the figure', () => {
    const far = said(row({ l: '900', a: '4000' }));
    expect(Object.keys(far).sort()).toEqual(['rows[0].a', 'rows[0].l']);
    for (const sentence of Object.values(far)) expect(sentence).toMatch(/\d/);
    const { aspecularMin, aspecularMax } = READING_LIMITS;
    expect(said(row({ angle: '400' }))).toEqual({ 'rows[0].angle': `Between ${aspecularMin} and ${aspecularMax}.` });
    expect(said(row({ angle: 'flop' }))).toEqual({ 'rows[0].angle': 'Give the angle.' });
  });

  it('an angle is there once for a spot and a lamp', () => {
    expect(said(row(), row())).toMatchObject({ 'rows[1].angle': 'This angle is here twice.' });
    expect(said(row(), row({ spot: '2' }))).toEqual({});
    expect(said(row(), row({ lamp: '25' }))).toEqual({});
    // One that was left open is not there.
    expect(said(row(), { ...row(), l: '', a: '', b: '' })).toEqual({});
  });

  it('come back as rows just as they were stored, to three places, with the open angles below', () => {
    const figure = fc.integer({ min: -99_000, max: 99_000 }).map((n) => n / 1000);
    fc.assert(
      fc.property(fc.tuple(fc.integer({ min: 0, max: 120_000 }), figure, figure), ([l, a, b]) => {
        const reading = { spot: '1', incidence: 45, aspecular: 45, l: l / 1000, a, b };
        const rows = rowsOf([reading], USUAL_ANGLES);
        expect(rows).toHaveLength(USUAL_ANGLES.length);
        expect([rows[0]!.l, rows[0]!.a, rows[0]!.b].map(Number)).toEqual([l / 1000, a, b]);
        expect(rows.slice(1).every(isEmpty)).toBe(true);
        expect(said(...rows)).toEqual({});
      }),
    );
    const two = ['1', '2'].map((spot) => ({ spot, incidence: 45, aspecular: 45, l: 1, a: 2, b: 3 }));
    // Of several spots nobody knows which the open angle would be of.
    expect(rowsOf(two, USUAL_ANGLES)).toHaveLength(2);
  });
});

describe('angles by their names', () => {
  it('are degrees from the mirror, with the lamp before them where it is not the usual one', () => {
    expect(USUAL_ANGLES.map(sayAngle)).toEqual(['15°', '25°', '45°', '75°', '110°']);
    expect(TRAVEL_ANGLES.map(angleKey)).toEqual(['25/15', '25/25', '65/15', '65/25']);
    const keys = [...USUAL_ANGLES, ...TRAVEL_ANGLES].map(angleKey);
    expect(new Set(keys).size).toBe(keys.length);
  });
});
