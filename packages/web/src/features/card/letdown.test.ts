import { describe, expect, it } from '@jest/globals';
import type { ReadingSet, VerdictEvent } from '@steady-gleam/contracts';
import { evidenceOf, type SeenSpot } from '@steady-gleam/core/jobs';
import {
  EYE_VIEWS,
  liveAdvice,
  liveState,
  VERDICTS,
  type Assessment,
  type RungVerdict,
} from '@steady-gleam/core/letdown';
import fc from 'fast-check';
import { nearestRung, outlyingSpots, rankChips, sayTriangle } from '../target/chipsModel';
import { sayLive, saySpot, whatFollows } from '../spray/sprayModel';
import { bracketRungs } from './CardPlanForm';
import { cardCoats } from './CardCoats';
import { adviseByEye, rungVerdicts, sayEye, sayOutOfOrder, sayPlans } from './eyeModel';

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
    mixId: 'lagoon-pearl',
    status: 'open' as const,
    pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet' as const, controlCoats: 0 },
    stacks: null,
  };

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
    const alone = adviseByEye(three, null, false)!;
    expect(alone.posterior.best).toBeCloseTo(3, 0);
    expect(sayEye(alone).answer).toMatch(/^By eye, (2\.9|3\.[01]) coats\. Spray 2(½)?, then look\.$/);
    const assessment = { best: 2.4, bestSd: 0.15, aim: { counts: [2.2, 2.7], inside: true } } as unknown as Assessment;
    const joined = adviseByEye(three, assessment, false)!;
    expect(joined.posterior.best).toBeGreaterThan(2.4);
    expect(joined.posterior.best).toBeLessThan(alone.posterior.best);
    expect(joined.window[1] - joined.window[0]).toBeCloseTo(0.5, 9);
    expect(adviseByEye([], assessment, false)).toBeNull();
  });

  it('says what is the wrong way round, and drops what was taken back', () => {
    expect(sayOutOfOrder([verdict(2, 'darker'), verdict(3, 'lighter')])).toContain(
      'In shade 3 coats looked lighter than 2 coats',
    );
    const event = (v: VerdictEvent['verdict']): VerdictEvent => ({
      id: 'x',
      coats: 2,
      view: 'shade',
      verdict: v,
      takenAt: '2026-11-20T09:00:00.000Z',
    });
    expect(rungVerdicts([event(null), event('match')])).toHaveLength(1);
  });

  it('offers the safest and the fastest plan', () => {
    const chance = (coats: number, inside: number, over: number) => ({ coats, under: 1 - inside - over, inside, over });
    expect(
      sayPlans({ spray: 2, left: 0.5, chances: [chance(2, 0.1, 0), chance(2.5, 0.7, 0.1), chance(3, 0.2, 0.8)] }),
    ).toBe('Safest: 2, then look; 0 % end over. In one go: 2½; 70 % end inside, 10 % over.');
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
    at: Math.round(coats) * 60_000,
  });
  const state = (sprayed: number, events: readonly SeenSpot[]) =>
    liveState(3, [2.6, 3.4], sprayed, evidenceOf([], events, null, [], 3));

  const four = (coats: number, v: SeenSpot['verdict'], spot = 'all over') =>
    EYE_VIEWS.map((view) => ({ ...look(coats, v, spot), view }));
  const said = (sprayed: number, events: readonly SeenSpot[]) => sayLive(state(sprayed, events), sprayed, 2, 3);

  it('goes on while it is lighter, stops where it matches, and does not promise what paint can’t do', () => {
    expect(said(2, [look(2, 'much lighter')]).answer).toBe('Half a coat more, then look.');
    // A match in four lights, all over, with a coat less than the card said: it is there.
    expect(said(2, four(2, 'match')).answer).toBe('Stop. It is there.');
    expect(saySpot(state(2, four(2, 'match')).spots[0]!)).toContain('matches: like 3.0 coats; leave it');
    // Darker in all lights is over, not “leave it”.
    expect(said(2, four(2, 'darker')).answer).toBe('Stop. It is over the window.');
    const over = state(5, [look(5, 'much darker')]);
    expect(sayLive(over, 5, 2, 3).answer).toBe('Stop. It is over the window.');
    expect(saySpot(over.spots[0]!)).toContain('Nothing sprayed on takes that back');
    expect(said(0, []).answer).toBe('Spray 2, then look.');
    expect(said(1, []).answer).toBe('Spray 1 more, then look.');
    expect(said(2, []).answer).toBe('Look before the next coat.');
    // One place far too dark comes first, and the others go on without it.
    const mixed = [look(2, 'much lighter', 'left'), look(2, 'much lighter', 'top'), look(2, 'much darker', 'tail')];
    expect(said(2, mixed).answer).toBe('Tail is over: stop there. A faded half coat on left and top only, then look.');
    expect(said(2, [look(2, 'match', 'nose'), look(2, 'much lighter', 'left')]).answer).toBe(
      'A faded half coat on left only, then look.',
    );
    expect(said(3, [look(2, 'match')]).answer).toBe('Look at nose again before the next coat.');
    const patch = { ...look(2, null), patch: 1.5 };
    expect(state(2, [patch]).spots[0]!.film).toBeLessThan(1.8);
  });

  it('comes to another coat, a half or enough, and to none before it is looked at', () => {
    const after = (sprayed: number, seen: readonly SeenSpot[]) => whatFollows(state(sprayed, seen), sprayed, 2);
    expect([after(1, []), after(1.5, []), after(2, [])]).toEqual(['one', 'half', null]);
    expect(after(2, [look(2, 'much lighter')])).toBe('half');
    expect(after(2, four(2, 'match'))).toBe('enough');
    expect(after(2, four(2, 'darker'))).toBe('enough');
    expect(after(3, [look(2, 'match')])).toBeNull();
    expect(whatFollows(null, 2, null)).toBe('one');
  });

  it('a reading equal to the answer asks for nothing more', () => {
    const ladder = {
      counts: [0, 1, 2, 3, 4],
      labs: [0, 1, 2, 3, 4].map((n) => target.map(() => [60 - 4 * n, 20, 10])),
    };
    const reading = {
      spot: 'nose',
      coats: 2.5,
      at: 0,
      readings: target.map((t) => ({ spot: '1', incidence: 45, aspecular: t.aspecular, l: 60 - 4 * 3, a: 20, b: 10 })),
    };
    const live = liveState(3, [2.6, 3.4], 2.5, evidenceOf([reading], [], ladder as unknown as Assessment, target, 3));
    expect(sayLive(live, 2.5, 2, 3).answer).toBe('Stop. It is there.');
    expect(live.spots[0]!.spray).toBe(0);
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
          const window = [best * 0.88, best * 1.12] as const;
          const live = liveState(best, window, sprayed, evidenceOf([], events, null, [], best));
          const advice = liveAdvice(live);
          const { answer } = sayLive(live, sprayed, 1, best);
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
              if (/^(Half a coat|A mist coat) more/.test(answer)) faults.push(answer);
              if (/faded/.test(answer) && /on (.*) only/.exec(answer)![1]!.includes(s.spot)) faults.push(answer);
            }
            if (advice.on.includes(s) && s.film + advice.amount * live.session > best + 1e-9)
              faults.push(`${s.spot} would go beyond the best count`);
          }
          expect(faults).toEqual([]);
        },
      ),
      { numRuns: 10_000 },
    );
  });
});
