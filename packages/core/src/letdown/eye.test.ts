import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { prepareLibrary } from '../materials/shop';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { D65_10 } from '../colour/tristimulus';
import { STYLES } from '../finishes/styles';
import { FIVE_ANGLES } from '../optics/geometry';
import { nominalTable } from './advise';
import { cardByEye, ladderOfAnyHand, withEye } from './byEye';
import { countByEye, faceAgainstFlop, filmByEye, outOfOrder, unknownLadders } from './eye';
import type { EyeRead } from './eyeSight';
import { brighterFrom } from './eyeSight';
import { EYE_VIEWS, VERDICTS, type RungVerdict, type Verdict } from './eyeWords';
import { liveAdvice, liveState, sayEyeLook, sayPatch, wordOfVerdicts, type SpotLook } from './live';
import type { LookSays } from './looks';

const shop = prepareLibrary();
const readOf = (groundId: string, mixId: string): EyeRead => ({
  ladders: ladderOfAnyHand(
    nominalTable({
      model: shop.model(FIVE_ANGLES),
      ground: shop.ground(findGround(groundId)),
      recipe: { coat: shop.coat(findMix(mixId), 1), style: STYLES.wet },
      viewing: D65_10,
    }),
  ),
  aspecular: FIVE_ANGLES.map((g) => g.aspecular),
});
const candy = readOf('silver-fine', 'cinder-candy');
const say = (coats: number, verdict: Verdict, views = 1): RungVerdict[] =>
  EYE_VIEWS.slice(0, views).map((view) => ({ coats, view, verdict }));
const width = ({ interval }: { interval: readonly [number, number] }) => interval[1] - interval[0];

