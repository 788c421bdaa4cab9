import { describe, expect, it } from '@jest/globals';
import { START_PLAN } from '@steady-gleam/contracts';
import type { StackLayer } from '@steady-gleam/core/finishes';
import { adviseFirst } from '@steady-gleam/core/letdown';
import { testCard } from '../card/testCard';
import type { MatchMap } from '@steady-gleam/core/matching';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { nextStep, sayCoats, openPoints, sayMix } from '../../shared/jobModel';
import { sayCard, sayDoubtful, sayFit, sayHand, sayNarrow, saySwapped } from '../card/cardModel';
import { columnAt, nearGrounds, sayAnswer, sayFolded } from './mapModel';

const score = (toleranceRatio: number) => ({
  toleranceRatio,
  rmsDe: toleranceRatio,
  differences: [toleranceRatio, toleranceRatio / 2],
});
const row = (groundId: string, toleranceRatio: number, window: [number, number] | null) => ({
  groundId,
  cells: [2.5, 3].map((coats) => ({
    coats,
    labs: [],
    score: score(coats === 3 ? toleranceRatio : toleranceRatio + 1),
  })),
  stop: { window, closes: true, best: { coats: 2.8, rmsDe: 0.4, toleranceRatio: 0.5 }, curve: [] },
  forgiveness: window ? 2 : 0,
});
const map = (...rows: ReturnType<typeof row>[]): MatchMap => ({
  counts: [2.5, 3],
  rows,
  best: { groundId: rows[0]!.groundId, coats: 3 },
  forgiving: null,
  cheapest: null,
});

describe('grounds that are far off the target', () => {
  const far = map(
    row('white', 4, null),
    row('aqua-pastel', 0.4, [2.4, 3.2]),
    row('black', 21, null),
    row('gold', 9.9, null),
    row('grey-41', 15, null),
  );

  it('are folded away, but three always stay, the nearest', () => {
    expect([...nearGrounds(far)].sort()).toEqual(['aqua-pastel', 'gold', 'white']);
    const none = map(row('white', 30, null), row('black', 50, null), row('gold', 40, null), row('copper', 60, null));
    expect([...nearGrounds(none)].sort()).toEqual(['black', 'gold', 'white']);
  });

  it('are said in one line with the nearest of them', () => {
    const folded = far.rows.filter((r) => !nearGrounds(far).has(r.groundId));
    expect(sayFolded(folded, REFERENCE_LIBRARY.grounds)).toBe(
      '2 more grounds are far off, the nearest, a dark grey, by 15 dE00.',
    );
    expect(sayFolded(folded.slice(0, 1), REFERENCE_LIBRARY.grounds)).toBe(
      'One more ground is far off: Deep black, by 21 dE00.',
    );
  });
});

