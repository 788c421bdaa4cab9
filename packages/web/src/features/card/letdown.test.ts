import { describe, expect, it } from '@jest/globals';
import type { ReadingSet, VerdictEvent } from '@steady-gleam/contracts';
import { looksOf, type SeenSpot } from '@steady-gleam/core/jobs';
import {
  adviseFirst,
  cardByEye,
  countByEye,
  EYE_VIEWS,
  liveAdvice,
  liveState,
  VERDICTS,
  withEye,
  type RungVerdict,
} from '@steady-gleam/core/letdown';
import fc from 'fast-check';
import { nearestRung, outlyingSpots, rankChips, sayTriangle } from '../target/chipsModel';
import { advisedAmount, layable, sayLive, saySpot, whatFollows } from '../spray/sprayModel';
import { bracketRungs } from './CardPlanForm';
import { cardCoats } from './CardCoats';
import { rungVerdicts, sayDisagree, sayEye, sayOutOfOrder, sayPlans } from './eyeModel';
import { testCard, testRead } from './testCard';

const target = [15, 45].map((aspecular) => ({ incidence: 45, aspecular, lab: [50, 20, 10] as const, tolerance: 1.4 }));
const set = (label: string, shift: number, more: Partial<ReadingSet> = {}): ReadingSet => ({
  id: label,
  kind: 'chip',
  rungCoats: null,
  label,
  objectId: null,
  state: 'cleared',
  doubt: null,
  source: 'typed',
  takenAt: '2026-11-20T09:00:00.000Z',
  readings: target.map((t) => ({ spot: '1', incidence: 45, aspecular: t.aspecular, l: 50 + shift, a: 20, b: 10 })),
  ...more,
});
const verdict = (coats: number, v: RungVerdict['verdict'], view: RungVerdict['view'] = 'shade'): RungVerdict => ({
  coats,
  view,
  verdict: v,
});

describe('the card’s count', () => {
  const layer = (materialId: string, coats: number) => ({
    id: `${materialId}-${coats}`,
    kind: 'effect' as const,
    materialId,
    coats,
    style: 'wet' as const,
    strength: 1,
    filmUm: 9,
  });
  const job = {
    family: 'pearl' as const,
    mixId: 'lagoon-pearl',
    status: 'open' as const,
    pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet' as const, controlCoats: 0 },
    stacks: null,
  };

  it('counts the control coats of a colour-shift, and plans them in their own layer', () => {
    const shift = { ...job, family: 'colour-shift' as const, mixId: 'moon-face-shift' };
    const pick = { ...job.pick, groundId: 'black', style: 'medium' as const, coats: 1, controlCoats: 2 };
    expect(cardCoats({ ...shift, pick }, 3)).toBeNull();
    expect(cardCoats({ ...shift, pick }, 2.1)).toMatchObject({
      ...{ planned: 3, lay: 2 },
      change: { pick: { coats: 1, controlCoats: 1 }, stacks: null },
    });
    const of = (id: string, style: 'medium' | 'control', coats: number) => ({
      ...layer('moon-face-shift', coats),
      ...{ id, style },
    });
    const ground = { ...layer('black', 2), id: 'ground', kind: 'ground' as const };
    const stacks = [{ id: 'main', name: 'it', layers: [ground, of('a', 'medium', 1), of('b', 'control', 2)] }];
    const found = cardCoats({ ...shift, pick, stacks }, 2);
    expect(found!.change.stacks![0]!.layers.map((l) => [l.style, l.coats])).toEqual([
      ['wet', 2],
      ['medium', 1],
      ['control', 1],
    ]);
  });

  it('is planned to the nearest half coat, in the pick and in the layer it stands for', () => {
    expect(cardCoats(job, 2.6)).toMatchObject({
      planned: 3,
      lay: 2.5,
      change: { pick: { coats: 2.5 }, stacks: null },
    });
    expect(cardCoats(job, 2.8)).toBeNull();
    expect(cardCoats(job, 0.1)!.lay).toBe(0.5);
    const stacks = [{ id: 'main', name: 'whole piece', layers: [layer('white', 2), layer('lagoon-pearl', 4)] }];
    const found = cardCoats({ ...job, stacks }, 2.6)!;
    expect(found.planned).toBe(4);
    expect(found.change.stacks![0]!.layers.map((l) => l.coats)).toEqual([2, 2.5]);
  });

  it('is left to the painter where it is not plain what it stands for', () => {
    const twice = [{ id: 'main', name: 'x', layers: [layer('lagoon-pearl', 2), layer('lagoon-pearl', 4)] }];
    expect(cardCoats({ ...job, stacks: twice }, 2.6)).toBeNull();
    expect(cardCoats({ ...job, status: 'finished' }, 2.6)).toBeNull();
    expect(cardCoats({ ...job, pick: null }, 2.6)).toBeNull();
  });
});

