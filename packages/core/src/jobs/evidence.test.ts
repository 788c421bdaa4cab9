import { describe, expect, it } from '@jest/globals';
import { FAMILIES, FAMILY_IDS } from '../finishes/families';
import { D65_10 } from '../colour/tristimulus';
import { STYLES } from '../finishes/styles';
import { nominalTable } from '../letdown/advise';
import { cardByEye, ladderOfAnyHand } from '../letdown/byEye';
import { countByEye } from '../letdown/eye';
import type { EyeRead } from '../letdown/eyeSight';
import { missingViews, viewsOf, type EyeView, type Verdict } from '../letdown/eyeWords';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { prepareLibrary } from '../materials/shop';
import { FIVE_ANGLES } from '../optics/geometry';
import { area, finish, object, plainPlan } from '../testdata/jobs';
import { eventOf, type JobEvent } from './events';
import { looksOf, seenOf, unseenOf, type SeenSpot } from './evidence';
import { sayList } from './list';
import { jobState } from './state';
import { laidOf } from './whatIsOn';
import { runOf } from './work';

describe('what is still to be looked at before a finish may be called matched', () => {
  it.each(FAMILY_IDS)('%s: face and flop, and low light where it tells', (family) => {
    expect(missingViews(family, [])).toEqual([
      'at the face',
      'in the flop',
      ...(FAMILIES[family].lowLight ? ['in low light'] : []),
    ]);
    // Shade shows neither face nor flop.
    expect(missingViews(family, ['shade'])).toEqual(missingViews(family, []));
    expect(missingViews(family, viewsOf(family))).toEqual([]);
    // One more place to stand never asks for more.
    const seen: EyeView[] = [];
    for (const view of viewsOf(family)) {
      const before = missingViews(family, seen);
      seen.push(view);
      expect(before).toEqual(expect.arrayContaining(missingViews(family, seen)));
    }
  });

  it('a clause of one, two and three', () => {
    expect(sayList(['at the face'])).toBe('at the face');
    expect(sayList(['at the face', 'in low light'])).toBe('at the face and in low light');
    expect(sayList(['a', 'b', 'c'])).toBe('a, b and c');
  });

  const plan = plainPlan({
    finishes: [finish('main', 'lagoon-pearl', 'aqua-pastel', 2)],
    objects: [object('left'), object('right')],
    areas: [area('l', { objectId: 'left' }), area('r', { objectId: 'right' })],
  });
  const layerId = plan.layers.find((l) => l.counted)!.id;
  const spray = (n: number, areaId: string): JobEvent =>
    eventOf({
      id: `${areaId}${n}`,
      at: n,
      kind: 'sprayed',
      cells: plan.cells
        .filter((c) => c.areaId === areaId && c.layerId === layerId && c.coats > 0)
        .slice(n - 1, n)
        .map(laidOf),
    });
  const look = (view: EyeView, coats: number, areaId: string, more: Partial<JobEvent> = {}): JobEvent =>
    eventOf({
      ...{ id: `look ${view} ${coats} ${areaId}`, at: 100, kind: 'look', coats, layerId },
      cells: [{ coatId: layerId, areaId }],
      look: { spot: 'nose', view, verdict: 'match', hue: null, patch: null },
      ...more,
    });
  const unseen = (...log: JobEvent[]) => unseenOf(plan, jobState(plan, log));

  it('is asked of what has the effect on, object by object', () => {
    expect(unseen()).toEqual([]);
    expect(unseen(spray(1, 'l')).map((u) => u.objectId)).toEqual(['left']);
    const both = [spray(1, 'l'), spray(1, 'r')];
    expect(unseen(...both, look('lamp', 1, 'l'), look('sun flop', 1, 'l'))).toEqual([
      { objectId: 'left', name: 'left', missing: ['in low light'] },
      { objectId: 'right', name: 'right', missing: ['at the face', 'in the flop', 'in low light'] },
    ]);
    const all = (['sun face', 'sun flop', 'low light'] as const).map((v) => look(v, 1, 'l'));
    expect(unseen(...both, ...all).map((u) => u.objectId)).toEqual(['right']);
  });

  it('a coat more has to be looked at again; what is taken back was not seen; a patch is no view', () => {
    const all = (['sun face', 'sun flop', 'low light'] as const).map((v) => look(v, 1, 'l'));
    expect(unseen(spray(1, 'l'), ...all)).toEqual([]);
    expect(unseen(spray(1, 'l'), ...all, { ...spray(2, 'l'), at: 200 })[0]!.missing).toHaveLength(3);
    const undo = eventOf({ id: 'undo', at: 200, kind: 'undo', text: all[1]!.id });
    expect(unseen(spray(1, 'l'), ...all, undo)[0]!.missing).toEqual(['in the flop']);
    const patch = { spot: 'nose', view: 'lamp', verdict: null, hue: null, patch: 2 } as const;
    expect(unseen(spray(1, 'l'), look('lamp', 1, 'l', { look: patch }))[0]!.missing).toContain('at the face');
  });

  it('a look at one place against another counts for neither view of the target', () => {
    const on = [spray(1, 'l'), spray(2, 'l')];
    const against = look('sun face', 2, 'l', {
      look: { spot: 'nose', view: 'sun face', verdict: 'match', hue: null, patch: null, against: 'lid' },
    });
    expect(unseen(...on, against)[0]!.missing).toContain('at the face');
    expect(unseen(...on, look('sun face', 2, 'l'))[0]!.missing).not.toContain('at the face');
    // Photos beside a word take nothing back.
    const photos = look('sun face', 2, 'l', {
      ...{ id: 'later', at: 200 },
      look: { spot: 'nose', view: 'sun face', verdict: null, hue: null, patch: null, photos: ['a', 'b'] },
    });
    const seen = seenOf(plan, jobState(plan, [...on, look('sun face', 2, 'l'), photos]), 'left');
    expect(seen).toHaveLength(1);
    expect(seen[0]).toMatchObject({ verdict: 'match', photos: ['a', 'b'] });
  });

  it('what is said last of a place counts; a word that is taken back was not said, a newer patch takes the place of an older', () => {
    const said = (at: number, more: object) =>
      look('sun face', 1, 'l', {
        ...{ id: `said ${at}`, at },
        look: { spot: 'nose', view: 'sun face', verdict: null, hue: null, patch: null, ...more },
      });
    const seen = (...log: JobEvent[]) => seenOf(plan, jobState(plan, [spray(1, 'l'), ...log]), 'left');
    const [first, photos] = [said(10, { verdict: 'darker' }), ['a']];
    expect(seen(first, said(20, { verdict: 'match', photos }))).toMatchObject([{ verdict: 'match', photos }]);
    expect(seen(first, said(20, {}))).toEqual([]);
    expect(seen(said(10, { photos }))).toMatchObject([{ verdict: null, photos }]);
    expect(seen(said(10, { patch: 1 }), said(20, { patch: 3, photos })).map((s) => s.patch)).toEqual([3]);
  });

  it('the list says it by object', () => {
    const start = eventOf({ id: 'start', at: 0, kind: 'start' });
    const run = (...log: JobEvent[]) => runOf(plan, jobState(plan, [start, ...log]));
    expect(runOf(plan, jobState(plan, []))).toBeNull();
    expect(run()!.unseen).toBeNull();
    expect(run(spray(1, 'l'), look('lamp', 1, 'l'))!.unseen).toBe(
      'left not looked at by eye in the flop and in low light',
    );
    const all = (['sun face', 'sun flop', 'low light'] as const).map((v) => look(v, 1, 'l'));
    expect(run(spray(1, 'l'), ...all)!.unseen).toBeNull();
  });
});

