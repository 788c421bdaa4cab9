import { describe, expect, it } from '@jest/globals';
import { EVENT_KINDS, eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import fc from 'fast-check';
import { isPlainEvent, jobEventSchema, oddIn } from './index';

const ID = '5b0f7c51-6a5e-4c8a-9f0e-0c6a2d1b7e11';
const full: JobEvent = {
  ...eventOf({ id: ID, at: 5, kind: 'sprayed', text: 'scuffed' }),
  cells: [
    { coatId: 'effect/wet/1', areaId: 'tub', layerId: 'effect', name: 'Cinder', coats: 1, filmUm: 10, spot: null },
  ],
  mend: null,
};
const odd = fc.constantFrom<unknown>(
  null,
  undefined,
  '',
  'x',
  'x'.repeat(500),
  -1,
  0,
  1.5,
  20.1,
  3000,
  NaN,
  2 ** 53,
  [],
  {},
  true,
);

/** An event with one of its fields, or one of its cell's, made something else. */
const bent = fc.tuple(
  fc.constantFrom('id', 'at', 'kind', 'cells', 'layerId', 'checkId', 'coats', 'look', 'mend', 'text', 'more'),
  fc.constantFrom('', 'coatId', 'areaId', 'layerId', 'name', 'coats', 'filmUm', 'spot', 'more'),
  odd,
);

describe('an event that is plainly right', () => {
  it('is one the schema takes as it is, whatever is bent about it', () => {
    expect(isPlainEvent(full)).toBe(true);
    let plain = 0;
    fc.assert(
      fc.property(bent, ([field, inner, value]) => {
        const event = (
          inner ? { ...full, cells: [{ ...full.cells[0], [inner]: value }] } : { ...full, [field]: value }
        ) as JobEvent;
        if (!isPlainEvent(event)) return;
        plain++;
        // Fields a stored row can't have are none of its own and are not read.
        const read = jobEventSchema.validateSync(inner || field !== 'more' ? event : full, { strict: true });
        expect(read.cells).toEqual(event.cells);
      }),
      { numRuns: 3000 },
    );
    // Not by refusing everything.
    expect(plain).toBeGreaterThan(100);
  });

  it('is so of every kind that needs no look and no mend', () => {
    for (const kind of EVENT_KINDS) expect(isPlainEvent({ ...full, kind })).toBe(true);
    expect(isPlainEvent({ ...full, look: { spot: '', view: 'sun face', verdict: null, patch: null } })).toBe(false);
  });
});

describe('what comes from outside', () => {
  it('is odd where a key is every object’s, or a text is none, however deep', () => {
    for (const text of [
      '{"a":[{"__proto__":1}]}',
      '[{"constructor":{}}]',
      '{"a":["\\u0000"]}',
      '"\\ud800"',
      '{"\\udfff":1}',
    ])
      expect(oddIn(JSON.parse(text))).toMatch(/can’t be one|are none/);
    for (const text of ['{"proto":"🎠"}', '[[[]]]', 'null', '1', '{"a":{"b":["x"]}}'])
      expect(oddIn(JSON.parse(text))).toBeNull();
    // Deeper than a call could go.
    expect(oddIn(JSON.parse(`${'['.repeat(5000)}"\\u0000"${']'.repeat(5000)}`))).not.toBeNull();
  });
});
