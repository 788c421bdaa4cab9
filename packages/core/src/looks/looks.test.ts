import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { layersOf } from '../finishes/layers';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { prepareLibrary } from '../materials/shop';
import { effectCoats, factorsToLabs } from '../matching/ladder';
import { FIVE_ANGLES } from '../optics/geometry';
import { SLOPE_UNSEEN, steppedLayers, type BlendLayer } from '../spraying/blend';
import { STRIPES_SEEN, type PassSetup } from '../spraying/passes';
import { blendSeen } from './blendSeen';
import { effectFilm, effectLadder, lookAt } from './effectLadder';
import { stackLook } from './layerLooks';
import { coatsOfMix, type Mix } from './mixCoats';
import { probeLook } from './probeLook';
import { sampleSeen } from './sampleSeen';
import { stripesReach, stripesSeen } from './stripes';
import { dyeLook, groundColours, patchLooks, pigmentLook, sectionColours } from './swatches';

const shop = prepareLibrary();
const pearl: Mix = { mixId: 'lagoon-pearl', strength: 1, style: 'wet', controlCoats: 0 };
const candy: Mix = { mixId: 'cinder-candy', strength: 1, style: 'wet', controlCoats: 0 };
const stackOf = (mix: Mix, groundId: string, coats: number) =>
  layersOf(findGround(groundId), findMix(mix.mixId), { ...mix, groundId, coats });
/** How a stack of ground and effect looks, worked out straight from the model. */
const straight = (mix: Mix, groundId: string, coats: number) => {
  const model = shop.model(FIVE_ANGLES);
  const ground = shop.ground(findGround(groundId));
  return factorsToLabs(model.over(ground, model.pile([...ground.coats, ...effectCoats(coatsOfMix(shop, mix), coats)])));
};

describe('swatches', () => {
  it('of solid grounds look as their drawdown was read, within what 45 degrees from the mirror differs from the normal', () => {
    const colours = groundColours(shop);
    for (const g of shop.library.grounds) {
      expect(colours[g.id]).toHaveLength(3);
      if (!g.flakes) expect(de2000(colours[g.id]!, g.lab)).toBeLessThan(1.5);
    }
  });

  it('of a pigment over white are lighter than over black, and the more it covers the nearer they come', () => {
    const { id } = shop.library.pigments[0]!;
    const apart = [0.1, 0.4, 0.7, 0.95].map((cover) => {
      const { white, black } = pigmentLook(shop, id, cover);
      white.forEach((lab, g) => expect(lab[0]).toBeGreaterThan(black[g]![0]));
      return de2000(white[2]!, black[2]!);
    });
    for (const [i, d] of apart.entries()) if (i) expect(d).toBeLessThan(apart[i - 1]!);
  });

  it('of a dye darken from half a coat to four', () => {
    for (const dye of shop.library.dyes) {
      const ls = dyeLook(shop, dye.id).map((lab) => lab[0]);
      expect(ls).toHaveLength(5);
      for (const [i, l] of ls.entries()) if (i) expect(l).toBeLessThan(ls[i - 1]!);
    }
  });

  it('of a film section are the ground’s own, and what the model says of the whole', () => {
    const section = sectionColours(shop, pearl, 'aqua-pastel', 3);
    expect(de2000(section.ground, groundColours(shop)['aqua-pastel']!)).toBeLessThan(1e-6);
    expect(de2000(section.effect, straight(pearl, 'aqua-pastel', 3)[2]!)).toBeLessThan(1e-6);
    expect(section.film).toBeGreaterThan(0);
  });

  it('of contrast patches close up under a candy as its film grows, the black one always the darkest', () => {
    const looks = patchLooks(shop, candy, 'silver-fine', [0.5, 1, 2, 4]);
    // In light itself: of the same two patches a film passes the same part.
    const light = ([l]: Lab) => ((l + 16) / 116) ** 3;
    const apart = looks.map((p) => light(p.grey) - light(p.black));
    for (const [i, p] of looks.entries()) {
      expect(p.black[0]).toBeLessThan(p.grey[0]);
      expect(p.ground).toEqual(patchLooks(shop, candy, 'silver-fine', [p.coats])[0]!.ground);
      if (i) expect(apart[i]!).toBeLessThan(apart[i - 1]!);
    }
  });

  it('are refused for a mix the library has not', () => {
    expect(() => coatsOfMix(shop, { ...pearl, mixId: 'gone' })).toThrow(expect.objectContaining({ code: 'notFound' }));
  });
});

