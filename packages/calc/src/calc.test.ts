import { describe, expect, it } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { answer } from './answer';

const ask = (request: unknown) => answer(JSON.stringify(request));
const result = <T>(request: unknown): T => {
  const reply = ask(request);
  if (!reply.ok) throw new Error(JSON.stringify(reply.error));
  return reply.result as T;
};

describe('the calculator', () => {
  it('answers a pair of Sharma, Wu and Dalal (2005)', () => {
    expect(
      result<{ value: number }>({
        do: 'difference',
        a: [50, 2.6772, -79.7751],
        b: [50, 0, -82.7485],
        formula: 'de2000',
      }).value,
    ).toBeCloseTo(2.0425, 4);
  });

  it('shows white as white under every illuminant', () => {
    for (const illuminant of ['D65', 'D50', 'A', 'FL2', 'FL11']) {
      for (const observer of ['2', '10']) {
        const r = result<{ srgb: number[]; inGamut: boolean; lab: number[] }>({
          do: 'colour',
          reflectance: 1,
          illuminant,
          observer,
        });
        expect(r.srgb).toEqual([255, 255, 255]);
        expect(r.inGamut).toBe(true);
        expect(r.lab[0]).toBeCloseTo(100, 9);
      }
    }
  });

  it('gives a ground set by its look that very look again', () => {
    const r = result<{ geometries: { lab: number[]; factor: number[] }[] }>({
      do: 'stack',
      ground: { lab: [52, 20, -14] },
      coats: [],
      geometries: [{ incidence: 45, aspecular: 45 }],
    });
    [52, 20, -14].forEach((v, i) => expect(r.geometries[0]!.lab[i]).toBeCloseTo(v, 2));
    expect(r.geometries[0]!.factor).toHaveLength(31);
  });

  it('finds on a ladder the coat its target was made with, in either tier', () => {
    const coat = {
      dye: 0.35,
      flakes: { cover: 0.3, tilt: 9, edge: 0.1, optics: { kind: 'scalar', reflectance: 0.4, transmittance: 0.6 } },
    };
    const geometries = [15, 45, 110].map((aspecular) => ({ incidence: 45, aspecular }));
    const made = (tier: string) =>
      result<{ geometries: { incidence: number; aspecular: number; lab: number[] }[] }>({
        do: 'stack',
        ground: { reflectance: 0.8 },
        coats: [{ ...coat, factor: 2.5 }],
        geometries,
        tier,
      }).geometries;
    for (const tier of ['reference', 'fast']) {
      const target = made(tier).map(({ incidence, aspecular, lab }) => ({ incidence, aspecular, lab }));
      const r = result<{ best: { coats: number }; window: number[]; steps: unknown[] }>({
        do: 'ladder',
        ground: { reflectance: 0.8 },
        coat,
        coats: { from: 0, to: 5, step: 0.5 },
        target,
      });
      expect(Math.abs(r.best.coats - 2.5)).toBeLessThanOrEqual(0.051);
      expect(r.window[0]).toBeLessThan(2.5);
      expect(r.steps).toHaveLength(11);
    }
  });

  it('names every field that is wrong', () => {
    const reply = ask({
      id: 9,
      do: 'stack',
      ground: {},
      coats: [{ dye: -1, flakes: { cover: 1 } }],
      geometries: [{ incidence: 95, aspecular: 0 }],
    });
    expect(reply.ok).toBe(false);
    expect(reply.id).toBe(9);
    expect(Object.keys(reply.error!.fields!)).toEqual(
      expect.arrayContaining([
        'ground',
        'coats[0].dye',
        'coats[0].flakes.cover',
        'coats[0].flakes.tilt',
        'geometries[0].incidence',
      ]),
    );
    expect(
      ask({ do: 'stack', ground: { reflectance: 0.5 }, geometries: [{ incidence: 45, aspecular: 160 }] }).error!.code,
    ).toBe('badGeometry');
    expect(ask({ do: 'colour', reflectance: { start: 400, step: 10, values: [1, 2] } }).ok).toBe(false);
    expect(ask({ do: 'toString' }).error!.code).toBe('unknown');
  });

  it('goes on after a bad line, in order, and exits 1', () => {
    const run = (input: string) =>
      spawnSync(process.execPath, ['--import', 'tsx', 'packages/calc/src/main.ts'], { input, encoding: 'utf8' });
    const good = '{"id":1,"do":"interface","n1":1,"n2":1.5,"incidence":0}\n';
    const mixed = run(`${good}not json\n\n{"id":3,"do":"interface","n1":1.5,"n2":1,"incidence":60}\n`);
    const lines = mixed.stdout
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { id: number | null; ok: boolean; result?: { r: number } });
    expect(lines.map((l) => [l.id, l.ok])).toEqual([
      [1, true],
      [null, false],
      [3, true],
    ]);
    expect(lines[0]!.result!.r).toBeCloseTo(0.04, 12);
    expect(lines[2]!.result!.r).toBe(1);
    expect(mixed.status).toBe(1);
    expect(run(good).status).toBe(0);
  });
});
