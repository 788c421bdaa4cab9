import { describe, expect, it } from '@jest/globals';
import { FAMILIES, TRY_OUT_FAMILIES } from '../finishes/families';
import { eventOf, jobState, laidOf, workOfCard, workOfJob, type JobEvent } from '../jobs';
import { prepareLibrary } from '../materials/shop';
import { STARTING_GUNS } from '../products/guns';
import {
  CURTAIN_PARTS,
  drawHidden,
  filmAt,
  setUpFactor,
  hiddenSight,
  liftCurtain,
  simulatedRead,
  traceCurtain,
} from '.';
import type { Lab } from '../colour/lab';
import type { Sight } from './hidden';

const shop = prepareLibrary();
const family = TRY_OUT_FAMILIES[1]!;
const hidden = drawHidden(5, family, shop.library);
const picked = { groundId: hidden.wanted.groundId, strength: hidden.wanted.strength, style: hidden.wanted.style };
/** Few rays: what is tried here is not how fine the truth is. */
const RAYS = 60;

describe('what is hidden', () => {
  it('is the same for the same seed, another for another, and of the family’s own mixes and grounds', () => {
    expect(JSON.stringify(drawHidden(5, family, shop.library))).toBe(JSON.stringify(hidden));
    expect(drawHidden(6, family, shop.library).hand).not.toBe(hidden.hand);
    for (const f of TRY_OUT_FAMILIES)
      for (let seed = 0; seed < 40; seed++) {
        const { mixId, wanted, hand, truth } = drawHidden(seed, f, shop.library);
        expect(shop.library.systems.find((m) => m.id === mixId)!.family).toBe(f);
        const usual = shop.library.grounds.find((g) => g.id === FAMILIES[f].start.groundId)!;
        const ground = shop.library.grounds.find((g) => g.id === wanted.groundId)!;
        expect(!!ground.flakes).toBe(!!usual.flakes);
        expect(hand).toBeGreaterThan(0.4);
        expect(hand).toBeLessThan(2.5);
        expect(truth.made.film).toBeGreaterThanOrEqual(1.5);
      }
  });
});

describe('the film that taps lay', () => {
  const pick = { ...picked, coats: 3, controlCoats: 0 };
  const job = {
    piece: 'p',
    mixId: hidden.mixId,
    pick,
    stacks: null,
    objects: null,
    areas: null,
    mixing: null,
    plan: null,
  };
  const input = { job, card: null, library: shop.library, products: [], guns: [STARTING_GUNS[0]!] };
  const { plan } = workOfJob(input)!;
  const layerIds = plan.layers.filter((l) => l.counted).map((l) => l.id);
  const objectId = plan.objects[0]!.id;
  const areaIds = plan.areas.map((a) => a.id);
  const sprayed = (n: number): JobEvent[] =>
    plan.cells
      .slice(0, n)
      .map((c, i) => eventOf({ id: `e${i}`, at: 1000 * (i + 1), kind: 'sprayed', cells: [laidOf(c)] }));
  const film = (events: readonly JobEvent[]) =>
    filmAt(
      hidden,
      plan,
      jobState(plan, events),
      { layerIds, style: pick.style },
      { objectId, areaIds, spot: '', setUp: 1 },
    );
  const effects = plan.cells.flatMap((c, i) => (layerIds.includes(c.layerId) ? [i + 1] : []));

  it('is nothing before the effect, and grows by about the hand with every coat', () => {
    expect(film(sprayed(effects[0]! - 1))).toBe(0);
    const films = effects.map((n) => film(sprayed(n)));
    films.reduce((before, now) => {
      expect(now - before).toBeGreaterThan(0.6 * hidden.hand);
      expect(now - before).toBeLessThan(1.5 * hidden.hand);
      return now;
    }, 0);
  });
  it('is gone with a tap that is taken back, and the same when it is told again', () => {
    const all = sprayed(effects.at(-1)!);
    const undo = eventOf({ id: 'u', at: 99_000, kind: 'undo', text: all.at(-1)!.id });
    expect(film([...all, undo])).toBeCloseTo(film(sprayed(effects.at(-2)!)), 9);
    expect(film(all)).toBe(film([...all].reverse()));
  });
  it('of half a coat more is half of one', () => {
    const all = sprayed(effects.at(-1)!);
    const extra = (coats: number) => [
      ...all,
      eventOf({
        id: 'x',
        at: 90_000,
        kind: 'extra',
        layerId: layerIds[0]!,
        coats,
        cells: [{ coatId: 'm', areaId: areaIds[0]! }],
      }),
      eventOf({ id: 'y', at: 91_000, kind: 'sprayed', cells: [{ coatId: 'm', areaId: areaIds[0]! }] }),
    ];
    expect((film(extra(0.5)) - film(all)) / (film(extra(1)) - film(all))).toBeCloseTo(0.5, 6);
  });
  it('is less where the job is sprayed from further away than its card was, or with less on the needle', () => {
    const { coat } = plan.cells.find((c) => layerIds.includes(c.layerId))!;
    const card = (settings: object) => ({ gun: plan.gun.name, pressureBar: coat.pressureBar, settings, rungs: [1, 2] });
    const as = { distanceCm: coat.distanceCm, tipMm: coat.tipMm, turns: coat.turns, overlap: coat.overlap };
    expect(setUpFactor(null, plan, hidden.mixId)).toBe(1);
    expect(setUpFactor(card(as), plan, hidden.mixId)).toBe(1);
    expect(setUpFactor(card({ ...as, distanceCm: coat.distanceCm * 0.7 }), plan, hidden.mixId)).toBeLessThan(0.95);
    expect(setUpFactor(card({ ...as, turns: coat.turns * 1.4 }), plan, hidden.mixId)).toBeLessThan(0.95);
  });
  it('of a card is each rung’s own, and another card’s is another', () => {
    const card = { gun: 'g', pressureBar: 1.5, settings: {}, rungs: [1, 2, 4] };
    const run = workOfCard({ ...input, card })!.plan;
    const state = jobState(
      run,
      run.cells.map((c, i) => eventOf({ id: `c${i}`, at: 1000 + i, kind: 'sprayed', cells: [laidOf(c)] })),
    );
    const ids = run.layers.filter((l) => l.counted).map((l) => l.id);
    const rung = (n: number, cardId = 'a') =>
      filmAt(hidden, run, state, { layerIds: ids, style: pick.style }, { cardId, areaId: `rung-${n}` });
    expect(rung(2)).toBeGreaterThan(rung(1));
    expect(rung(4) / rung(1)).toBeGreaterThan(2.5);
    expect(rung(2, 'b')).not.toBe(rung(2));
  });
});

