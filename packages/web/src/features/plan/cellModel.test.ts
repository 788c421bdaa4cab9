import { describe, expect, it } from '@jest/globals';
import { ALL, START_AREAS, sprayAreas, type CellEdit, type Reach, type SprayArea } from '@steady-gleam/core/jobs';
import fc from 'fast-check';
import { checkedCell, typedCell, withEdit, type TableCell, type TypedCell } from './cellModel';

const [area] = sprayAreas(START_AREAS, [{ id: 'main' }]) as [SprayArea];
const cell = (reach: Reach, coats = 3): TableCell => ({
  ...{ areaId: area.id, layerId: 'effect', cells: [], coats, reach, isEdited: false },
});

const typed = (more: Partial<TypedCell> = {}): TypedCell => ({ ...typedCell(cell(ALL), undefined), ...more });
const faultsOf = (t: TypedCell) => {
  const found = checkedCell(t, area, 'effect');
  return found.ok ? {} : found.faults;
};

describe('how far a layer goes on an area, as it is typed', () => {
  it('comes out as it went in', () => {
    const reaches: Reach[] = [
      ALL,
      { kind: 'none' },
      { kind: 'spot', m2: area.areaM2 / 4 },
      { kind: 'blend', endCm: 40, fadeCm: 15, stepCm: 10, from: 'the left' },
    ];
    for (const reach of reaches) {
      const found = checkedCell(typedCell(cell(reach, 2.5), undefined), area, 'effect');
      expect(found).toEqual({ ok: true, value: { areaId: area.id, layerId: 'effect', coats: 2.5, reach } });
    }
  });

  it('opens with what was edited before what the plan has', () => {
    const edit = { areaId: area.id, layerId: 'effect', coats: 4, reach: { kind: 'none' } as const };
    expect(typedCell(cell(ALL, 3), edit)).toMatchObject({ kind: 'none', coats: '4' });
    // An edit of the reach alone leaves the count of the plan.
    expect(typedCell(cell(ALL, 3), { ...edit, coats: null })).toMatchObject({ kind: 'none', coats: '3' });
  });

  it('is named at its field where it can’t be', () => {
    expect(faultsOf(typed({ coats: 'many' }))['coats']).toBe('Coats must be a number.');
    expect(faultsOf(typed({ coats: '15' }))['coats']).toBe('At most 14 coats.');
    expect(faultsOf(typed({ kind: 'blend', endCm: '40', fadeCm: '300' }))['fadeCm']).toMatch(/\.$/);
    expect(faultsOf(typed({ kind: 'blend', endCm: '40', fadeCm: '60' }))['fadeCm']).toBe(
      'The fade can’t be longer than the blend itself.',
    );
    expect(faultsOf(typed({ kind: 'blend', endCm: '900', fadeCm: '15' }))['endCm']).toMatch(/^.* is \d+ cm long/);
    expect(faultsOf(typed({ kind: 'spot', m2: String(area.areaM2 * 2) }))['m2']).toContain('a spot is smaller');
    // What stands in fields of another kind is nobody's business.
    expect(faultsOf(typed({ kind: 'all', m2: 'x', endCm: 'y' }))).toEqual({});
  });

  it('is taken or refused in sentences, whatever is typed', () => {
    const text = fc.oneof(fc.string(), fc.integer({ min: -5, max: 400 }).map(String), fc.constantFrom('1,5', '½', ''));
    fc.assert(
      fc.property(
        fc.constantFrom<Reach['kind']>('all', 'none', 'spot', 'blend'),
        fc.record({
          coats: text,
          m2: text,
          endCm: text,
          fadeCm: text,
          stepCm: text,
          from: fc.string({ maxLength: 60 }),
        }),
        (kind, fields) => {
          const found = checkedCell({ kind, ...fields }, area, 'effect');
          if (found.ok) expect(found.value.coats).toBeGreaterThanOrEqual(0);
          else for (const said of Object.values(found.faults)) expect(said.trim()).toMatch(/\.$/);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('is one of the edits, and the only one of its place', () => {
    const key = fc.constantFrom('a', 'b', 'c');
    const edit: fc.Arbitrary<CellEdit> = fc.record({
      areaId: key,
      layerId: key,
      coats: fc.integer({ min: 0, max: 9 }),
      reach: fc.constant(ALL),
    });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 6 }), edit, (old, e) => {
        const edits = old.reduce<CellEdit[]>((all, one) => withEdit(all, one, one), []);
        const once = withEdit(edits, e, e);
        expect(withEdit(once, e, e)).toEqual(once);
        expect(once.filter((o) => o.areaId === e.areaId && o.layerId === e.layerId)).toEqual([e]);
        expect(withEdit(once, e, null)).toEqual(edits.filter((o) => o.areaId !== e.areaId || o.layerId !== e.layerId));
      }),
    );
  });
});
