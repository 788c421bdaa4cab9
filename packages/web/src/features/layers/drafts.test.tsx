import { beforeEach, describe, expect, it } from '@jest/globals';
import type { PieceStack, StackLayer } from '@steady-gleam/core/finishes';
import fc from 'fast-check';
import { begin, historyReducer, type History } from './history';
import { draftOf, forgetDraft, keepDraft, LAYER_KINDS, sameStacks } from './layersModel';

const layer = (more: Partial<StackLayer> = {}): StackLayer => ({
  ...{ id: 'a', kind: 'effect', materialId: 'lagoon-pearl', coats: 3, style: 'wet', strength: 1, filmUm: 9 },
  ...more,
});
const stacks = (...layers: StackLayer[]): PieceStack[] => [{ id: 'main', name: 'all over', layers }];
beforeEach(() => sessionStorage.clear());

describe('layers that were changed and not kept', () => {
  it('are there again for the same version of the job, for that job alone, until they are forgotten', () => {
    const changed = stacks(layer({ coats: 2.5 }));
    keepDraft('job', 4, changed);
    expect(draftOf('job', 4)).toEqual(changed);
    expect(draftOf('other', 4)).toBeNull();
    forgetDraft('job');
    expect(draftOf('job', 4)).toBeNull();
  });

  it('of an older version are dropped: the job went on without them', () => {
    keepDraft('job', 4, stacks(layer()));
    expect(draftOf('job', 5)).toBeNull();
  });

  it('are none where what was kept is damaged', () => {
    for (const text of ['', '{', 'null', '7', '{"version":4}', '{"version":4,"stacks":"x"}']) {
      sessionStorage.setItem('steady-gleam.layers.job', text);
      expect(draftOf('job', 4)).toBeNull();
    }
  });

  it('are a change only where something of them is another', () => {
    const { id, kind, ...rest } = layer();
    expect(sameStacks(stacks(layer()), stacks({ ...rest, kind, id }))).toBe(true);
    for (const more of [
      { coats: 2 },
      { materialId: null },
      { style: 'light' as const },
      { strength: 0.9 },
      { filmUm: 8 },
      { id: 'b' },
    ])
      expect(sameStacks(stacks(layer()), stacks(layer(more)))).toBe(false);
    expect(sameStacks(stacks(layer()), [])).toBe(false);
    expect(sameStacks(stacks(layer()), [{ ...stacks(layer())[0]!, name: 'stripe' }])).toBe(false);
  });

  it('are laid in the order they lie in', () => {
    expect(LAYER_KINDS[0]).toBe('primer');
    expect(LAYER_KINDS.at(-1)).toBe('clear');
    expect(LAYER_KINDS.indexOf('ground')).toBeLessThan(LAYER_KINDS.indexOf('effect'));
  });
});

describe('steps that are taken back', () => {
  type Step = { readonly do: 'set'; readonly value: number } | { readonly do: 'undo' } | { readonly do: 'redo' };
  const step: fc.Arbitrary<Step> = fc.oneof(
    fc.nat(9).map((value): Step => ({ do: 'set', value })),
    fc.constant<Step>({ do: 'undo' }),
    fc.constant<Step>({ do: 'redo' }),
  );

  it('and brought again are where one was, after whatever went before', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const here = steps.reduce<History<number>>(historyReducer, begin(0));
        const back = historyReducer(here, { do: 'undo' });
        if (here.past.length) {
          expect(back.present).toBe(here.past.at(-1));
          expect(historyReducer(back, { do: 'redo' })).toEqual(here);
        } else expect(back).toBe(here);
        // All the way back is where it began, or the oldest that is remembered.
        let at = here;
        for (let i = 0; i < here.past.length; i++) at = historyReducer(at, { do: 'undo' });
        expect(at.past).toEqual([]);
        expect(at.future).toHaveLength(here.past.length + here.future.length);
      }),
    );
  });

  it('are a hundred at most, and none after a fresh start', () => {
    let at = begin(0);
    for (let i = 1; i <= 250; i++) at = historyReducer(at, { do: 'set', value: i });
    expect(at.past).toHaveLength(100);
    expect(at.past[0]).toBe(150);
    expect(historyReducer(at, { do: 'reset', value: 7 })).toEqual(begin(7));
  });
});