describe('what a look says of the film', () => {
  const shop = prepareLibrary();
  const recipe = { coat: shop.coat(findMix('cinder-candy'), 1), style: STYLES.wet };
  const ladders = ladderOfAnyHand(
    nominalTable({
      ...{ model: shop.model(FIVE_ANGLES), viewing: D65_10, recipe },
      ground: shop.ground(findGround('silver-fine')),
    }),
  );
  const eye: EyeRead = { ladders, aspecular: FIVE_ANGLES.map((g) => g.aspecular) };
  const rung = (coats: number, verdict: Verdict) => ({ coats, view: 'sun face' as const, verdict });
  const turns = countByEye([rung(2, 'lighter'), rung(3, 'match'), rung(4, 'darker')], eye);
  const card = cardByEye(turns, ladders[0]!.ladder, FIVE_ANGLES);
  const seen = (spot: string, verdict: Verdict, more: Partial<SeenSpot> = {}): SeenSpot => ({
    ...{
      spot,
      coats: 2,
      view: 'sun face',
      verdict,
      hue: null,
      patch: null,
      against: null,
      photos: [],
      areaIds: ['l'],
      at: 1,
    },
    ...more,
  });
  const told = (...all: SeenSpot[]) => looksOf([], all, card, eye).map((l) => l.spot);

  it('held against another place it counts where that place matches itself, by its last look', () => {
    const nose = seen('nose', 'lighter', { against: 'lid', at: 9 });
    expect(told(seen('lid', 'match'), nose)).toEqual(['lid', 'nose']);
    expect(told(seen('lid', 'darker'), nose)).toEqual(['lid']);
    expect(told(nose)).toEqual([]);
    // What other places look like, and what is held against others, is nothing to it.
    expect(told(seen('lid', 'match'), seen('wing', 'darker'), nose)).toEqual(['lid', 'wing', 'nose']);
    expect(told(seen('wing', 'match'), seen('lid', 'match', { against: 'wing' }), nose)).toEqual(['wing', 'lid']);
    // It was short a coat ago, and matches now.
    expect(told(seen('lid', 'lighter', { coats: 1 }), seen('lid', 'match'), nose)).toEqual(['lid', 'lid', 'nose']);
    expect(told(seen('lid', 'match', { coats: 1 }), seen('lid', 'darker'), nose)).toEqual(['lid', 'lid']);
    // Photos alone say no match.
    expect(told(seen('lid', 'match'), { ...seen('lid', 'match', { view: 'shade' }), verdict: null }, nose)).toContain(
      'nose',
    );
  });

  it('of one place and count are one look; the film of “much lighter” is less than that of “lighter”', () => {
    const both = looksOf([], [seen('nose', 'lighter'), seen('nose', 'match', { view: 'shade', at: 2 })], card, eye);
    expect(both).toHaveLength(1);
    const like = (verdict: Verdict) => looksOf([], [seen('nose', verdict, { coats: 3 })], card, eye)[0]!.says.looksLike;
    const films = (['much lighter', 'lighter', 'match', 'darker'] as const).map(like);
    for (let i = 1; i < films.length; i++) expect(films[i]!).toBeGreaterThan(films[i - 1]!);
  });

  it('a patch is the film itself', () => {
    const [look] = looksOf([], [{ ...seen('nose', 'match'), verdict: null, patch: 2 }], card, eye);
    expect(look!.says.sprayed).toBe(2);
    expect(look!.word).toBeUndefined();
  });
});
