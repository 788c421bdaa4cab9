import { describe, expect, it } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { familiesPage } from './familiesPage';
import { ask, result } from './testdata/ask';

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

  it('refuses what must not be done or cannot be meant', () => {
    expect(
      ask({ do: 'flash', minutesAt20: 10, temperature: 20, film: 1, blown: true, chemistry: 'two-pack' }).error!
        .message,
    ).toContain('Never blow air');
    expect(ask({ do: 'mix', parts: [{ name: 'a', parts: 0 }], total: 5 }).error!.fields).toHaveProperty([
      'parts[0].parts',
    ]);
    expect(ask({ do: 'mix', parts: [{ name: 'a', parts: 1 }] }).error!.message).toContain('total or cup');
    expect(
      ask({ do: 'quantity', area: 1, coats: 1, dryFilm: 10, volumeSolids: 45, transferEfficiency: 0.6 }).error!.fields![
        'volumeSolids'
      ],
    ).toContain('fraction');
    expect(ask({ do: 'ripple', fanWidth: 20, overlap: 0.5, profile: 'flat' }).error!.fields!['plateau']).toContain(
      'plateau',
    );
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

  it('takes several kinds of flakes in one coat, as one kind or as a list', () => {
    const flakes = { cover: 0.3, tilt: 8, edge: 0.1, optics: { kind: 'scalar', reflectance: 0.7, transmittance: 0.2 } };
    const stack = (list: unknown) => {
      const reply = ask({
        ...{ do: 'stack', ground: { reflectance: 0.5 }, coats: [{ dye: 0.2, flakes: list }] },
        geometries: [{ incidence: 45, aspecular: 25 }],
      });
      return reply.ok
        ? (reply.result as { geometries: { factor: number[] }[] }).geometries[0]!.factor[0]!
        : reply.error!;
    };
    expect(stack([flakes])).toBe(stack(flakes));
    const half = { ...flakes, cover: 1 - Math.sqrt(0.7) };
    expect(stack([half, half])).toBeCloseTo(stack(flakes) as number, 4);
    const other = { ...flakes, optics: { ...flakes.optics, reflectance: 0.2 } };
    expect(stack([half, other])).toBeLessThan(stack([half, half]) as number);
    expect(stack([])).toBe(stack(undefined));
    expect(stack(Array.from({ length: 9 }, () => half))).toMatchObject({ code: 'badRequest' });
    const ladder = ask({
      ...{
        do: 'ladder',
        ground: { reflectance: 0.5 },
        coat: { flakes: [half, other] },
        coats: { from: 0, to: 2, step: 1 },
      },
      target: [{ incidence: 45, aspecular: 25, lab: [60, 0, 0] }],
    });
    expect(ladder.ok).toBe(true);
  });

  it('tells of seven families, each with what a job of it begins with', () => {
    const families = result<
      { id: string; layers: { kind: string }[]; rungs: number[]; limits: object[]; source: string }[]
    >({
      do: 'families',
    });
    expect(families.map((f) => f.id)).toEqual([
      ...['pearl', 'candy', 'tri-coat', 'tinted-clear', 'metal-flake', 'colour-shift', 'weak-hiding'],
    ]);
    for (const f of families) {
      expect(f.layers.map((l) => l.kind)).toEqual(expect.arrayContaining(['sealer', 'ground', 'effect', 'clear']));
      expect(f.rungs.length).toBeGreaterThanOrEqual(2);
      expect(f.limits.length).toBeGreaterThanOrEqual(5);
      expect(f.source).toMatch(/\(no source\)/);
    }
  });

  it('has a page of them that says what the table says', () => {
    const page = readFileSync(join(import.meta.dirname, '../../../docs/families.md'), 'utf8');
    const cells = (text: string) => text.replace(/[-\s|]+/g, ' ').trim();
    expect(cells(page)).toBe(cells(familiesPage()));
  });

  it('tells its library so that a stack of it is the swatch of it', () => {
    type Told = { id: string; lab: number[]; hidesIn: number; under: unknown[]; coat: object };
    const library = result<{ grounds: Told[]; mixes: Told[]; pigments: Told[]; dyes: Told[]; solids: Told[] }>({
      do: 'library',
    });
    expect(library.solids).toHaveLength(10);
    expect(library.pigments.length).toBeGreaterThan(20);
    const geometries = [{ incidence: 45, aspecular: 25 }];
    for (const mix of library.mixes)
      for (const ground of [library.grounds[0]!, library.grounds.find((g) => g.id === 'gold')!]) {
        const stack = result<{ geometries: { lab: number[] }[] }>({
          ...{ do: 'stack', tier: 'fast', geometries, ground: { lab: ground.lab } },
          coats: [...ground.under, { ...mix.coat, factor: 1.5 }],
        });
        const swatch = result<{ geometries: { lab: number[] }[] }>({
          ...{ do: 'swatch', geometries },
          layers: [
            { kind: 'ground', id: ground.id, coats: 4 },
            { kind: 'effect', id: mix.id, coats: 2, style: 'medium' },
          ],
        });
        stack.geometries[0]!.lab.forEach((v, i) => expect(v).toBeCloseTo(swatch.geometries[0]!.lab[i]!, 6));
      }
    expect(ask({ do: 'swatch', layers: [{ kind: 'ground', id: 'nothing', coats: 1 }] }).error!.code).toBe('notFound');
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