describe('a place on the map, looked at closely', () => {
  const target = FIVE_ANGLES.map((g, i) => ({ ...g, lab: straight(pearl, 'aqua-pastel', 3)[i]!, tolerance: 1.4 }));
  const probe = (mix: Mix, coats: number) => probeLook(shop, mix, 'aqua-pastel', coats, target, 'A');

  it('says how far one coat more goes: what the model says of both', () => {
    const [now, then] = [straight(pearl, 'aqua-pastel', 2.5), straight(pearl, 'aqua-pastel', 3.5)];
    const most = Math.max(...now.map((lab, g) => de2000(lab, then[g]!)));
    expect(probe(pearl, 2.5).oneMore).toBeCloseTo(most, 9);
  });

  it('hides less at an edge than on the flat, and never less with a coat more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), (half) => {
        const [here, more] = [probe(pearl, half / 2), probe(pearl, half / 2 + 1)];
        expect(here.atEdge).toBeLessThanOrEqual(here.contrast);
        expect(more.contrast).toBeGreaterThanOrEqual(here.contrast);
        expect(more.cover!).toBeGreaterThan(here.cover!);
        expect(here.cover!).toBeGreaterThan(0);
        expect(more.cover!).toBeLessThan(1);
      }),
      { numRuns: 12 },
    );
  });

  it('tells of flakes only where there are some', () => {
    expect(probe(candy, 2)).toMatchObject({ cover: null, sparkle: null });
    expect(probe(pearl, 2).sparkle!).toBeGreaterThan(0);
  });
});

describe('a sample on a curved body', () => {
  const layers = stackOf(pearl, 'aqua-pastel', 3);

  it('has the colours of its stack, light everywhere, and the grain of its topmost flakes', () => {
    const seen = sampleSeen(shop, layers, []);
    stackLook(shop, layers, FIVE_ANGLES).forEach((lab, g) => expect(de2000(lab, seen.labs[g]!)).toBeLessThan(1e-6));
    expect(seen.prediction.every((v) => Number.isFinite(v))).toBe(true);
    expect(seen.target).toBeNull();
    expect(seen.grain!.sizeUm).toBeGreaterThan(0);
    expect(sampleSeen(shop, stackOf(candy, 'white', 2), []).grain).toBeNull();
  });

  it('and a target read just so are alike at every angle between', () => {
    const target = FIVE_ANGLES.map((g, i) => ({ ...g, lab: straight(pearl, 'aqua-pastel', 3)[i]!, tolerance: 1.4 }));
    const own = layers.filter((l) => l.kind === 'ground' || l.kind === 'effect');
    const seen = sampleSeen(shop, own, target);
    const most = Math.max(...seen.prediction.map((v, i) => Math.abs(v - seen.target![i]!)));
    expect(most).toBeLessThan(0.02);
  });
});

