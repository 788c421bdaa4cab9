import { describe, expect, it } from '@jest/globals';
import { result } from './testdata/ask';

describe('worked examples', () => {
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
});