describe('chips', () => {
  it('rank by distance from the object, and say how far chips can be trusted', () => {
    const ranked = rankChips([set('far', 6), set('near', 1), set('mid', -3)], target);
    expect(ranked.map((c) => c.label)).toEqual(['near', 'mid', 'far']);
    const card = target.map((t) => ({
      incidence: 45,
      aspecular: t.aspecular,
      lab: [50.2, 20, 10] as const,
      spots: 1,
      spread: 0,
    }));
    expect(sayTriangle(ranked[0]!, card, target, 2)).toContain('trust the card');
    expect(sayTriangle(ranked[0]!, [], target, 2)).toBeNull();
    // The rung nearest to the object stands for the card, not the last one entered.
    const rung = (coats: number, shift: number) => set('', shift, { kind: 'rung', rungCoats: coats });
    expect(nearestRung([rung(2, 0.4), rung(3, -2), rung(4, -6)], target)?.rungCoats).toBe(2);
    expect(nearestRung([], target)).toBeNull();
  });

  it('name a spot that stands apart, and none where all agree', () => {
    const spots = (values: readonly number[]) =>
      set('t', 0, {
        readings: values.map((l, i) => ({ spot: String(i + 1), incidence: 45, aspecular: 45, l, a: 20, b: 10 })),
      });
    expect(outlyingSpots(spots([50, 50.2, 49.9, 56])).map((s) => s.spot)).toEqual(['4']);
    expect(outlyingSpots(spots([50, 50.2, 49.9, 50.1]))).toEqual([]);
    expect(outlyingSpots(spots([50, 58]))).toEqual([]);
  });
});

describe('by eye', () => {
  const three = [verdict(2, 'lighter'), verdict(3, 'match'), verdict(4, 'darker'), verdict(3, 'match', 'lamp')];

  it('counts from verdicts alone, or pulls what the card says', () => {
    const alone = countByEye(three, testRead);
    expect(alone.best).toBeCloseTo(3, 0);
    const card = cardByEye(alone, testRead.ladders[0]!.ladder, target);
    expect(sayEye(alone, adviseFirst(card), card).answer).toMatch(
      /^By eye, (2\.9|3\.[01]) coats\. Spray 2(½|¼|¾)?, then look\.$/,
    );
    const joined = countByEye(three, testRead, { mean: 2.4, sd: 0.15 });
    // Read as well, it is no answer of the eye alone, and its two intervals stand apart.
    const fit = { data: 75, chi: 1, lambda: 1, swapped: [], doubtful: [], film: { mean: 0, sd: 0.1 }, variations: [] };
    const both = sayEye(joined, adviseFirst(card), { ...card, fit });
    expect(both.answer).toMatch(/^Read and by eye, your card says 2\.\d\. Spray/);
    expect(both.why).toMatch(/^The card says .* on the piece plan for/);
    expect(joined.best).toBeGreaterThan(2.4);
    expect(joined.best).toBeLessThan(alone.best);
    const moved = withEye(testCard(2.4, 0.25), joined);
    expect(moved.window.counts[1] - moved.window.counts[0]).toBeCloseTo(0.5, 9);
    expect(moved.window.counts[0]).toBeCloseTo(joined.best - 0.25, 9);
  });

  it('says what is the wrong way round, and drops what was taken back', () => {
    const wrong = [verdict(1, 'lighter'), verdict(2, 'darker'), verdict(3, 'lighter')];
    expect(sayOutOfOrder(wrong)).toContain('In shade 3 coats looked lighter than 2 coats');
    // From a place where coats brighten, all rungs going that way is no mistake.
    expect(sayOutOfOrder([verdict(1, 'darker'), verdict(2, 'match'), verdict(3, 'lighter')])).toBeNull();
    const against = [verdict(2, 'lighter', 'sun face'), verdict(2, 'darker', 'sun flop')];
    expect(sayDisagree(null, against)).toContain('no count mends both');
    const event = (v: VerdictEvent['verdict']): VerdictEvent => ({
      id: 'x',
      coats: 2,
      view: 'shade',
      verdict: v,
      hue: null,
      takenAt: '2026-11-20T09:00:00.000Z',
    });
    expect(rungVerdicts([event(null), event('match')])).toHaveLength(1);
  });

  it('offers the safest and the fastest plan', () => {
    const said = sayPlans(testCard(2.5));
    expect(said).toMatch(
      /^Safest: (1½|2|2¼), then look; [01] % end over\. In one go: 2½; \d\d % end inside, \d+ % over\.$/,
    );
  });

  it('brackets a count with rungs on both sides', () => {
    for (const best of [0.6, 1.1, 2.4, 2.8, 3.6, 5.2]) {
      const rungs = bracketRungs(best);
      expect(rungs[0]!).toBeLessThanOrEqual(best);
      expect(rungs.at(-1)!).toBeGreaterThan(best);
      expect([...rungs].sort((a, b) => a - b)).toEqual(rungs);
    }
  });
});

