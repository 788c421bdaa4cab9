import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { ENOUGH, eventOf, inForce, LET_DOWN, type JobEvent } from './events';
import { sprayAreas } from './job';
import { sayList } from './list';
import { ALL, NONE, reachFaults, reachM2, type Reach } from './reach';
import { sayAreas, sayEvent, sayOn, sayReach } from './say';

const names = ['Lid', 'Rail', 'Tub', 'Door', 'Edge'];
const plan = {
  areas: names.map((name, i) => ({ id: `a${i}`, name })),
  objects: [{ id: 'it', name: 'Waltzer' }],
  checks: [],
};
const told = (about: Partial<JobEvent> & Pick<JobEvent, 'kind'>) =>
  sayEvent(plan, eventOf({ id: 'x', at: 1, ...about }));

describe('what is said of areas, reaches and events', () => {
  it('lists names as they are said, and more than three areas as their number', () => {
    expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map(sayList)).toEqual(['', 'a', 'a and b', 'a, b and c']);
    expect(sayAreas(plan, ['a0', 'a1', 'a0'])).toBe('Lid and Rail');
    expect(sayAreas(plan, ['a0', 'a1', 'a2'])).toBe('Lid, Rail and Tub');
    expect(sayAreas(plan, ['a0', 'a1', 'a2', 'a3'])).toBe('4 areas');
    expect(sayAreas(plan, ['gone', 'a4'])).toBe('Edge');
  });

  it('says how far a coat goes', () => {
    const say = { area: (m2: number) => `${m2} m²`, distance: (cm: number) => `${cm} cm` };
    const blend = { kind: 'blend', endCm: 60, fadeCm: 20, stepCm: 0 } as const;
    expect(sayReach(ALL, say)).toBe('');
    expect(sayReach(NONE, say)).toBe('not here');
    expect(sayReach({ kind: 'spot', m2: 0.2 }, say)).toBe('only the spot, 0.2 m²');
    expect(sayReach({ ...blend, from: 'the edge' }, say)).toMatch(
      /^ends 60 cm from the edge, fading over the last 20 cm/,
    );
    expect(sayReach({ ...blend, from: '' }, say)).toMatch(/^ends 60 cm in, fading/);
    expect(sayReach({ kind: 'fan', acrossCm: 8, fadeCm: 5, m2: 0.1, from: 'the nose' }, say)).toMatch(
      /^on the nose only: whole for 8 cm across, fading over 5 cm all round/,
    );
  });

  it('says how much is on, with what left the plan', () => {
    const stray = { coatId: 'c', areaId: 'a0', layerId: 'l', name: 'x', coats: 1, filmUm: 9 };
    expect(sayOn({ done: 2, total: 7, strays: [] })).toBe('2 of 7 sprays on.');
    expect(sayOn({ done: 2, total: 7, strays: [stray] })).toBe('2 of 7 sprays on, and one that left the plan.');
    expect(sayOn({ done: 2, total: 7, strays: [stray, stray] })).toBe('2 of 7 sprays on, and 2 that left the plan.');
  });

  it('tells an event in words: where, what, and how much more', () => {
    const cells = [{ coatId: 'c', areaId: 'a0' }];
    expect(told({ kind: 'note', text: 'a nib' })).toBe('note: a nib');
    expect(told({ kind: 'note', text: 'a nib', cells })).toBe('note (Lid): a nib');
    expect(told({ kind: 'photo', cells })).toBe('photo (Lid)');
    expect(told({ kind: 'skip', text: ENOUGH, cells })).toBe('enough (Lid)');
    expect(told({ kind: 'skip', text: 'masked', cells })).toBe('left out (Lid): masked');
    expect(told({ kind: 'fault', text: 'a run', cells })).toBe('fault (Lid): a run');
    expect(told({ kind: 'check' })).toBe('');
    const more = (coats: number | null, text = '') => told({ kind: 'extra', coats, text, cells });
    expect([1, 0.75, 0.5, 0.25, null].map((c) => more(c))).toEqual(
      ['one coat', 'three quarters of a coat', 'half a coat', 'a mist coat', 'one coat'].map((s) => `${s} more (Lid)`),
    );
    // Let down 1:1 it takes twice as much of it.
    expect(more(0.5, LET_DOWN)).toBe('one coat of the mix let down 1:1 more (Lid)');
    expect(more(0.25, LET_DOWN)).toBe('half a coat of the mix let down 1:1 more (Lid)');
  });
});

