import { describe, expect, it } from '@jest/globals';
import type { NearestFinish } from '@steady-gleam/core/bank';
import { libraryOf } from '@steady-gleam/core/materials';
import { isCount, newJobLink, startOf } from '../../shared/newJobLink';
import { askedAt, queryOf, sayKnown, sayMade, sayNear } from './bankModel';

const angle = (aspecular: number, l = 50) => ({ incidence: 45, aspecular, lab: [l, 10, -5] as const });
const near = (more: Partial<NearestFinish> = {}): NearestFinish => ({
  ...{ finishId: 'f', cardId: 'c', coats: 3.4, rungs: [3, 4], max: 0.71, mean: 0.4, shared: 2 },
  ...{ angles: [angle(15), angle(45)], ...more },
});

describe('what the bank says', () => {
  it('of the nearest: the count, how near, and at how many of the angles that were asked', () => {
    expect(sayNear(near(), 'Lagoon', 2)).toBe('Nearest: Lagoon, rung 3.4. Within 0.7 dE00 at every angle.');
    expect(sayNear(near({ coats: null }), 'Lagoon', 5)).toBe(
      'Nearest: Lagoon, as it was matched. Within 0.7 dE00 at 2 of 5 angles.',
    );
    expect(sayNear(near({ coats: 3, shared: 1 }), 'Lagoon', 1)).toMatch(/rung 3\. Within 0\.7 dE00 there\.$/);
  });

  it('of what makes a finish and how well it is known', () => {
    const pick = { groundId: 'gold', coats: 1.5, strength: 0.8, style: 'wet' as const, controlCoats: 0 };
    const library = libraryOf([]);
    expect(sayMade({ mixId: 'smoke-tea-clear', pick }, library)).toBe(
      '1½ coats of Smoke tea tinted clear at 0.80×, full wet, over gold',
    );
    expect(sayMade({ mixId: 'gone', pick: null }, library)).toMatch(/not here any more, nothing picked yet$/);
    expect(sayMade({ mixId: null, pick: null }, library)).toBe('ground and clear only');
    expect(sayKnown({ targetAngles: 0, rungsRead: 0, proven: 0 })).toBe('nothing read yet');
    expect(sayKnown({ targetAngles: 1, rungsRead: 1, proven: 2 })).toBe(
      'target read at one angle, one rung read, held on 2 finished jobs',
    );
  });

  it('lays what was asked under a finish at the same angles, and nothing where something else is asked by now', () => {
    const asked = [angle(45, 30), angle(15, 20), angle(75, 10)];
    expect(askedAt(asked, [angle(15), angle(45)])!.map((lab) => lab[0])).toEqual([20, 30]);
    expect(askedAt([angle(45)], [angle(15), angle(45)])).toBeUndefined();
  });
});

describe('the address of the bank', () => {
  it('holds what is looked for; what it can’t mean is left out', () => {
    const of = (text: string) => queryOf(new URLSearchParams(text));
    expect(of('words=LP+7&family=pearl&sort=name&proven=true&by=look')).toEqual({
      ...{ words: 'LP 7', family: 'pearl', sort: 'name', proven: true, ids: [], by: 'look' },
    });
    expect(of(`words=${'x'.repeat(500)}&family=velvet&sort=up&proven=1&by=smell`)).toEqual({
      ...{ words: 'x'.repeat(120), family: null, sort: 'latest', proven: false, ids: [], by: 'words' },
    });
  });

  it('begins a job only with a count that can be laid', () => {
    expect([0, 0.4, 0.5, 3.4, 12, 12.1, NaN, null].map(isCount)).toEqual([
      false,
      false,
      true,
      true,
      true,
      false,
      false,
      false,
    ]);
  });

  it('of a new job carries finish, count and what the object reads; anything else in its state is none', () => {
    const link = newJobLink('f', 3.4, [angle(15, -2)]);
    expect(link.to).toBe('/jobs/new?finish=f&coats=3.4');
    const { target } = startOf(link.state);
    expect(target).toMatchObject({
      kind: 'target',
      rungCoats: null,
      readings: [{ aspecular: 15, l: 0, a: 10, b: -5 }],
    });
    expect(startOf(newJobLink('f', null, null).state).target).toBeNull();
    for (const other of [null, undefined, 7, {}, { target: { kind: 'target' } }])
      expect(startOf(other).target).toBeNull();
  });
});