describe('verdicts by eye', () => {
  it('are differences read through the ladder: the count is where they turn, and further rungs narrow it', () => {
    const once = countByEye([...say(2, 'lighter'), ...say(3, 'match'), ...say(4, 'darker')], candy);
    expect(once.best).toBeCloseTo(3, 0);
    expect(once.contradicts).toBe(false);
    const chance = once.chance.reduce((s, v) => s + v, 0);
    expect(chance).toBeCloseTo(1, 9);
    const two = countByEye([...say(2, 'lighter'), ...say(4, 'darker')], candy);
    expect(once.sd).toBeLessThan(two.sd);
    const held = countByEye(say(3, 'match', 3), { ...candy, handHeld: true });
    expect(held.sd).toBeGreaterThan(countByEye(say(3, 'match', 3), candy).sd);
    const believed = countByEye(say(3, 'match'), candy, { mean: 2.4, sd: 0.1 });
    expect(believed.best).toBeLessThan(2.65);
  });

  it('go the other way where coats brighten: a pearl over black looked at from the face', () => {
    const pearl = readOf('black', 'moonmilk-pearl');
    expect(brighterFrom(pearl, 'sun face', 2)).toBe(true);
    expect(brighterFrom(candy, 'sun face', 2)).toBe(false);
    const said = countByEye(
      [
        { coats: 1, view: 'sun face', verdict: 'darker' },
        { coats: 2, view: 'sun face', verdict: 'match' },
        { coats: 3, view: 'sun face', verdict: 'lighter' },
      ],
      pearl,
    );
    expect(said.best).toBeGreaterThan(1.5);
    expect(said.best).toBeLessThan(2.5);
    expect(said.disagree).toEqual([]);
  });

  it('from one rung never narrow the count much, however many lights it was seen in', () => {
    const read = { ...candy, ladders: unknownLadders(5) };
    for (const verdict of VERDICTS) {
      const four = countByEye(say(4, verdict, 4), read);
      expect(width(four)).toBeGreaterThan(1);
      expect(four.sd).toBeGreaterThan(0.6 * countByEye(say(4, verdict), read).sd);
    }
  });

  it('count with hue words: a rung too red over silver has too many coats of a red candy', () => {
    const plain = say(3, 'match');
    const redder = plain.map((v) => ({ ...v, hue: 'redder' as const }));
    const greener = plain.map((v) => ({ ...v, hue: 'greener' as const }));
    expect(countByEye(redder, candy).best).not.toBeCloseTo(countByEye(greener, candy).best, 2);
  });

  it('of a sharper eye say less with the same word: its “a little lighter” is nearer to the match', () => {
    const short = (cuts: { little: number; clear: number }) =>
      countByEye(say(2, 'lighter', 3), { ...candy, cuts }, { mean: 3, sd: 1 }).best - 2;
    expect(short({ little: 0.6, clear: 2 })).toBeLessThan(short({ little: 2.5, clear: 6 }));
  });

  it('that disagree between face and flop are named, not averaged', () => {
    const at = (face: Verdict, flop: Verdict): RungVerdict[] => [
      { coats: 2, view: 'sun face', verdict: face },
      { coats: 2, view: 'sun flop', verdict: flop },
    ];
    expect(faceAgainstFlop(at('darker', 'lighter'))).toEqual([{ coats: 2, face: 'darker', flop: 'lighter' }]);
    expect(faceAgainstFlop(at('darker', 'match'))).toEqual([]);
    // The fewest coats first, in whatever order they were looked at.
    const later = at('lighter', 'darker').map((v) => ({ ...v, coats: 4 }));
    const first = at('much darker', 'lighter').map((v) => ({ ...v, coats: 1 }));
    expect(faceAgainstFlop([...later, ...first, ...at('match', 'match')]).map((d) => d.coats)).toEqual([1, 4]);
    const found = countByEye(at('much darker', 'much lighter'), candy);
    expect(found.disagree).toEqual([{ coats: 2, views: ['sun face', 'sun flop'] }]);
    expect(found.contradicts).toBe(true);
    expect(countByEye(at('match', 'match'), candy).disagree).toEqual([]);
  });

  it('say contradiction, and do not average it away', () => {
    const far: RungVerdict[] = [
      { coats: 1, view: 'shade', verdict: 'match' },
      { coats: 5, view: 'shade', verdict: 'match' },
    ];
    expect(countByEye(far, candy).contradicts).toBe(true);
    expect(countByEye([{ ...far[0]!, coats: 4.8 }, far[1]!], candy).contradicts).toBe(false);
    const turned: RungVerdict[] = [
      { coats: 1, view: 'shade', verdict: 'lighter' },
      { coats: 2, view: 'shade', verdict: 'darker' },
      { coats: 3, view: 'shade', verdict: 'lighter' },
    ];
    expect(outOfOrder(turned)).toEqual([{ view: 'shade', fewer: 2, more: 3 }]);
    expect(countByEye(turned, candy).contradicts).toBe(true);
  });

  it('on the job say how much what is on looks like', () => {
    const best = 3;
    const films = (['much lighter', 'lighter', 'match', 'darker'] as const).map((v) =>
      filmByEye(say(2, v, 3), { ...candy, ladders: candy.ladders.slice(0, 1) }, best, 2.4),
    );
    for (let i = 1; i < films.length; i++) expect(films[i]!.mean).toBeGreaterThan(films[i - 1]!.mean);
    expect(films[2]!.mean).toBeCloseTo(best, 0);
    expect(films[0]!.sd).toBeGreaterThan(films[2]!.sd);
  });
});

const card = cardByEye(
  countByEye([...say(2, 'lighter'), ...say(3, 'match'), ...say(4, 'darker')], candy),
  candy.ladders[0]!.ladder,
  FIVE_ANGLES,
);
const [lo, hi] = card.window.counts;
const reading = (spot: string, sprayed: number, looksLike: number): SpotLook => ({
  spot,
  says: {
    sprayed,
    looksLike,
    film: card.best - looksLike,
    targetVariance: 0.001,
    lookVariance: 0.002,
    window: [lo - card.best, hi - card.best],
    inside: true,
    closes: true,
    wet: false,
    tells: 1,
  } satisfies LookSays,
});