describe('a blend as it is seen', () => {
  const layers = stackOf(pearl, 'aqua-pastel', 3);
  const base: BlendLayer[] = [
    { id: 'ground', name: 'ground', kind: 'ground', film: 2, reachCm: 0, fadeCm: 0 },
    ...[1, 2, 3].map((n): BlendLayer => ({
      ...{ id: `effect/${n}`, name: `effect ${n}`, kind: 'effect', film: 1, reachCm: 0, fadeCm: 0 },
    })),
  ];
  const ask = { layers, mixId: pearl.mixId, repairCm: 12, lengthCm: 150 };
  const target = FIVE_ANGLES.map((g, i) => ({ ...g, lab: stackLook(shop, layers, FIVE_ANGLES)[i]!, tolerance: 1.4 }));

  it('ends in the finish that is there, which is guessed only where it was not read', () => {
    const blend = steppedLayers(base, 12, 15, 12);
    for (const read of [target, []]) {
      const seen = blendSeen(shop, { ...ask, target: read, blend });
      expect(seen.guessed).toBe(read.length === 0);
      const last = seen.profile.differences.map((d) => d.at(-1)!);
      for (const d of last) expect(d).toBeLessThan(0.6);
      expect(seen.profile.looks).toHaveLength(seen.profile.places.length);
    }
  });

  it('is steeper the shorter it fades, and what is suggested fits the panels and is what it says of itself', () => {
    const steepest = [4, 15, 40].map(
      (fade) => blendSeen(shop, { ...ask, target, blend: steppedLayers(base, 12, fade, 12) }).profile.steepest,
    );
    expect(steepest[0]!).toBeGreaterThan(steepest[1]!);
    expect(steepest[1]!).toBeGreaterThanOrEqual(steepest[2]!);
    const { suggestion } = blendSeen(shop, { ...ask, target, blend: steppedLayers(base, 12, 4, 4) });
    if (!suggestion) throw new Error('There is room for a blend on 150 cm.');
    expect(Math.max(...suggestion.layers.map((l) => l.reachCm))).toBeLessThanOrEqual(150);
    const again = blendSeen(shop, { ...ask, target, blend: suggestion.layers });
    expect(again.profile.steepest).toBeCloseTo(suggestion.steepest, 9);
    expect(suggestion.unseen).toBe(suggestion.steepest <= SLOPE_UNSEEN);
    expect(suggestion.steepest).toBeLessThan(steepest[0]!);
  });
});

describe('passes as they are seen', () => {
  const setup: PassSetup = {
    ...{ profile: 'bell', fanCm: 25, overlap: 0.66, coats: [1, 1], shift: 0.5, cross: false, marginCm: 10 },
    ...{ panels: [60], walk: true, heightCm: 50, speedSd: 0.02, distanceSd: 0.01, aimSdCm: 0.3, seed: 7 },
  };
  const layers = stackOf(candy, 'silver-fine', 2);
  const film = effectFilm(shop, layers, candy.mixId);
  const ladder = effectLadder(shop, film, stripesReach(setup));

  it('differ by crest and trough, and are drawn with looks that reach from the one to the other', () => {
    const seen = stripesSeen(ladder, setup);
    expect(seen.crest).toBeGreaterThanOrEqual(seen.trough);
    expect(seen.from).toBeLessThan(seen.trough);
    expect(seen.to).toBeGreaterThan(seen.crest);
    expect(seen.film).toHaveLength(seen.columns * seen.rows);
    expect(Math.min(...seen.film)).toBeGreaterThanOrEqual(0);
    expect(seen.spread[0]).toBeLessThanOrEqual(seen.spread[1]);
    expect(seen.lut[0]).toEqual(lookAt(ladder, seen.from));
  });

  it('show more under an unsteady hand, and a change that is told helps', () => {
    const steady = stripesSeen(ladder, setup);
    const unsteady = stripesSeen(ladder, { ...setup, overlap: 0.5, shift: 0, speedSd: 0.2, aimSdCm: 3 });
    const worst = Math.max(unsteady.face, unsteady.flop);
    expect(worst).toBeGreaterThan(Math.max(steady.face, steady.flop));
    expect(worst).toBeGreaterThan(STRIPES_SEEN);
    expect(unsteady.change!.worst).toBeLessThan(worst);
    if (unsteady.change!.hides) expect(unsteady.change!.worst).toBeLessThanOrEqual(STRIPES_SEEN);
  });
});
