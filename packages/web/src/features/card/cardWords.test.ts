import { describe, expect, it } from '@jest/globals';
import { adviseFirst } from '@steady-gleam/core/letdown';
import fc from 'fast-check';
import { isNarrow, isNominal, sayCard, sayDoubtful, sayHand, sayIntervals, sayNarrow, saySwapped } from './cardModel';
import { testCard } from './testCard';

const hand = (film: number, spread: { mean: number; sd: number } | null = null) =>
  sayHand({
    film: { mean: Math.log(film), sd: 0.03 },
    variations: spread ? [{ id: 'spread', ...spread }] : [],
  });

describe('a hand in plain words', () => {
  it('lays nominal, more or less, by so many percent', () => {
    expect(hand(1.01)).toBe('You lay a nominal coat');
    expect(hand(1.12)).toBe('You lay 12 % more than a nominal coat');
    expect(hand(0.85)).toBe('You lay 15 % less than a nominal coat');
    expect([0.98, 1, 1.02].every(isNominal)).toBe(true);
    expect([0.96, 1.04].some(isNominal)).toBe(false);
  });

  it('says how flakes lie only where the card taught it', () => {
    expect(hand(1, { mean: -0.2, sd: 0.03 })).toContain('the flakes lie flatter than usual');
    expect(hand(1, { mean: 0.2, sd: 0.03 })).toContain('less flat');
    expect(hand(1, { mean: -0.2, sd: 0.11 })).not.toContain('flakes');
    expect(hand(1, { mean: -0.01, sd: 0.03 })).not.toContain('flakes');
  });
});

describe('a window no hand can aim at', () => {
  it('is one narrower than a gun scatters, and is said with the ways out before the first coat', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 6, noNaN: true }),
        fc.double({ min: 0.01, max: 0.9, noNaN: true }),
        (best, half) => {
          const card = testCard(best, half);
          expect(isNarrow(card)).toBe(2 * half < 0.12 * best);
          expect(sayNarrow(card) === null).toBe(!isNarrow(card));
        },
      ),
    );
    expect(sayNarrow(testCard(3, 0.1))).toMatch(/^The window is 0\.2 coats wide/);
  });

  it('is none where it does not close, or where no count passes', () => {
    const card = testCard(3, 0.1);
    expect(isNarrow({ ...card, window: { ...card.window, closes: false } })).toBe(false);
    expect(isNarrow({ ...card, window: { ...card.window, inside: false } })).toBe(false);
  });
});

describe('what a card says', () => {
  it('of a nominal hand is called so, with the rungs still to be read', () => {
    const card = testCard(3);
    const { answer, why } = sayCard(card, adviseFirst(card));
    expect(answer).toMatch(/^Not your hand yet: 3\.0 coats, nominal\. Spray .* then look\.$/);
    expect(why).toContain('The window runs from 2.6 to 3.4.');
  });

  it('where no count passes says the closest, how far off, and what would open a window', () => {
    const card = testCard(3);
    const shut = { ...card, window: { ...card.window, inside: false, ratio: 2.3 } };
    const { answer, why } = sayCard(shut, adviseFirst(shut));
    expect(answer).toMatch(/^No count passes at every angle; closest is 3\.0\./);
    expect(why).toContain('2.3 times the limit at the worst angle');
    expect(why).toContain('a blend in place of edge to edge');
  });

  it('keeps what the card says and what the piece needs apart', () => {
    expect(sayIntervals({ card90: [2.5, 3.1], object90: [2.2, 3.6] })).toBe(
      'The card says 2.5–3.1; on the piece plan for 2.2–3.6.',
    );
  });

  it('names rungs that do not belong or changed places, and nothing where all is well', () => {
    const fit = (more: { doubtful?: number[]; swapped?: [number, number][] }) => ({
      fit: { doubtful: [], swapped: [], ...more },
    });
    expect([sayDoubtful(fit({})), saySwapped(fit({})), sayDoubtful({ fit: null })]).toEqual([null, null, null]);
    expect(sayDoubtful(fit({ doubtful: [2, 3] }))).toMatch(/^The rung with 2 coats and 3 coats does not belong/);
    expect(saySwapped(fit({ swapped: [[2, 3]] }))).toMatch(/the rungs of 2 coats and 3 coats changed places/);
  });
});
