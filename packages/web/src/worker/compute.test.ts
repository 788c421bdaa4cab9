import { describe, expect, it } from '@jest/globals';
import { de2000 } from '@steady-gleam/core/colour';
import { layersOf } from '@steady-gleam/core/finishes';
import { mapCounts, sweptRows, unpackRows, type TargetAngle } from '@steady-gleam/core/matching';
import { findGround, findMix, type OwnMaterial } from '@steady-gleam/core/materials';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { STRIPES_SEEN, type PassSetup } from '@steady-gleam/core/spraying';
import { createCompute } from './compute';

const mix = { mixId: 'lagoon-pearl', strength: 1, style: 'wet', controlCoats: 0 } as const;
const compute = createCompute();
const layers = layersOf(findGround('aqua-pastel'), findMix('lagoon-pearl'), {
  ...mix,
  groundId: 'aqua-pastel',
  coats: 3,
});
const target: TargetAngle[] = compute
  .stackLook(layers, FIVE_ANGLES)
  .map((lab, g) => ({ ...FIVE_ANGLES[g]!, lab, tolerance: 1.4 }));

describe('what the worker answers', () => {
  it('gives the asked rows of the map, in daylight and under another light', () => {
    const ids = ['white', 'aqua-pastel'];
    const rows = (light: 'D65' | 'A') =>
      unpackRows(compute.mapRows(mix, target, light, ids), ids, mapCounts(), FIVE_ANGLES.length);
    expect(rows('D65')[1]!.stop.best.coats).toBeCloseTo(3, 1);
    // A pearl seen under a bulb is another colour, but its own recipe is still the nearest.
    expect(rows('A')[1]!.cells[5]!.labs[0]).not.toEqual(rows('D65')[1]!.cells[5]!.labs[0]);
    expect(Math.abs(rows('A')[1]!.stop.best.coats - 3)).toBeLessThan(0.6);
  });

  it('makes rows ready at every strength in their light, and a newer sweep ends an older', async () => {
    const ids = ['white', 'aqua-pastel'];
    const [old, bulb, again] = await Promise.all([
      compute.sweep(mix, target, 'D65', ids),
      compute.sweep(mix, target, 'A', ids),
      compute.sweep({ ...mix, strength: 1.7 }, target, 'A', ids),
    ]);
    expect(old).toBeNull();
    // One that differs in strength alone is the same.
    expect(again).toBe(bulb);
    const { sweep, seen } = bulb!;
    expect(sweep.groundIds).toEqual(ids);
    expect(seen.map((t) => t.lab)).not.toEqual(target.map((t) => t.lab));
    const whole = unpackRows(compute.mapRows({ ...mix, strength: 1.23 }, target, 'A', ids), ids, mapCounts(), 5);
    sweptRows(sweep, 1.23, seen, { viewing: { illuminant: 'A', observer: '10' } }).forEach((row, r) =>
      row.cells.forEach((cell, c) => {
        const own = whole[r]!.cells[c]!;
        cell.labs.forEach((lab, g) => expect(de2000(lab, own.labs[g]!)).toBeLessThan(0.05));
        expect(Math.abs(cell.score.rmsDe - own.score.rmsDe)).toBeLessThan(0.05);
      }),
    );
  });

  it('stops a search at the next ground, and says how far it came until then', async () => {
    const ids = ['white', 'grey-84', 'grey-74', 'black'];
    const seen: number[] = [];
    const stopped = await compute.search(mix, target, ids, 7, (done) => {
      seen.push(done);
      if (done === 2) compute.stopSearch(7);
    });
    expect(stopped).toBeNull();
    expect(seen).toEqual([1, 2]);
    const whole = await compute.search(mix, target, ['aqua-pastel'], 8, () => undefined);
    expect(whole![0]!.rmsDe).toBeLessThan(0.1);
  });

  it('looks closely at one place: figures, second light, what shows through, sparkle', () => {
    const look = compute.probe(mix, 'aqua-pastel', 3, target, 'A');
    expect(look.figures.effectUm).toBeCloseTo(27, 9);
    expect(look.contrast).toBeGreaterThan(0.1);
    expect(look.contrast).toBeLessThan(0.9);
    expect(look.sparkle).toBeGreaterThan(0);
    expect(look.second.illuminant).toBe('A');
    const deep = compute.probe(mix, 'aqua-pastel', 6, target, 'A');
    expect(deep.contrast).toBeGreaterThan(look.contrast);
  });

  it('shows less and less of the patches under more tinted clear', () => {
    const tint = { mixId: 'smoke-tea-clear', strength: 1, style: 'wet', controlCoats: 0 } as const;
    const [one, two] = compute.patches(tint, 'gold', [1, 2]);
    expect(one!.ground[0] - one!.black[0]).toBeGreaterThan(two!.ground[0] - two!.black[0]);
    expect(one!.grey[0]).toBeGreaterThan(one!.black[0]);
  });

  describe('stripes', () => {
    const setup: PassSetup = {
      profile: 'bell',
      fanCm: 25,
      overlap: 0.75,
      coats: [1, 1, 1],
      shift: 0,
      cross: false,
      marginCm: 30,
      panels: [60, 60],
      walk: true,
      heightCm: 70,
      speedSd: 0,
      distanceSd: 0,
      aimSdCm: 0,
      seed: 3,
    };
    it('are none under a perfect hand, and the panel then looks like the stack', () => {
      const look = compute.stripes(layers, 'lagoon-pearl', setup, 'effect');
      expect(Math.max(look.face, look.flop)).toBeLessThan(0.02);
      expect(look.change).toBeNull();
      const [first, last] = [look.lut[0]!, look.lut.at(-1)!];
      compute.stackLook(layers, FIVE_ANGLES).forEach((lab, g) => {
        // Three coats lie in the middle of the table's looks.
        expect(de2000(lab, look.lut[32]![g]!)).toBeLessThan(0.35);
        expect(de2000(first[g]!, last[g]!)).toBeGreaterThan(0.1);
      });
    });
    it('are darkest where panels are doubled, and walking is the cheapest way out', () => {
      const alone = { ...setup, marginCm: 5, walk: false };
      const look = compute.stripes(layers, 'lagoon-pearl', alone, 'effect');
      expect(look.crest).toBeGreaterThan(5);
      expect(Math.max(look.face, look.flop)).toBeGreaterThan(STRIPES_SEEN);
      expect(look.change).toMatchObject({ name: 'walk the whole side in one stroke', hides: true });
      const mended = compute.stripes(layers, 'lagoon-pearl', look.change!.setup, 'effect');
      expect(Math.max(mended.face, mended.flop)).toBeLessThan(STRIPES_SEEN);
    });
    it('are judged by many draws: one seed decides nothing, and the spread is told', () => {
      const shaky = { ...setup, speedSd: 0.15, distanceSd: 0.1, aimSdCm: 2 };
      const looks = [3, 7, 12, 99].map((seed) => compute.stripes(layers, 'lagoon-pearl', { ...shaky, seed }, 'effect'));
      const worst = (l: (typeof looks)[number]) => Math.max(l.face, l.flop);
      for (const l of looks) {
        expect(worst(l)).toBe(worst(looks[0]!));
        expect(l.change?.name).toBe(looks[0]!.change?.name);
        expect(l.spread[0]).toBeLessThan(worst(l));
        expect(l.spread[1]).toBeGreaterThan(worst(l));
        // The panel that is shown is the one of those draws that is most like the middle.
        expect(l.film).toEqual(looks[0]!.film);
      }
    });
    it('of a fan that leaves lines are fewer where coats are crossed', () => {
      const lines = { ...setup, profile: 'elliptical', overlap: 0.3 } as const;
      const [along, crossed] = [false, true].map((cross) => {
        const look = compute.stripes(layers, 'lagoon-pearl', { ...lines, cross }, 'effect');
        return Math.max(look.face, look.flop);
      });
      expect(along!).toBeGreaterThan(STRIPES_SEEN);
      expect(crossed!).toBeLessThan(along!);
    });
    it('of a metallic ground are looked at by themselves', () => {
      const metallic = layers.map((l) => (l.kind === 'ground' ? { ...l, materialId: 'silver-fine' } : l));
      const seen = (coats: readonly number[]) => {
        const look = compute.stripes(
          metallic,
          'lagoon-pearl',
          { ...setup, coats: [...coats], speedSd: 0.15, aimSdCm: 2 },
          'ground',
        );
        return Math.max(look.face, look.flop);
      };
      expect(seen([1])).toBeGreaterThan(0.2);
      expect(seen([1, 1, 1])).toBeLessThan(seen([1]));
    });
    it('follow a mix that was changed', () => {
      const own = (depth: number): OwnMaterial => ({
        kind: 'system',
        id: 'own-mix',
        name: 'Own mix',
        family: 'candy',
        carrierId: 'intercoat',
        colours: [{ kind: 'dye', id: 'cinder-red', parts: null, strength: depth }],
        carrierParts: null,
        strengthFrom: 'typed',
        drawdown: null,
        filmUm: 10,
        flashMinutes: 12,
        pricePerLitre: 60,
      });
      const laid = layers.map((l) => (l.kind === 'effect' ? { ...l, materialId: 'own-mix' } : l));
      const fresh = createCompute();
      const lutOf = (depth: number) => {
        fresh.setMaterials([own(depth)]);
        return fresh.stripes(laid, 'own-mix', setup, 'effect').lut[32]![2]!;
      };
      const pale = lutOf(0.2);
      expect(de2000(pale, lutOf(1))).toBeGreaterThan(5);
      expect(lutOf(0.2)).toEqual(pale);
    });
  });

  it('blends into the finish that is there: nothing is left beyond the last layer, and the repair is the stack', () => {
    const base = ['ground', 'effect', 'clear'].map((kind, i) => ({
      id: kind,
      name: kind,
      kind: kind as 'ground' | 'effect' | 'clear',
      film: i === 2 ? 2 : 3,
      reachCm: 40 + 15 * i,
      fadeCm: 20,
    }));
    const { profile, guessed, angles } = compute.blend({
      layers,
      mixId: 'lagoon-pearl',
      target,
      blend: base,
      repairCm: 12,
      lengthCm: 150,
    });
    expect(guessed).toBe(false);
    expect(angles).toEqual(FIVE_ANGLES.map((a) => a.aspecular));
    profile.differences.forEach((d) => {
      expect(d.at(-1)).toBeLessThan(0.2);
      expect(d[0]).toBeLessThan(0.6);
      expect(Math.max(...d)).toBeGreaterThan(d[0]!);
    });
  });
});
