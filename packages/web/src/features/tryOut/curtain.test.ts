import { describe, expect, it } from '@jest/globals';
import type { CurtainSaid } from '@steady-gleam/contracts';
import { axisOf, sayCurtain } from './curtainModel';

const ended = (end: CurtainSaid['objects'][number]['end'], film: number) => ({
  ...{ name: 'panel', film, end, labs: [], differences: [0.4, 0.5, 0.6, 0.7, 0.8] },
});
const said = (more: Partial<CurtainSaid> = {}): CurtainSaid => ({
  hand: 1.18,
  made: { groundId: 'white', strength: 1, style: 'wet', film: 2.9, labs: [] },
  window: [2.6, 3.2],
  best: 2.9,
  objects: [ended('in', 2.95)],
  nominal: { ...ended('over', 3.54), coats: 3 },
  ...more,
});

describe('what is said behind the curtain', () => {
  it.each([
    ['in', 'It matches: every angle passes.'],
    ['over', 'It went over: too much film is on.'],
    ['short', 'It stopped short: a little film is missing.'],
    ['near', 'It is as near as this ground and mix can come.'],
  ] as const)('of one that ended %s', (end, answer) =>
    expect(sayCurtain(said({ objects: [ended(end, 2)] })).answer).toBe(answer),
  );
  it('names the hand, the window, and where counting alone would have ended', () => {
    const { why } = sayCurtain(said());
    expect(why).toContain('Your hidden hand lays 1.18 of a nominal coat.');
    expect(why).toContain('From 2.60 to 3.20 nominal coats of film every angle passes.');
    expect(why).toContain('3 coats, as picked and never looked at, would have laid 3.54: over.');
  });
  it('says where no film passes, and where nothing was sprayed', () => {
    expect(sayCurtain(said({ window: null })).why).toContain('2.90 nominal coats come nearest');
    expect(sayCurtain(said({ objects: [ended('short', 0)] })).answer).toContain('Nothing was sprayed');
  });
  it('has room for every mark on its axis', () => {
    for (const film of [0, 1.2, 6.9]) {
      const of = said({ objects: [ended('in', film)] });
      expect(axisOf(of)).toBeGreaterThan(Math.max(film, of.nominal.film, 3.2));
    }
  });
});
