import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { StackLayer } from '@steady-gleam/core/finishes';
import { begin, historyReducer, type HistoryAction } from './history';
import { sayBuild } from './layersModel';
import { unitsOf } from '../../shared/units';

const metric = unitsOf('metric');

describe('undo and redo', () => {
  const apply = (actions: readonly HistoryAction<number>[]) => actions.reduce((s, a) => historyReducer(s, a), begin(0));

  it('takes back every step and brings it again', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { minLength: 1, maxLength: 60 }), (values) => {
        let state = apply(values.map((value) => ({ do: 'set', value })));
        for (let i = values.length - 1; i >= 0; i--) {
          expect(state.present).toBe(values[i]);
          state = historyReducer(state, { do: 'undo' });
        }
        expect(state.present).toBe(0);
        expect(historyReducer(state, { do: 'undo' })).toBe(state);
        for (const value of values) {
          state = historyReducer(state, { do: 'redo' });
          expect(state.present).toBe(value);
        }
        expect(historyReducer(state, { do: 'redo' })).toBe(state);
      }),
    );
  });

  it('forgets what was undone once something new is done', () => {
    const state = apply([{ do: 'set', value: 1 }, { do: 'set', value: 2 }, { do: 'undo' }, { do: 'set', value: 3 }]);
    expect([state.past, state.present, state.future]).toEqual([[0, 1], 3, []]);
  });
});

describe('what is said of a build', () => {
  const layer = (filmUm: number, coats: number): StackLayer => ({
    id: `${filmUm}`,
    kind: 'clear',
    materialId: null,
    coats,
    style: 'wet',
    strength: 1,
    filmUm,
  });
  it('says the thickest stack, and whether it stays under the limit', () => {
    const one = { id: 'a', name: 'first tone', layers: [layer(20, 3)] };
    const two = { id: 'b', name: 'second tone', layers: [layer(30, 4.5)] };
    const plain = { grip: false, tack: false };
    expect(sayBuild([one], 100, metric, plain).answer).toBe('60 µm in 3 coats: 40 µm under your limit.');
    expect(sayBuild([one, two], 100, metric, plain).answer).toBe(
      'The second tone: 135 µm in 4½ coats: 35 µm over your limit.',
    );
    // A tack coat is film too: 0.3 of a coat of clear.
    expect(sayBuild([one], 100, metric, { grip: true, tack: true }).answer).toBe(
      '66 µm in 3 coats, tack coat with them: 34 µm under your limit.',
    );
    expect(sayBuild([{ ...one, layers: [] }], 100, metric, plain).answer).toBe('Nothing is laid yet.');
  });
});