describe('how far a coat goes on an area', () => {
  const area = { areaM2: 2, lengthCm: 100 };
  const blend = (endCm: number, fadeCm: number): Reach => ({ kind: 'blend', endCm, fadeCm, stepCm: 0, from: '' });

  it('is laid whole up to where it fades and half of the fade, never on more than there is', () => {
    expect(reachM2(ALL, area)).toBe(2);
    expect(reachM2(NONE, area)).toBe(0);
    expect(reachM2({ kind: 'spot', m2: 0.3 }, area)).toBe(0.3);
    expect(reachM2({ kind: 'spot', m2: 3 }, area)).toBe(2);
    expect(reachM2(blend(60, 20), area)).toBeCloseTo(1, 12);
    expect(reachM2(blend(10, 40), area)).toBe(0);
    expect(reachM2(blend(400, 20), area)).toBe(2);
  });

  it('names the rule that is broken and its limit, at the limit none', () => {
    expect(reachFaults({ kind: 'spot', m2: 2 }, area)).toEqual([]);
    expect(reachFaults({ kind: 'spot', m2: 2.01 }, area)).toEqual([{ rule: 'wholeArea', limit: 2 }]);
    expect(reachFaults(blend(100, 100), area)).toEqual([]);
    expect(reachFaults(blend(101, 20), area)).toEqual([{ rule: 'beyond', limit: 100 }]);
    expect(reachFaults(blend(60, 61), area)).toEqual([{ rule: 'longFade', limit: 60 }]);
    expect(reachFaults(blend(120, 130), area).map((f) => f.rule)).toEqual(['beyond', 'longFade']);
    expect(reachFaults(ALL, area)).toEqual([]);
  });
});

describe('areas as they stand in the booth', () => {
  const area = (id: string, on: string | null, measures: Record<string, number> = { area: 4 }) => ({
    ...{ id, name: id, shape: 'area' as const, measures, count: 1, x: null, y: null, first: false },
    ...{ mounting: 'object' as const, objectId: 'it', finishId: null, on },
  });
  const finishes = [{ id: 'main' }, { id: 'line' }];

  it('one lies on another that lies on none itself; on itself, on one of those or on what is gone it lies on nothing', () => {
    const all = sprayAreas(
      [area('a', null), area('b', 'a'), area('c', 'b'), area('d', 'd'), area('e', 'gone')],
      finishes,
    );
    expect(all.map((a) => a.on)).toEqual([null, 'a', null, null, null]);
  });

  it('those without a place stand in rows of four, their length from what is known of them', () => {
    const all = sprayAreas(
      Array.from({ length: 5 }, (_, i) => area(`a${i}`, null)),
      finishes,
    );
    expect(all.map((a) => [a.x, a.y])).toEqual(
      [1, 2.3, 3.6, 4.9, 1].map((x, i) => [expect.closeTo(x, 9), i < 4 ? 1 : 2.3]),
    );
    expect(all[0]).toMatchObject({ areaM2: 4, lengthCm: 200, finishId: 'main', loose: false, clear: 'cleared' });
    // Without a measure it is a hand's breadth, so that a plan can be drawn at all.
    expect(sprayAreas([area('a', null, {})], finishes)[0]).toMatchObject({ areaM2: 0.1 });
    expect(sprayAreas([{ ...area('a', null), finishId: 'line', x: 0, y: 7 }], finishes)[0]).toMatchObject({
      ...{ finishId: 'line', x: 0, y: 7 },
    });
  });
});

describe('what stands of a log', () => {
  const event = (id: string, at: number, text = '', kind: JobEvent['kind'] = 'note') => eventOf({ id, at, kind, text });

  it('is in the order of time, then of ids, each once', () => {
    const log = [event('b', 2), event('c', 1), event('a', 2), event('b', 2)];
    expect(inForce(log).map((e) => e.id)).toEqual(['c', 'a', 'b']);
  });

  it('is without what an undo names, and with it where the undo was itself undone', () => {
    const log = [event('a', 1), event('b', 2), event('u', 3, 'b', 'undo')];
    expect(inForce(log).map((e) => e.id)).not.toContain('b');
    expect(inForce([...log, event('v', 4, 'u', 'undo')]).map((e) => e.id)).toContain('b');
    expect(inForce([event('a', 1), event('u', 2, 'v', 'undo'), event('v', 3, 'u', 'undo')]).map((e) => e.id)).toContain(
      'a',
    );
  });

  it('does not depend on the order in which it arrived', () => {
    const ids = fc.constantFrom('a', 'b', 'c', 'd');
    const log = fc.uniqueArray(
      fc.record({ id: ids, at: fc.integer({ min: 1, max: 3 }), undoes: fc.option(ids, { nil: null }) }),
      { selector: (e) => e.id },
    );
    fc.assert(
      fc.property(log, (list) => {
        const events = list.map((e) => event(e.id, e.at, e.undoes ?? '', e.undoes === null ? 'note' : 'undo'));
        expect(inForce([...events].reverse())).toEqual(inForce(events));
      }),
    );
  });
});
