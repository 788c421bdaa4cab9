import { D65_10, labOf, type Lab } from '@steady-gleam/core/colour';
import { defaultTolerance } from '@steady-gleam/core/finishes';
import { looksOf } from '@steady-gleam/core/jobs';
import { adviseFirst, answerCard, liveAdvice, liveState, noiseOf } from '@steady-gleam/core/letdown';
import { labToAlbedo } from '@steady-gleam/core/materials';
import { createFastModel, createFilm, createOptics, prepareCoat } from '@steady-gleam/core/optics';
import { describe, expect, it } from '@jest/globals';
import type { CalcName } from './schemas';
import fc from 'fast-check';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { answer } from './answer';
import { familiesPage } from './familiesPage';

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

  // Worked by hand, or from the source named in the row.
  it.each([
    [
      '4:2:1 fills to 400, 600, 700',
      {
        do: 'mix',
        parts: [
          { name: 'a', parts: 4 },
          { name: 'b', parts: 2 },
          { name: 'c', parts: 1 },
        ],
        total: 700,
      },
      {
        ml: 700,
        'parts.0.mark': 400,
        'parts.1.mark': 600,
        'parts.2.mark': 700,
        'parts.2.ml': 100,
        'parts.0.grams': null,
      },
    ],
    [
      '4:2:1 from mark 4: 4, 6, 7',
      {
        do: 'mix',
        parts: [
          { name: 'a', parts: 4 },
          { name: 'b', parts: 2 },
          { name: 'c', parts: 1 },
        ],
        cup: { mark: 4 },
      },
      { 'parts.0.mark': 4, 'parts.1.mark': 6, 'parts.2.mark': 7 },
    ],
    [
      '1:1 to mark 7: 7, then 7 more',
      {
        do: 'mix',
        parts: [
          { name: 'a', parts: 1, density: 0.9 },
          { name: 'b', parts: 1, density: 1.1 },
        ],
        cup: { mark: 7 },
      },
      { 'parts.1.mark': 14, 'parts.0.runningGrams': 6.3, 'parts.1.runningGrams': 14 },
    ],
    [
      '1 m2 of 1 um is 1 ml; 10 x 50 % / 25 um = 20 m2/l',
      { do: 'quantity', area: 10, coats: 2, dryFilm: 25, volumeSolids: 0.5, transferEfficiency: 0.5, loss: 30 },
      { ml: 2030, spreadingRate: 20 },
    ],
    [
      'a litre of solids covers 1000 m2 at 1 um (handbook)',
      { do: 'quantity', area: 1000, coats: 1, dryFilm: 1, volumeSolids: 1, transferEfficiency: 1 },
      { ml: 1000, spreadingRate: 1000 },
    ],
    [
      '180 ml/min x 0.22 x 0.65 over 16 875 cm2 a minute',
      { do: 'filmFromGun', flow: 180, volumeSolids: 0.22, transferEfficiency: 0.65, speed: 45, fan: 25, overlap: 0.75 },
      { film: 25.74 / 1.6875 },
    ],
    [
      'two coats of 5 min with 12 min of flash, mixed in 6: 6 + 5 + 12 + 5',
      {
        do: 'timeline',
        tasks: [
          { id: 'one', minutes: 5, batch: 'candy' },
          { id: 'two', minutes: 5, batch: 'candy', after: [{ id: 'one', min: 12 }] },
        ],
        batches: [{ id: 'candy', mixMinutes: 6 }],
      },
      { end: 28, 'tasks.0.end': 6, 'tasks.1.start': 6, 'tasks.2.start': 23 },
    ],
    [
      'jambs first, whatever the air',
      {
        do: 'order',
        airTowards: 0,
        openMinutes: 5,
        minutesPerM2: 2,
        pieces: [
          { name: 'shell', x: 0, y: 0, area: 3 },
          { name: 'jamb', x: 1, y: 0, area: 0.3, first: true },
        ],
      },
      { 'order.0': 'jamb', 'order.1': 'shell' },
    ],
    ['2:1 + 10 %', { do: 'ratio', text: '2:1 + 10 %' }, { 'parts.0': 2, 'parts.1': 1, 'parts.2': 0.3 }],
    [
      '37 g poured of 30: everything grows by 37/30',
      {
        do: 'rescue',
        parts: [
          { name: 'a', parts: 1, density: 1 },
          { name: 'b', parts: 2, density: 1 },
        ],
        total: 90,
        overpoured: 1,
        poured: 37,
      },
      { ml: 111, 'parts.0.more': 0, 'parts.1.more': 74, 'parts.1.grams': 74 },
    ],
    [
      'VOC by hand after the definition of ASTM D3960: (860 + 380 + 130.5) g in 3.15 l',
      {
        do: 'voc',
        parts: [
          { ml: 2000, voc: 430 },
          { ml: 1000, voc: 380 },
          { ml: 150, voc: 870 },
        ],
      },
      { actual: 1370.5 / 3.15, coating: 1370.5 / 3.15 },
    ],
    [
      'less water and exempt: 110 / (1 - 0.65)',
      { do: 'voc', parts: [{ ml: 10, voc: 110, water: 0.6, exempt: 0.05 }] },
      { actual: 110, coating: 110 / 0.35 },
    ],
    ['pot life halves per 10 C', { do: 'potLife', minutesAt20: 120, temperature: 30 }, { minutes: 60 }],
    [
      'ln 2 of flake area covers half; 1 um of film at half solids is 2 ml/m2',
      {
        do: 'flakeDose',
        sizes: [{ size: 100, thickness: 10, density: 1, parts: 1 }],
        cover: 0.5,
        dryFilm: 50,
        volumeSolids: 0.5,
      },
      { gramsPerM2: 10 * Math.LN2, gramsPerLitre: 100 * Math.LN2, coats: 1, 'covers.0': 0.5 },
    ],
    [
      'Poisson cover 1 - 1/e',
      { do: 'flakeCover', gramsPerM2: 2.7, thickness: 1, density: 2.7 },
      { cover: 1 - Math.exp(-1) },
    ],
    [
      'cosine squared at 50 % overlap is flat',
      { do: 'ripple', fanWidth: 25, overlap: 0.5, profile: 'bell' },
      { ripple: 0, cv: 0 },
    ],
    [
      'cosine squared at 75 % overlap is flat',
      { do: 'ripple', fanWidth: 20, overlap: 0.75, profile: 'bell' },
      { ripple: 0, cv: 0 },
    ],
    [
      'cosine squared without overlap: max 1, min 0, mean 1/2, cv 1/sqrt 2',
      { do: 'ripple', fanWidth: 20, overlap: 0, profile: 'bell' },
      { ripple: 2, cv: Math.SQRT1_2 },
    ],
    [
      'a trapezoid of half plateau at 25 % overlap is flat',
      { do: 'ripple', fanWidth: 20, overlap: 0.25, profile: 'flat', plateau: 0.5 },
      { ripple: 0, cv: 0 },
    ],
    [
      'flash doubles for 10 C colder (common practice)',
      { do: 'flash', minutesAt20: 10, temperature: 10, film: 1, chemistry: 'solvent' },
      { minutes: 20 },
    ],
    [
      'flash of a double film, blown',
      { do: 'flash', minutesAt20: 10, temperature: 20, film: 2, blown: true, chemistry: 'solvent' },
      { minutes: 10 * 2 ** 1.5 * 0.6 },
    ],
    [
      'waterborne at 75 % humidity takes twice',
      { do: 'flash', minutesAt20: 10, temperature: 20, film: 1, humidity: 0.75, chemistry: 'waterborne' },
      { minutes: 20 },
    ],
    ['dew point at saturation is the temperature', { do: 'dewPoint', temperature: 17, humidity: 1 }, { dewPoint: 17 }],
    [
      'dew point of 20 C at 50 %: 9.3 C (psychrometric tables, from memory)',
      { do: 'dewPoint', temperature: 20, humidity: 0.5 },
      { dewPoint: [9.26, 0.05] },
    ],
    [
      'diffuse reflectance of n = 1.5 (Saunderson 1942)',
      { do: 'diffuseInterface', n: 1.5 },
      { external: [0.0918, 1e-4], internal: [0.5963, 1e-4] },
    ],
    [
      'Kubelka-Munk without absorption over black: sX / (1 + sX)',
      { do: 'kubelkaMunk', k: 0, s: 0.1, thickness: 30, over: 0 },
      { reflectance: 0.75 },
    ],
    [
      'Saunderson of a black body is the surface alone',
      { do: 'saunderson', internal: 0, k1: 0.04, k2: 0.6 },
      { measured: 0.04 },
    ],
    ['Saunderson of white is white', { do: 'saunderson', measured: 1, k1: 0.04, k2: 0.6 }, { internal: 1 }],
    [
      'no metamerism between a spectrum and itself',
      { do: 'metamerism', reference: 0.4, sample: 0.2, under: 'D65', test: 'A' },
      { index: 0, indexDe2000: 0 },
    ],
  ] as const)('%s', (_, request, expected) => {
    const r = result<Record<string, unknown>>(request);
    for (const [path, wanted] of Object.entries(expected) as [
      string,
      number | string | null | readonly [number, number],
    ][]) {
      const found = path.split('.').reduce<unknown>((v, key) => (v as Record<string, unknown>)[key], r);
      if (wanted === null) expect(found).toBeNull();
      else if (typeof wanted === 'string') expect(found).toBe(wanted);
      else {
        const [value, within] = typeof wanted === 'number' ? [wanted, 1e-6] : wanted;
        expect(Math.abs((found as number) - value)).toBeLessThanOrEqual(within);
      }
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

  describe('advise', () => {
    const five = [15, 25, 45, 75, 110].map((aspecular) => ({ incidence: 45, aspecular }));
    const dyed = {
      dye: {
        start: 400,
        step: 10,
        values: Array.from({ length: 31 }, (_, i) => (i < 16 ? 0.9 : 0.9 * 0.72 ** (i - 15))),
      },
    };
    const base = { do: 'advise', ground: { lab: [80, 0, 4] }, coat: dyed };
    const ladder = (coats: number[]) =>
      (
        ask({
          ...{ do: 'ladder', ground: base.ground, coat: dyed },
          ...{
            coats: { from: coats[0], to: coats.at(-1), step: 0.5 },
            target: five.map((g) => ({ ...g, lab: [50, 20, 10] })),
          },
        }).result as { steps: { coats: number; labs: Lab[] }[] }
      ).steps.filter((s) => coats.includes(s.coats));
    const [one, two, wanted, three, four] = ladder([1, 2, 2.5, 3, 4]).map((s) => s.labs) as [
      Lab[],
      Lab[],
      Lab[],
      Lab[],
      Lab[],
    ];
    const target = five.map((g, k) => ({ ...g, lab: wanted[k] }));
    const rungs = [one, two, three, four].map((labs, k) => ({ coats: k + 1, labs }));
    const advise = (more: object) => {
      const reply = ask({ ...base, target, rungs, ...more });
      expect(reply.error).toBeUndefined();
      return reply.result as Record<string, number> &
        Record<string, number[]> & { chances: Record<string, number>; kind: string; window: number[] | null };
    };

    it('reads a card without noise as it was made, and stops short of its best count', () => {
      const said = advise({ at: [2.5], noise: 0.3 });
      expect(said['best']).toBeCloseTo(2.5, 1);
      expect(said.kind).toBe('inside');
      expect(said.window![0]).toBeLessThan(2.5);
      expect(said.window![1]).toBeGreaterThan(2.5);
      expect(said['spray']).toBeLessThanOrEqual(2.5);
      expect(said['spray']! * 4).toBeCloseTo(Math.round(said['spray']! * 4), 9);
      expect(said.chances['over']).toBeLessThanOrEqual(0.02);
      expect(said.chances['under']! + said.chances['in']! + said.chances['over']!).toBeCloseTo(1, 9);
      expect(said['fit']).toBeLessThan(1);
    });

    it('names exchanged rungs by the counts as sent, and works with them put right', () => {
      const swapped = rungs.map((r, k) => ({ ...r, labs: rungs[k === 1 ? 2 : k === 2 ? 1 : k]!.labs }));
      const said = advise({ rungs: swapped });
      expect(said['swapped']).toEqual([[2, 3]]);
      expect(said['best']).toBeCloseTo(advise({})['best']!, 6);
    });

    it('after a look lays tenths towards the target, and nothing where it is there', () => {
      const short = advise({ looks: [{ sprayed: 2, labs: two, spots: 3 }], looksLeft: 1 });
      expect(short['spray']).toBeGreaterThan(0.1);
      expect(short['spray']).toBeLessThanOrEqual(0.7);
      expect(short['left']).toBeCloseTo(0.5, 0);
      expect(
        advise({ looks: [{ sprayed: 2, labs: wanted, spots: 9, wet: false }], looksLeft: 1 })['spray'],
      ).toBeLessThanOrEqual(0.1);
      expect(advise({ looks: [{ sprayed: 3, labs: three, spots: 9, wet: false }], looksLeft: 0 })['spray']).toBe(0);
    });

    it('without a card gives the nominal answer with its wide interval; what can’t be reached gets the closest', () => {
      const nominal = advise({ rungs: [] });
      const read = advise({});
      const width = (r: Record<string, number[]>) => r['card90']![1]! - r['card90']![0]!;
      expect(width(nominal)).toBeGreaterThan(2 * width(read));
      const far = advise({ target: target.map((t) => ({ ...t, lab: [t.lab![0]! + 12, t.lab![1]! - 8, t.lab![2]] })) });
      expect(far.kind).toBe('closest');
      expect(far.window).toBeNull();
      expect(far['closest']).toHaveLength(2);
      expect(far['spray']).toBeGreaterThan(0);
    });

    it('says what the screens say for the same evidence: card, first stop, and the amount after a look', () => {
      const film = createFilm();
      const angles = target.map((t) => ({
        ...t,
        lab: labOf(t.lab!),
        tolerance: defaultTolerance(t.aspecular),
      }));
      const of = {
        model: createFastModel(createOptics(film, angles)),
        ground: { albedo: labToAlbedo(film, [80, 0, 4]), coats: [] },
        recipe: { coat: prepareCoat(film, { dye: Float64Array.from(dyed.dye.values) }) },
        viewing: D65_10,
      };
      const noise = noiseOf(null, []);
      // As the let-down page, On the job and the booth ask.
      const { card, read } = answerCard(of, {
        target: { angles, spots: 3, sameInstrument: true, noise },
        bare: null,
        rungs,
        verdicts: [],
        handHeld: false,
        believed: {},
      })!;
      const first = advise({});
      expect(first['best']).toBeCloseTo(card.best, 9);
      expect(first['spray']).toBe(adviseFirst(card).spray);
      expect(first['card90']).toEqual(card.card90);
      const readings = two.flatMap((lab, k) =>
        ['1', '2', '3'].map((spot) => ({ spot, ...five[k]!, l: lab[0]!, a: lab[1]!, b: lab[2]! })),
      );
      const looks = looksOf([{ spot: 'all over', coats: 2, readings, wet: true, at: 1 }], [], card, read);
      const after = advise({ looks: [{ sprayed: 2, labs: two, spots: 3 }], looksLeft: 1 });
      expect(liveAdvice(liveState(card, 2, looks)).amount).toBe(after['spray']);
    });

    it('refuses what does not go together, by field', () => {
      const wrong = ask({
        ...base,
        target,
        rungs: [{ coats: 1, labs: [[1, 2, 3]] }],
        looks: [
          { sprayed: 2, labs: one },
          { sprayed: 1, labs: one },
        ],
      });
      expect(wrong.error!.fields).toMatchObject({
        'rungs[0].labs': 'rungs[0].labs needs one entry for every angle of the target.',
        looks: 'Looks come oldest first: sprayed never falls.',
      });
    });
  });

  // One whole request of every kind.
  const flat = (v: number) => ({ start: 400, step: 10, values: Array.from({ length: 31 }, () => v) });
  const coat = {
    dye: 0.3,
    flakes: { cover: 0.2, tilt: 8, edge: 0.1, optics: { kind: 'scalar', reflectance: 0.7, transmittance: 0.2 } },
    pigment: { k: 0.01, s: 0.05, thickness: 12 },
    factor: 1,
  };
  const geometry = { incidence: 45, aspecular: 25 };
  const target = [{ ...geometry, lab: [50, 20, 10], tolerance: 1.4 }];
  const pour = [
    { name: 'base', parts: 4, density: 0.95 },
    { name: 'reducer', parts: 2, density: 0.87 },
  ];
  const WHOLE: Record<CalcName, object> = {
    colour: { reflectance: flat(0.5), illuminant: 'A', observer: '2' },
    difference: { a: [50, 2, -79], b: [50, 0, -82], formula: 'cmc' },
    interface: { n1: 1, n2: 1.5, incidence: 30 },
    thinFilm: {
      n0: 1,
      layers: [{ n: 1.38, k: 0, nm: 99 }],
      exit: { n: 1.52, k: 0 },
      incidence: 10,
      wavelength: 550,
    },
    stack: { ground: { reflectance: 0.6 }, coats: [coat], geometries: [geometry], tier: 'fast', n: 1.5 },
    ladder: { ground: { lab: [70, 0, 3] }, coat, coats: { from: 0, to: 4, step: 1 }, target },
    formulate: {
      target: [{ ...geometry, lab: [60, 8, 4], tolerance: 1.4 }],
      grounds: [{ id: 'g', lab: [70, 0, 3], under: [coat] }],
      pigments: [{ id: 'p', tilt: 8, edge: 0.1, optics: coat.flakes.optics, thickness: 0.5 }],
      dyes: [{ id: 'd', depth: flat(0.3) }],
      style: { film: 1, spread: 1.1 },
      filmUm: 9,
      ...{ mostPigments: 1, mostDyes: 1, counts: [2, 3], top: 2 },
    },
    advise: {
      ground: { lab: [70, 0, 3] },
      under: [coat],
      coat,
      style: { film: 0.8, spread: 1.1 },
      target,
      targetSpots: 3,
      sameInstrument: true,
      bare: [[70, 0, 3]],
      rungs: [
        { coats: 1, labs: [[64, 6, 5]] },
        { coats: 2, labs: [[58, 11, 8]] },
      ],
      looks: [{ sprayed: 1.5, labs: [[60, 10, 7]], wet: true, spots: 3 }],
      looksLeft: 1,
      noise: 0.5,
      at: [1, 2.5],
    },
    eye: {
      ground: { lab: [70, 0, 3] },
      coat,
      target,
      handHeld: true,
      verdicts: [
        { coats: 2, view: 'sun face', verdict: 'lighter', hue: 'redder' },
        { coats: 3, view: 'shade', verdict: 'match' },
      ],
    },
    metamerism: { reference: flat(0.5), sample: flat(0.4), under: 'D65', test: 'A', observer: '10' },
    diffuseInterface: { n: 1.5 },
    kubelkaMunk: { k: 0.01, s: 0.05, thickness: 20, over: 0.5 },
    saunderson: { internal: 0.6, k1: 0.04, k2: 0.6 },
    mix: { parts: pour, total: 600 },
    quantity: { area: 10, coats: 2, dryFilm: 25, volumeSolids: 0.5, transferEfficiency: 0.5, loss: 30 },
    filmFromGun: { flow: 200, volumeSolids: 0.2, transferEfficiency: 0.65, speed: 50, fan: 25, overlap: 0.75 },
    order: {
      pieces: [
        { name: 'tub', x: 1, y: 1, area: 3, first: true },
        { name: 'back', x: 2, y: 1, area: 1 },
      ],
      airTowards: 90,
      openMinutes: 8,
      minutesPerM2: 2,
    },
    timeline: {
      tasks: [
        { id: 'a', minutes: 5, batch: 'cup' },
        { id: 'b', minutes: 5, after: [{ id: 'a', min: 10, max: 60 }], painter: false },
      ],
      batches: [{ id: 'cup', mixMinutes: 5, potMinutes: 60 }],
      now: 0,
    },
    ratio: { text: '2:1 + 10 %' },
    rescue: { parts: pour, total: 600, overpoured: 2, poured: 250 },
    voc: { parts: [{ ml: 400, voc: 500, water: 0.1, exempt: 0.1 }] },
    potLife: { minutesAt20: 60, temperature: 25 },
    flakeDose: {
      sizes: [{ size: 200, thickness: 12.5, density: 1.4, parts: 3 }],
      cover: 0.7,
      dryFilm: 20,
      volumeSolids: 0.2,
      most: 100,
    },
    flakeCover: { gramsPerM2: 20, thickness: 12.5, density: 1.4, shape: 1 },
    ripple: { fanWidth: 25, overlap: 0.5, profile: 'flat', plateau: 0.5 },
    flash: { minutesAt20: 10, temperature: 15, film: 1, humidity: 0.6, blown: true, chemistry: 'waterborne' },
    dewPoint: { temperature: 20, humidity: 0.5 },
    families: {},
    library: {},
    swatch: {
      layers: [
        { kind: 'ground', id: 'gold', coats: 2 },
        { kind: 'effect', id: 'cinder-candy', coats: 3, strength: 1.1, style: 'light' },
      ],
      geometries: [geometry],
    },
  };
  const finite = (value: unknown): boolean =>
    typeof value === 'number'
      ? Number.isFinite(value)
      : value !== null && typeof value === 'object'
        ? Object.values(value).every(finite)
        : true;

  it.each(Object.entries(WHOLE).filter(([, body]) => Object.keys(body).length > 0))(
    'answers or says what is wrong, whatever is put into %s, and never half an answer',
    (name, body) => {
      const whole = { ...body, do: name };
      const plain = ask(whole);
      expect(plain.ok && finite(plain.result)).toBe(true);
      const leaves = (v: unknown, at: string[] = []): string[][] =>
        v !== null && typeof v === 'object'
          ? Object.entries(v).flatMap(([k, w]) => [[...at, k], ...leaves(w, [...at, k])])
          : [];
      const value = fc.oneof(
        fc.constantFrom<unknown>(
          0,
          -1,
          1,
          0.5,
          2,
          100,
          1e-9,
          1e-300,
          1e9,
          1e300,
          '',
          'x',
          null,
          [],
          {},
          [[]],
          [null],
          true,
        ),
        fc.double({ min: -5, max: 300, noNaN: true }),
        fc.jsonValue({ maxDepth: 2 }),
      );
      fc.assert(
        fc.property(fc.constantFrom(...leaves(body)), value, fc.boolean(), (path, put, away) => {
          const asked = structuredClone(whole) as Record<string, unknown>;
          const inner = path.slice(0, -1).reduce((o, k) => o[k] as Record<string, unknown>, asked);
          if (away) delete inner[path.at(-1)!];
          else inner[path.at(-1)!] = put;
          const reply = ask(asked);
          if (reply.ok) expect(finite(reply.result)).toBe(true);
          else {
            expect(reply.error!.code).not.toBe('internal');
            expect(reply.error!.message).toMatch(/\.$/);
          }
        }),
        { numRuns: 150 },
      );
    },
  );

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