describe('what the screens say', () => {
  const layer = (kind: StackLayer['kind'], materialId: string): StackLayer => ({
    ...{ id: materialId, kind, materialId, coats: 2, style: 'wet', strength: 1, filmUm: 10 },
  });
  it('says half coats as a shop does', () => {
    expect([0.25, 0.5, 1, 2.5, 2.75, 2.8].map(sayCoats)).toEqual(['¼', '½', '1', '2½', '2¾', '2.8']);
  });

  it('leads with ground and coats, and says when nothing reaches the target', () => {
    expect(sayAnswer(map(row('aqua-pastel', 0.4, [2.4, 3.2]))).answer).toBe(
      'Aqua pastel, 3 coats in the nominal hand.',
    );
    expect(sayAnswer(map(row('aqua-pastel', 1.2, [2.7, 2.9]))).answer).toContain('2.8 coats');
    const none = sayAnswer(map(row('white', 4.2, null)));
    expect(none.answer).toContain('No ground here reaches it. Closest is bright white');
    expect(none.why).toContain('4.2 dE00');
  });

  it('places coat counts on the half-step columns', () => {
    expect(columnAt(0.5, 12)).toBe(0.5);
    expect(columnAt(3, 12)).toBe(5.5);
    expect(columnAt(9, 12)).toBe(12);
  });

  it('says what is laid by the layers, and what is still open before a job is finished', () => {
    const stacks = (...layers: StackLayer[]) => [{ id: 'main', name: 'x', layers }];
    const job = { mixId: 'lagoon-pearl', stacks: null };
    expect(sayMix(job, REFERENCE_LIBRARY)).toBe('Lagoon pearl');
    expect(sayMix({ ...job, stacks: stacks(layer('ground', 'ticket-red')) }, REFERENCE_LIBRARY)).toBe('Ticket red');
    const candy = stacks(layer('ground', 'gold'), layer('effect', 'cinder-candy'));
    expect(sayMix({ ...job, stacks: candy }, REFERENCE_LIBRARY)).toBe('Cinder candy');
    expect(sayMix({ ...job, mixId: 'gone' }, REFERENCE_LIBRARY)).toContain('not here any more');
    const pick = { groundId: 'gold', coats: 2, strength: 1, style: 'wet' as const, controlCoats: 0 };
    const open = { ...job, pick: null, rungsRead: 0, batches: 0, run: null };
    expect(openPoints(open)).toEqual(['no ground and count are picked']);
    const picked = { ...open, pick };
    const unsprayed = 'nothing was sprayed in the booth';
    expect(openPoints(picked)).toEqual(['no rung of a card is read', 'nothing was mixed', unsprayed]);
    expect(openPoints({ ...picked, rungsRead: 2 })).toEqual(['nothing was mixed', unsprayed]);
    const run = { done: 3, total: 36, next: 'x', isCoat: true, readyAt: null, closesAt: null, unseen: null };
    const mixed = { ...picked, rungsRead: 2, batches: 4 };
    expect(openPoints({ ...mixed, run })).toEqual(['3 of 36 sprays are on']);
    expect(openPoints({ ...mixed, run: { ...run, done: 36, next: null } })).toEqual([]);
    const unseen = 'not looked at by eye in low light';
    expect(openPoints({ ...mixed, run: { ...run, done: 36, next: null, unseen } })).toEqual([unseen]);
  });

  it('opens a job at its next decision', () => {
    const pick = { groundId: 'gold', coats: 2, strength: 1, style: 'wet' as const, controlCoats: 0 };
    const at = (more: Partial<Parameters<typeof nextStep>[0]>, now = 0) =>
      nextStep(
        {
          status: 'open',
          mixId: 'lagoon-pearl',
          pick: null,
          stacks: null,
          targetAngles: 0,
          rungsRead: 0,
          batches: 0,
          plan: null,
          run: null,
          ...more,
        },
        now,
        (t) => `${t} ms`,
      );
    const picked = { pick };
    const run = {
      done: 3,
      total: 8,
      next: 'candy 2 of 3 on the tub',
      isCoat: true,
      readyAt: 500,
      closesAt: null,
      unseen: null,
      film: [],
    };
    expect(at({}).place).toBe('target');
    expect(at({ targetAngles: 5 }).place).toBe('map');
    expect(at(picked).action).toBe('Spray the card');
    expect(at({ ...picked, rungsRead: 1 })).toMatchObject({ place: 'card', lead: 'is next: see what the card says' });
    expect(at({ ...picked, rungsRead: 2 }).place).toBe('mix');
    // A job of a solid alone, said in its layers, has nothing left to pick and needs no card.
    const solid = layer('ground', 'ticket-red');
    expect(at({ stacks: [{ id: 'main', name: 'x', layers: [solid] }] }).place).toBe('mix');
    // A window that has closed comes before everything else of a run.
    expect(at({ ...picked, run: { ...run, closesAt: 400 } }, 900).stands).toContain('too late for candy 2 of 3');
    expect(at({ ...picked, run: { ...run, closesAt: 4000 } }, 900).stands).not.toContain('too late');
    expect(at({ ...picked, rungsRead: 2, batches: 1 }).place).toBe('plan');
    expect(at({ ...picked, rungsRead: 2, batches: 1, plan: START_PLAN }).place).toBe('booth');
    expect(at({ ...picked, run })).toEqual({
      place: 'booth',
      stands: '3 of 8 sprays on; candy 2 of 3 on the tub from 500 ms',
      action: 'Back to the booth',
      lead: 'is being sprayed: candy 2 of 3 on the tub from 500 ms',
    });
    expect(at({ ...picked, run }, 600).lead).toBe('is being sprayed: candy 2 of 3 on the tub now');
    expect(at({ ...picked, run: { ...run, done: 8, next: null } }).place).toBe('spray');
    expect(at({ ...picked, status: 'finished', run }).action).toBe('Look at its card');
  });

  it('tells what the card changed and why', () => {
    const fit = {
      data: 75,
      chi: 1,
      lambda: 1,
      swapped: [],
      doubtful: [],
      film: { mean: Math.log(1.18), sd: 0.05 },
      variations: [{ id: 'spread' as const, mean: -0.1, sd: 0.04 }],
    };
    const card = testCard(2.5, 0.3, { nominalBest: 3.1, fit });
    const first = { ...adviseFirst(card), spray: 2 };
    expect(sayCard(card, first).answer).toBe('Your card says 2.5. Spray 2, then look.');
    expect(sayCard(card, first).why).toContain(
      'You lay 18 % more than a nominal coat; the flakes lie flatter than usual, so it takes 0.6 fewer',
    );
    expect(sayCard(card, first).why).toContain('The card says 2.4–2.6; on the piece plan for 2.1–2.9.');
    // What traded places with another figure is not told as learned.
    const vague = { ...fit, variations: [{ ...fit.variations[0]!, sd: 0.11 }] };
    expect(sayHand(vague)).toBe('You lay 18 % more than a nominal coat');
    // Read, but nothing passes: the closest counts and what would open a window, never “spray the card first”.
    const off = { ...card, window: { counts: [2.2, 2.9] as const, inside: false, closes: true, ratio: 1.3 } };
    const none = sayCard(off, first);
    expect(none.answer).toBe('No count passes at every angle; closest is 2.5. Spray 2, then look.');
    expect(none.why).toContain('Your card is read: 2.2 to 2.9 come closest');
    expect(none.why).toContain('What would open a window');
    expect(saySwapped({ fit: { ...fit, swapped: [[2, 3]] } })).toContain('2 coats and 3 coats changed places');
    expect(sayDoubtful({ fit: { ...fit, doubtful: [3] } })).toContain('The rung with 3 coats does not belong');
    expect([sayDoubtful(card), saySwapped(card), sayNarrow(card)]).toEqual([null, null, null]);
    expect(sayNarrow(testCard(2.5, 0.1))).toContain('narrower than a gun’s own scatter');
    expect(sayFit(card, [])).toContain('within what readings scatter by');
    expect(sayFit({ ...card, fit: { ...fit, lambda: 4 } }, [])).toContain('off by half a coat');
  });
});
