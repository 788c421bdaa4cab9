import { describe, expect, it } from '@jest/globals';
import type { CalcName } from './schemas';
import fc from 'fast-check';
import { ask } from './testdata/ask';

describe('every kind of request', () => {
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
});
