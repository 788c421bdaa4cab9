import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createRandom } from '../numeric/random';
import { prepareLibrary } from '../materials/shop';
import { priorFromCards, DEFAULT_PRIOR, knownHandOf, calibrateHand } from './calibrate';
import { countByEye, EYE_VIEWS, faceAgainstFlop, outOfOrder, VERDICTS, verdictChance, type RungVerdict } from './eye';
import { liveAdvice, liveState, wordOfVerdicts } from './live';
import { inventPainter, judgeStudy, runStudy } from './study';
import { FIVE_ANGLES } from '../optics/geometry';
import { ladderLabs } from '../matching/ladder';

// A small part of `npm run study`; docs/study.md has the whole.
describe('simulation study, small', () => {
  it('predicts rungs, finds counts, states honest intervals and does not overspray', () => {
    const f = judgeStudy(runStudy(prepareLibrary(), createRandom(2), 24, 10));
    expect(f.predictedMedian).toBeLessThanOrEqual(0.8);
    expect(f.predicted90).toBeLessThanOrEqual(1.6);
    expect(f.countWithin).toBeGreaterThanOrEqual(0.85);
    expect(f.interval90).toBeGreaterThanOrEqual(0.75);
    expect(f.eyeWithin).toBeGreaterThanOrEqual(0.8);
    expect(f.over).toBeLessThanOrEqual(0.05);
    expect(f.blindOver + f.blindUnder).toBeGreaterThan(0.3);
  }, 120_000);
});

describe('earlier cards', () => {
  it('pull the prior to what they said, and never make it surer than hands are', () => {
    const card = (film: number, sd: number) => ({ mean: { film: Math.log(film) }, sd: { film: sd } });
    const one = priorFromCards([card(1.2, 0.02)]);
    const three = priorFromCards([card(1.2, 0.02), card(1.22, 0.02), card(1.18, 0.02)]);
    expect(priorFromCards([])).toEqual(DEFAULT_PRIOR);
    expect(Math.exp(one.mean.film!)).toBeGreaterThan(1.15);
    expect(Math.exp(one.mean.film!)).toBeLessThan(1.2);
    expect(Math.exp(three.mean.film!)).toBeGreaterThan(Math.exp(one.mean.film!));
    expect(three.sd.film).toBeLessThan(one.sd.film);
    expect(three.sd.film).toBeGreaterThan(0.08);
    expect(three.sd.hueNm).toBe(DEFAULT_PRIOR.sd.hueNm);
  });

  it('help a card with one rung read at one angle', () => {
    const shop = prepareLibrary();
    const model = shop.model(FIVE_ANGLES);
    const random = createRandom(9);
    const errors = { without: 0, withPrior: 0 };
    for (let i = 0; i < 6; i++) {
      const p = inventPainter(shop, random);
      const labs = ladderLabs(model, p.trueGround, { ...p.recipe, hand: p.trueHand }, [1, 2, 3]);
      const full = calibrateHand(
        model,
        p.ground,
        p.recipe,
        [1, 2, 3].map((coats, k) => ({ coats, labs: labs[k]! })),
      );
      const poor = [
        { coats: 1, labs: labs[0]!.map((lab, g) => (g === 3 ? ([lab[0] + 1, lab[1], lab[2]] as const) : null)) },
      ];
      const off = (found: ReturnType<typeof calibrateHand>) => Math.abs(Math.log(found.hand.film / p.trueHand.film));
      errors.without += off(calibrateHand(model, p.ground, p.recipe, poor));
      errors.withPrior += off(
        calibrateHand(model, p.ground, p.recipe, poor, undefined, priorFromCards([knownHandOf(full)])),
      );
    }
    expect(errors.withPrior).toBeLessThan(errors.without);
  });
});