describe('on the job', () => {
  const look = (coats: number, v: SeenSpot['verdict'], spot = 'nose'): SeenSpot => ({
    coats,
    spot,
    view: 'shade',
    verdict: v,
    patch: null,
    against: null,
    photos: [],
    areaIds: [],
    at: Math.round(coats) * 60_000,
  });
  const three = testCard(3);
  const state = (sprayed: number, events: readonly SeenSpot[]) =>
    liveState(three, sprayed, looksOf([], events, three, testRead));

  const four = (coats: number, v: SeenSpot['verdict'], spot = 'all over') =>
    EYE_VIEWS.map((view) => ({ ...look(coats, v, spot), view }));
  const said = (sprayed: number, events: readonly SeenSpot[]) => sayLive(state(sprayed, events), sprayed, 2, three);

  it('goes on while it is lighter, stops where it matches, and does not promise what paint can’t do', () => {
    expect(said(2, [look(2, 'much lighter')]).answer).toBe('A coat more, then look.');
    // A match in four lights, all over, with a coat less than the card said: it is there.
    expect(said(2, four(2, 'match')).answer).toBe('Stop. It is there.');
    expect(saySpot(state(2, four(2, 'match')).spots[0]!)).toContain('matches: like 3.0 coats; leave it');
    // Darker in all lights is over, not “leave it”.
    expect(said(2, four(2, 'darker')).answer).toBe('Stop. It is over the window.');
    const over = state(5, [look(5, 'much darker')]);
    expect(sayLive(over, 5, 2, three).answer).toBe('Stop. It is over the window.');
    expect(saySpot(over.spots[0]!)).toContain('Nothing sprayed on takes that back');
    expect(said(0, []).answer).toBe('Spray 2, then look.');
    expect(said(1, []).answer).toBe('Spray 1 more, then look.');
    expect(said(2, []).answer).toBe('Look before the next coat.');
    // One place far too dark comes first, and the others go on without it.
    const mixed = [look(2, 'much lighter', 'left'), look(2, 'much lighter', 'top'), look(2, 'much darker', 'tail')];
    expect(said(2, mixed).answer).toBe('Tail is over: stop there. A faded coat on left and top only, then look.');
    expect(said(2, [look(2, 'match', 'nose'), look(2, 'much lighter', 'left')]).answer).toBe(
      'A faded coat on left only, then look.',
    );
    expect(said(3, [look(2, 'match')]).answer).toBe('Look at nose again before the next coat.');
    const patch = { ...look(2, null), patch: 1.5 };
    expect(state(2, [patch]).spots[0]!.film).toBeLessThan(1.8);
  });

  it('comes to another coat, less or enough, never to more than it says, and to none before it is looked at', () => {
    const amount = (sprayed: number, seen: readonly SeenSpot[], first = 2) =>
      advisedAmount(state(sprayed, seen), sprayed, first);
    const after = (sprayed: number, seen: readonly SeenSpot[], first = 2) => whatFollows(amount(sprayed, seen, first));
    expect([after(1, []), after(1.5, []), after(2, [])]).toEqual(['one', 'less', null]);
    // Three quarters are left to the first stop: a full coat would go beyond it.
    expect([after(2, [], 2.75), amount(2, [], 2.75)]).toEqual(['less', 0.75]);
    expect(layable(0.75).coats).toBe(0.75);
    expect(after(2, [look(2, 'lighter')])).toBe('less');
    expect(after(2, four(2, 'match'))).toBe('enough');
    expect(after(2, four(2, 'darker'))).toBe('enough');
    expect(after(3, [look(2, 'match')])).toBeNull();
    expect(whatFollows(advisedAmount(null, 2, null))).toBe('one');
  });

  it('a reading equal to the answer asks for nothing more, one short of it for what is missing', () => {
    const reading = (like: number) => ({
      spot: 'nose',
      coats: 2.5,
      wet: false,
      at: 0,
      readings: ['1', '2', '3'].flatMap((spot) =>
        target.map((t) => ({ spot, incidence: 45, aspecular: t.aspecular, l: 80 - 4 * like, a: 20, b: 10 })),
      ),
    });
    const at = (like: number) => liveState(three, 2.5, looksOf([reading(like)], [], three, testRead));
    expect(sayLive(at(3), 2.5, 2, three).answer).toBe('Stop. It is there.');
    expect(at(3).spots[0]!.spray).toBe(0);
    expect(at(2).spots[0]!.spray).toBeGreaterThanOrEqual(0.5);
    expect(at(2).spots[0]!.spray).toBeLessThanOrEqual(1);
    expect(sayLive(at(3.8), 2.5, 2, three).answer).toBe('Stop. It is over the window.');
  });

  it('a tenth is laid as a quarter coat of the mix let down 1:1', () => {
    expect(layable(0.1)).toEqual({ said: 'a quarter coat of the mix let down 1:1', coats: 0.125, letDown: 0.25 });
    expect(layable(0.5)).toEqual({ said: 'half a coat', coats: 0.5, letDown: null });
    // What is laid is never more than was asked for by more than a twentieth.
    for (let q = 1; q <= 25; q++) expect(layable(q / 10).coats).toBeLessThanOrEqual(q / 10 + 0.051);
  });

  // The law: no sentence advises a coat on a place that its own line calls matched, over or unlike.
  it('never advises a coat on a spot that matched or is over, in ten thousand logs', () => {
    const spots = ['all over', 'nose', 'left'];
    const one = fc.record({
      spot: fc.constantFrom(...spots),
      coats: fc.constantFrom(1, 1.5, 2, 2.5, 3, 4),
      view: fc.constantFrom(...EYE_VIEWS),
      verdict: fc.constantFrom(...VERDICTS),
    });
    fc.assert(
      fc.property(
        fc.array(one, { minLength: 1, maxLength: 7 }),
        fc.double({ min: 0.6, max: 5, noNaN: true }),
        fc.constantFrom(0, 0.5, 1),
        (log, best, since) => {
          // As they are in force: the newest of a spot, count and view.
          const events = [
            ...new Map(
              log.map((e, i) => [
                `${e.spot}/${e.coats}/${e.view}`,
                {
                  ...look(e.coats, e.verdict, e.spot),
                  view: e.view,
                  at: i * 1000,
                },
              ]),
            ).values(),
          ];
          const sprayed = Math.max(...events.map((e) => e.coats)) + since;
          const card = testCard(best, best * 0.12);
          const live = liveState(card, sprayed, looksOf([], events, card, testRead));
          const advice = liveAdvice(live);
          const { answer } = sayLive(live, sprayed, 1, card);
          const faults: string[] = [];
          for (const s of live.spots) {
            const newest = events.filter((e) => e.spot === s.spot).sort((x, y) => x.at - y.at);
            const now = newest.filter((e) => e.coats === newest.at(-1)!.coats).map((e) => e.verdict);
            const forbidden = now.some((v) => v === 'darker' || v === 'much darker') || now.every((v) => v === 'match');
            if (forbidden || s.zone !== 'short') {
              if (s.spray !== 0) faults.push(`${s.spot} may still get ${s.spray}`);
              if (advice.on.includes(s)) faults.push(`a coat is advised on ${s.spot}`);
              if (/more/.test(saySpot(s))) faults.push(saySpot(s));
              // A coat all over would land there too.
              if (/ more, then look/.test(answer) && live.spots.length) faults.push(answer);
              if (/faded/.test(answer) && /on (.*) only/.exec(answer)![1]!.includes(s.spot)) faults.push(answer);
            }
            // Nor is one advised that is likelier than the rule allows to go over.
            if (advice.on.includes(s) && s.chances!.over > 0.06 + 1e-9) faults.push(`${s.spot} may go over`);
          }
          expect(faults).toEqual([]);
        },
      ),
      { numRuns: 10_000 },
    );
  });
});
