import { describe, it, expect } from '@jest/globals';
import { type SeenSpot, looksOf } from '@steady-gleam/core/jobs';
import { liveState, EYE_VIEWS, VERDICTS, liveAdvice } from '@steady-gleam/core/letdown';
import fc from 'fast-check';
import { sayLive, saySpot, advisedAmount, whatFollows, layable } from '../spray/sprayModel';
import { testCard, testRead } from './testCard';
import { target } from './testSets';

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
    at: Math.round(coats) * 60000,
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
      { numRuns: 10000 },
    );
  });
});