describe('the simulated instrument', () => {
  const flat = (of: number): Lab[] => [15, 25, 45, 75, 110].map(() => [of, 0, 0]);
  const sight: Sight = {
    at: (x) => flat(80 - 10 * x),
    made: (_, x = 2) => flat(80 - 10 * x),
  };
  const read = (
    nth: number,
    white: number | null,
    held = { kind: 'spot' as const, film: 2 },
    state: 'wet' | 'cleared' = 'wet',
  ) => simulatedRead(hidden, sight, held, state, nth, white);

  it('wants its white tile at first and after a good while', () => {
    expect(read(0, null).is).toBe('wants white');
    expect(read(1, 0).is).not.toBe('wants white');
    expect(read(30, 0).is).toBe('wants white');
  });
  it('says the same when it is asked the same again, and something else the next time', () => {
    expect(read(3, 0)).toEqual(read(3, 0));
    expect(read(3, 0)).not.toEqual(read(4, 0));
  });
  it('reads three spots of wet film and nine of cleared, near to what is there', () => {
    for (const [state, spots] of [
      ['wet', 3],
      ['cleared', 9],
    ] as const) {
      const said = read(5, 0, undefined, state);
      if (said.is !== 'read') throw new Error(said.is);
      expect(new Set(said.readings.map((r) => r.spot)).size).toBe(spots);
      expect(said.readings).toHaveLength(5 * spots);
      const mean = said.readings.reduce((s, r) => s + r.l, 0) / said.readings.length;
      expect(Math.abs(mean - 60)).toBeLessThan(3);
    }
  });
  it('was moved now and then, and stands askew now and then: seldom enough that a day’s readings are good', () => {
    const asked: (number | undefined)[][] = [];
    const told: Sight = { ...sight, at: (x, g) => (asked.push((g ?? []).map((a) => a.aspecular)), flat(80 - 10 * x)) };
    const all = Array.from({ length: 600 }, (_, i) =>
      simulatedRead(hidden, told, { kind: 'spot', film: 2 }, 'wet', i + 1, i),
    );
    const failed = all.filter((a) => a.is === 'failed').length;
    const askew = asked.filter((a) => JSON.stringify(a) !== '[15,25,45,75,110]').length;
    expect(failed).toBeGreaterThan(2);
    expect(failed).toBeLessThan(30);
    expect(askew).toBeGreaterThan(5);
    expect(askew).toBeLessThan(45);
  });
});

describe('behind the curtain', () => {
  const sight = hiddenSight(shop, hidden, picked, RAYS);
  const ask = { picked: { ...picked, coats: 3 }, usual: FAMILIES[family].limits, limits: null };
  it('more film is never nearer the ground than less, and the ends are told apart', () => {
    const at = (film: number) => liftCurtain(hidden, sight, { ...ask, objects: [{ name: 'o', film }] });
    const { window, best, made, hand } = at(1);
    expect(made.film).toBe(hidden.truth.made.film);
    expect(hand).toBe(hidden.hand);
    // Made of the same pot over the same ground: what comes nearest is about the film it was made with.
    expect(Math.abs(best - made.film)).toBeLessThan(0.6);
    const end = (film: number) => at(film).objects[0]!.end;
    expect(end(0.1)).toBe('short');
    expect(end(7.5)).toBe('over');
    if (window) expect(end((window[0] + window[1]) / 2)).toBe('in');
  });
  it('comes in parts that are traced once', () => {
    let traced = 0;
    const own = hiddenSight(shop, hidden, picked, 4);
    const counting: Sight = {
      at: (x, g) => (traced++, own.at(x, g)),
      made: (g, x) => (traced++, own.made(g, x)),
    };
    for (let part = 0; part < CURTAIN_PARTS; part++) traceCurtain(counting, part);
    expect(traced).toBe(CURTAIN_PARTS);
    expect(own.at(0)).toBe(own.at(0));
    expect(own.made()).toBe(own.made());
  });
});