describe('verdicts by eye', () => {
  it('are chances that add to one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        (n, best) => {
          const sum = VERDICTS.reduce((s, v) => s + verdictChance(v, n, best, 0.45), 0);
          expect(sum).toBeCloseTo(1, 6);
        },
      ),
    );
  });

  it('narrow the count with every view, and less when the card was held in the hand', () => {
    const say = (coats: number, verdict: RungVerdict['verdict'], views = 1): RungVerdict[] =>
      EYE_VIEWS.slice(0, views).map((view) => ({ coats, view, verdict }));
    const once = countByEye([...say(2, 'lighter'), ...say(3, 'match'), ...say(4, 'darker')]);
    const thrice = countByEye([...say(2, 'lighter', 3), ...say(3, 'match', 3), ...say(4, 'darker', 3)]);
    expect(thrice.best).toBeCloseTo(3, 0);
    expect(thrice.sd).toBeLessThan(once.sd);
    expect(once.interval[0]).toBeLessThan(3);
    expect(once.interval[1]).toBeGreaterThan(3);
    expect(countByEye(say(3, 'match', 3), { handHeld: true }).sd).toBeGreaterThan(countByEye(say(3, 'match', 3)).sd);
    const believed = countByEye(say(3, 'match'), { prior: { mean: 2.4, sd: 0.1 } });
    expect(believed.best).toBeLessThan(2.6);
    expect(once.contradicts).toBe(false);
  });

  it('from one rung never narrow the count much, however many lights it was seen in', () => {
    for (const verdict of VERDICTS) {
      const four = countByEye(EYE_VIEWS.map((view) => ({ coats: 4, view, verdict })));
      const one = countByEye([{ coats: 4, view: 'shade', verdict }]);
      expect(four.interval[1] - four.interval[0]).toBeGreaterThan(1.2);
      expect(four.sd).toBeGreaterThan(0.6 * one.sd);
    }
    // Three rungs in one light say more than one rung in four.
    const three = countByEye([
      { coats: 1, view: 'shade', verdict: 'much lighter' },
      { coats: 2, view: 'shade', verdict: 'lighter' },
      { coats: 3, view: 'shade', verdict: 'match' },
    ]);
    expect(three.sd).toBeLessThan(countByEye(EYE_VIEWS.map((view) => ({ coats: 2, view, verdict: 'lighter' }))).sd);
  });

  it('that disagree between face and flop are named, not averaged', () => {
    const at = (face: RungVerdict['verdict'], flop: RungVerdict['verdict']): RungVerdict[] => [
      { coats: 2, view: 'sun face', verdict: face },
      { coats: 2, view: 'sun flop', verdict: flop },
    ];
    expect(faceAgainstFlop(at('darker', 'lighter'))).toEqual([{ coats: 2, face: 'darker', flop: 'lighter' }]);
    expect(faceAgainstFlop(at('darker', 'match'))).toEqual([]);
    expect(wordOfVerdicts(['darker', 'lighter'])).toBe('unlike');
    expect(wordOfVerdicts(['match', 'match', 'match', 'lighter'])).toBe('matched');
    expect(wordOfVerdicts(['match', 'match', 'darker'])).toBe('over');
    expect(wordOfVerdicts(['lighter', 'match'])).toBe('short');
  });

  it('says contradiction, does not average it away', () => {
    const verdicts: RungVerdict[] = [
      { coats: 1, view: 'shade', verdict: 'match' },
      { coats: 5, view: 'lamp', verdict: 'match' },
    ];
    expect(countByEye(verdicts).contradicts).toBe(true);
    expect(countByEye([{ ...verdicts[0]!, coats: 4.5 }, verdicts[1]!]).contradicts).toBe(false);
    const swapped: RungVerdict[] = [
      { coats: 2, view: 'shade', verdict: 'darker' },
      { coats: 3, view: 'shade', verdict: 'lighter' },
    ];
    expect(outOfOrder(swapped)).toEqual([{ view: 'shade', fewer: 2, more: 3 }]);
    expect(countByEye(swapped).contradicts).toBe(true);
  });
});

describe('on the job', () => {
  it('leaves less to spray where more already lies, and nothing beyond the window', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.5, max: 4, noNaN: true }),
        fc.double({ min: 0.7, max: 1.4, noNaN: true }),
        (best, look) => {
          const window = [best * 0.85, best * 1.15] as const;
          const sprayed = Math.max(0.5, Math.round(best * 1.4) / 2);
          const at = (looksLike: number) =>
            liveState(best, window, sprayed, [{ spot: 'a', sprayed, looksLike, sd: 0.05 }]);
          const [spot] = at(sprayed * look).spots;
          expect(at(sprayed * look * 1.1).spots[0]!.spray).toBeLessThanOrEqual(spot!.spray);
          // A look is taken as it is, never pulled to what the session is believed to lay.
          expect(spot!.film).toBeCloseTo(sprayed * look, 9);
          // Never beyond the best count, and nothing where it matches or is over.
          expect(spot!.film + spot!.spray * at(sprayed * look).session).toBeLessThanOrEqual(
            Math.max(best, spot!.film) + 1e-9,
          );
          if (sprayed * look >= window[0]) expect(spot!.spray).toBe(0);
          expect(at(sprayed * look).sessionSd).toBeLessThan(0.15);
        },
      ),
    );
    expect(liveState(3, [2.6, 3.4], 2.5, [{ spot: 'a', sprayed: 2.5, looksLike: 3, sd: 0.05 }]).spots[0]).toMatchObject(
      {
        zone: 'matched',
        spray: 0,
      },
    );
    const look = (spot: string, looksLike: number) => ({ spot, sprayed: 2, looksLike, sd: 0.03 });
    const zones = liveState(3, [2.6, 3.3], 2, [
      look('left', 1.6),
      look('mid', 2),
      look('top', 2),
      look('nose', 2.05),
      look('right', 3.6),
    ]).spots;
    expect(zones.map((z) => z.zone)).toEqual(['short', 'short', 'short', 'short', 'over']);
    expect(zones[0]!.left).toBeGreaterThan(zones[1]!.left);
    expect(zones.at(-1)!.spray).toBe(0);
    // Coats went on since: what matched is looked at again before anything else, what was over stays over.
    const since = liveState(3, [2.6, 3.3], 2.5, [look('match', 2.8), look('high', 3.6), look('low', 1.5)]);
    expect(since.spots.map((s) => s.zone)).toEqual(['again', 'over', 'short']);
    expect(liveAdvice(since)).toMatchObject({ kind: 'over' });
    expect(liveAdvice(since).on.map((s) => s.spot)).toEqual(['low']);
  });
});
