import { describe, expect, it } from '@jest/globals';
import type { Damaged } from '@steady-gleam/contracts';
import { number, object, string } from 'yup';
import { ApiError } from '../errors';
import { rowReader } from './rows';

const schema = object({ id: string().required(), coats: number().max(8, 'At most 8.').required() });
const rows = [
  { id: 'a', coats: 2 },
  { id: 'b', coats: 9 },
  { id: 'c', coats: 8 },
];

describe('rows read one by one', () => {
  const told: [Damaged, Readonly<Record<string, string>>][] = [];
  const reader = rowReader(
    'job',
    (row: { id: string; coats: number }) => schema.validateSync(row),
    (row) => ({ id: row.id, name: `tub ${row.id}` }),
    (...what) => told.push(what),
  );

  it('are all there but the one that can’t be read, which is told once for each fault', () => {
    expect(reader.many(rows).map((r) => r.id)).toEqual(['a', 'c']);
    expect(reader.many(rows).map((r) => r.id)).toEqual(['a', 'c']);
    expect(reader.damaged(rows)).toEqual([{ what: 'job', id: 'b', name: 'tub b' }]);
    expect(told).toEqual([[{ what: 'job', id: 'b', name: 'tub b' }, { coats: 'At most 8.' }]]);
    reader.many([{ id: 'b', coats: NaN }]);
    expect(told).toHaveLength(2);
  });

  it('say by name which one is damaged when it is asked for alone', () => {
    expect(reader.one(rows[0]!).coats).toBe(2);
    const failure = (() => {
      try {
        return reader.one(rows[1]!);
      } catch (error) {
        return error;
      }
    })();
    expect(failure).toBeInstanceOf(ApiError);
    expect((failure as ApiError).code).toBe('damaged');
    expect((failure as ApiError).message).toContain('tub b (b)');
  });

  it('do not take a fault of the program for a damaged row', () => {
    const broken = rowReader(
      'job',
      () => {
        throw new TypeError('ours');
      },
      () => ({ id: 'x', name: '' }),
      () => undefined,
    );
    expect(() => broken.many([{}])).toThrow(TypeError);
    expect(() => broken.one({})).toThrow(TypeError);
  });
});