describe('on the job', () => {
  it('words of several places: over from any side is over, unless it is short from another', () => {
    expect(wordOfVerdicts(['darker', 'lighter'])).toBe('unlike');
    expect(wordOfVerdicts(['match', 'match', 'match', 'lighter'])).toBe('matched');
    expect(wordOfVerdicts(['match', 'match', 'darker'])).toBe('over');
    expect(wordOfVerdicts(['lighter', 'match'])).toBe('short');
    // Where coats brighten, lighter is over.
    expect(wordOfVerdicts(['lighter'], ['lighter'])).toBe('over');
    expect(wordOfVerdicts(['darker'], ['lighter'])).toBe('short');
  });

  it('what is short in low light is short, whatever the sun said; what is over from the sun stays over', () => {
    const views = ['sun face', 'sun flop', 'shade', 'low light'] as const;
    expect(wordOfVerdicts(['match', 'match', 'match', 'lighter'], [], views)).toBe('short');
    expect(wordOfVerdicts(['lighter', 'match', 'match', 'match'], [], views)).toBe('matched');
    expect(wordOfVerdicts(['match', 'match', 'match', 'darker'], [], views)).toBe('over');
    // Where coats brighten, too dark is too little.
    expect(
      wordOfVerdicts(['match', 'match', 'darker'], ['darker', 'darker', 'lighter'], ['sun face', 'shade', 'low light']),
    ).toBe('short');
  });

  it('leaves less to spray where more lies already, and nothing where it matches or is over', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 1.6, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (share, more) => {
          const at = (looksLike: number) => liveState(card, 2, [reading('a', 2, looksLike)]).spots[0]!;
          const spot = at(share * card.best);
          expect(at(share * card.best + more).spray).toBeLessThanOrEqual(spot.spray + 1e-9);
          if (spot.zone !== 'short') expect(spot.spray).toBe(0);
          if (share * card.best > hi + 0.3) expect(spot.zone).toBe('over');
          if (spot.spray > 0) expect(spot.chances!.over).toBeLessThanOrEqual(0.06 + 1e-9);
        },
      ),
    );
  });

  it('asks for another look after coats went on, keeps off what is over, and lays where it is short', () => {
    const zones = liveState(card, 2, [reading('left', 2, card.best - 1.4), reading('right', 2, hi + 0.6)]);
    expect(zones.spots.map((z) => z.zone)).toEqual(['short', 'over']);
    const advice = liveAdvice(zones);
    expect(advice.kind).toBe('over');
    expect(advice.on.map((s) => s.spot)).toEqual(['left']);
    expect(advice.amount).toBeGreaterThan(0.3);
    const since = liveState(card, 2.5, [reading('match', 2, card.best), reading('high', 2, hi + 0.6)]);
    expect(since.spots.map((s) => s.zone)).toEqual(['again', 'over']);
    expect(liveAdvice(liveState(card, 0, [])).kind).toBe('look');
  });

  it('an eye that calls it a match stops it, whatever a patch or the gun says', () => {
    const eye = sayEyeLook(card, candy, say(2, 'match', 3), 2, 'matched');
    const matched = liveState(card, 2, [
      { spot: 'a', says: eye, word: 'matched' },
      { spot: 'a', says: sayPatch(card, 1.2, 2) },
    ]);
    expect(matched.spots[0]).toMatchObject({ zone: 'matched', spray: 0 });
    expect(liveAdvice(matched).kind).toBe('there');
  });

  it('a card read and looked at says what both say together, its window moved with it', () => {
    const eye = countByEye(say(4, 'match', 3), candy, { mean: card.best, sd: 0.3 });
    const both = withEye(card, eye);
    expect(both.best).toBe(eye.best);
    expect(both.window.counts[1] - both.window.counts[0]).toBeCloseTo(hi - lo, 9);
    const mean = both.deviations.reduce((s, d) => s + d, 0) / both.deviations.length;
    expect(Math.abs(mean)).toBeLessThan(0.05);
  });
});
