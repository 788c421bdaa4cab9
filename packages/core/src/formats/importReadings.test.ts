import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { importReadings } from './importReadings';
import { angleInName, geometryIn } from './samples';
import { toCgats, toColourXml, toReadingsCsv } from './exportReadings';
import { mapToCsv } from './mapCsv';
import type { Reading } from './readings';

const reading = fc.record({
  spot: fc.constantFrom('nose', 'left door', 'tail "old"', '1'),
  incidence: fc.constantFrom(45, 15),
  aspecular: fc.constantFrom(-15, 15, 25, 45, 75),
  l: fc.double({ min: 0, max: 150, noNaN: true }),
  a: fc.double({ min: -90, max: 90, noNaN: true }),
  b: fc.double({ min: -90, max: 90, noNaN: true }),
});
const unique = fc.uniqueArray(reading, {
  minLength: 1,
  maxLength: 12,
  selector: (r) => `${r.spot}/${r.incidence}/${r.aspecular}`,
});
const problemsOf = (text: string): string[] => {
  const r = importReadings(text);
  return r.ok === false ? r.problems.map((p) => `${p.line ?? '-'}: ${p.message}`) : [];
};
const cgats = (fields: string, rows: readonly string[], sets = rows.length, extra = '') =>
  `CGATS.17\n${extra}NUMBER_OF_FIELDS ${fields.split(' ').length}\nBEGIN_DATA_FORMAT\n${fields}\nEND_DATA_FORMAT\nNUMBER_OF_SETS ${sets}\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;

describe('readings go out and come back', () => {
  it.each([
    ['CGATS', toCgats],
    ['XML', toColourXml],
    ['CSV', toReadingsCsv],
  ] as const)('as %s, to a thousandth', (format, write) => {
    fc.assert(
      fc.property(unique, (readings) => {
        const clean = readings.map((r): Reading => ({ ...r, spot: r.spot.replace(/"/g, '') }));
        const back = importReadings(write(clean));
        if (back.ok !== true) throw new Error(JSON.stringify(back));
        expect(back.format).toBe(format);
        back.readings.forEach((r, i) => {
          expect([r.spot, r.incidence, r.aspecular]).toEqual([
            clean[i]!.spot,
            clean[i]!.incidence,
            clean[i]!.aspecular,
          ]);
          for (const k of ['l', 'a', 'b'] as const) expect(Math.abs(r[k] - clean[i]![k])).toBeLessThan(6e-4);
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('CGATS text', () => {
  it('finds the angle in a column, a keyword or a name', () => {
    expect(geometryIn('45as15')).toEqual({ incidence: 45, aspecular: 15 });
    expect(geometryIn('nose as-15')).toEqual({ incidence: 45, aspecular: -15 });
    expect(geometryIn('45:0')).toEqual({ incidence: 45, aspecular: 45 });
    expect(geometryIn('door 4')).toBeNull();
    const named = importReadings(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"nose 45as25" 50 1 2']));
    expect(named.ok === true && named.readings[0]).toMatchObject({ spot: 'nose', aspecular: 25, l: 50 });
    const keyword = importReadings(
      cgats('SAMPLE_ID LAB_L LAB_A LAB_B', ['1 50 1 2'], 1, 'MEASUREMENT_GEOMETRY "45:0"\n'),
    );
    expect(keyword.ok === true && keyword.readings[0]!.aspecular).toBe(45);
  });

  it('asks for an angle nobody named, and for a scale that could be either', () => {
    const text = cgats('SAMPLE_ID LAB_L LAB_A LAB_B', ['1 50 1 2']);
    expect(importReadings(text)).toEqual({ ok: 'ask', question: { ask: 'angle' } });
    expect(importReadings(text, { aspecular: 45 }).ok).toBe(true);
    const waves = Array.from({ length: 31 }, (_, i) => 400 + 10 * i);
    const spectral = (v: number) =>
      cgats(`SAMPLE_NAME ${waves.map((w) => `SPECTRAL_NM_${w}`).join(' ')}`, [
        `"x 45as45" ${waves.map(() => v).join(' ')}`,
      ]);
    const flat = importReadings(spectral(0.5));
    const percent = importReadings(spectral(50));
    // A flat half is L* 76.07 (CIE 15: 116 * 0.5^(1/3) - 16).
    for (const r of [flat, percent]) expect(r.ok === true && r.readings[0]!.l).toBeCloseTo(76.07, 1);
    expect(importReadings(spectral(3)).ok).toBe('ask');
    expect(importReadings(spectral(3), { percent: true }).ok).toBe(true);
  });

  it('says by line what is wrong, and takes nothing', () => {
    expect(problemsOf(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"a 45as15" 50 1 2'], 3))).toEqual([
      '6: NUMBER_OF_SETS says 3, but there are 1 lines of data.',
    ]);
    expect(problemsOf(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"a 45as15" 50 1'])).join()).toContain(
      '8: This line has 3 values',
    );
    const comma = importReadings(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"a 45as15" 50,3 1 -2,5']));
    expect(comma.ok === true && comma.readings[0]).toMatchObject({ l: 50.3, b: -2.5 });
    expect(problemsOf(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"a 45as15" 250 1 2'])).join()).toContain(
      'between 0 and 200',
    );
    expect(problemsOf(cgats('SAMPLE_NAME XYZ_X XYZ_Y XYZ_Z', ['"a" 1 2 3'])).join()).toContain('neither LAB_L');
    expect(
      problemsOf('CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2 3').join(),
    ).toContain('never closed');
  });
});

/** Names that painters give to samples and panels; none of them names an angle. */
const ORDINARY = [
  '27/11 left door',
  'canvas 3',
  '11/27',
  '27-11-2026',
  '12:30 after lunch',
  'panel 4/2',
  'door 4',
  'gas 15',
  'atlas15',
  'Kansas 45',
  '3/4 of the tub',
  'left as 15',
  'same as 45',
  'as 15',
  'brass 25',
  'glass-110',
  'mass 45:15',
  'No. 45/0 b',
  'v1.2as15',
  'bias-15',
  'rung 2, 15 min',
  'tub 7 (45)',
  '45',
  '15°C booth',
  'R45:2 mix',
  'lot 45/15',
  'Las 2',
  'ASA 25',
  'Dallas25',
  '2:1 + 10 %',
  '45deg',
  'lid 110 mm',
  'bus as45b',
  'gondola 12/13',
  'Texas-15',
  'alas 45',
  'asphalt 15',
  'as',
  '1as',
  'spot 1as999',
];

describe('sample names', () => {
  it('are forty', () => expect(new Set(ORDINARY).size).toBe(40));

  it.each(ORDINARY)('“%s” names no angle: it is kept whole, and the angle is asked for', (name) => {
    expect(angleInName(name)).toBeNull();
    const file = cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', [`"${name}" 50 1 2`]);
    expect(importReadings(file)).toEqual({ ok: 'ask', question: { ask: 'angle' } });
    const told = importReadings(file, { aspecular: 45 });
    expect(told.ok === true && told.readings[0]).toMatchObject({ spot: name, aspecular: 45, incidence: 45 });
  });

  it.each([
    ['nose 45as15', 'nose', 45, 15],
    ['45as-15 tail', 'tail', 45, -15],
    ['door_45as110', 'door', 45, 110],
    ['lid as25', 'lid', 45, 25],
    ['15as45', '1', 15, 45],
  ] as const)('“%s” names its angle', (name, spot, incidence, aspecular) => {
    const read = importReadings(cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', [`"${name}" 50 1 2`]));
    expect(read.ok === true && read.readings[0]).toMatchObject({ spot, incidence, aspecular });
  });
});

describe('a large or mangled file', () => {
  const within = (ms: number, text: string) => {
    const began = Date.now();
    const found = importReadings(text);
    expect(Date.now() - began).toBeLessThan(ms);
    return found;
  };

  it('is read in time that grows with its size, and says in a sentence what it is not', () => {
    const good = cgats('SAMPLE_NAME LAB_L LAB_A LAB_B', ['"nose 45as15" 50 1 2']);
    // Blank lines at its end once took 12 s for 60 kB.
    expect(within(2000, `${good}${'\n'.repeat(900_000)}`).ok).toBe(true);
    expect(within(2000, `spot,aspecular,L,a,b\n1,45,50,1,2\n${' \n'.repeat(450_000)}`).ok).toBe(true);
    for (const text of [
      '\n'.repeat(990_000),
      ' '.repeat(990_000),
      `"${'a '.repeat(490_000)}`,
      `CGATS.17\nBEGIN_DATA_FORMAT\n${'LAB_L '.repeat(160_000)}`,
      '<a>'.repeat(320_000),
      `<a>${'<b c="'.repeat(150_000)}`,
      `<!${' '.repeat(980_000)}`,
      '1;'.repeat(490_000),
    ]) {
      const found = within(8000, text);
      expect(found.ok === false && found.problems[0]!.message).toMatch(/^[A-Z].*\.?/);
    }
  }, 60_000);

  it('with a hundred thousand wavelengths does not end the program', () => {
    const values = Array.from({ length: 150_000 }, () => '0.5').join(' ');
    const text = `<CxF><Resources><ObjectCollection><Object Name="x 45as45"><ColorValues><ReflectanceSpectrum StartWL="400">${values}</ReflectanceSpectrum></ColorValues></Object></ObjectCollection></Resources></CxF>`;
    expect(importReadings(text).ok).toBe(true);
  });
});

describe('what goes out to spreadsheets', () => {
  it('holds figures as figures and no name that would be computed', () => {
    const readings: Reading[] = ['=1+1', '+cmd', '-2', '@x', 'a,b', 'say "x"'].map((spot, i) => ({
      spot,
      incidence: 45,
      aspecular: -15,
      l: 50 + i,
      a: -8.8712,
      b: -0.5,
    }));
    const text = toReadingsCsv(readings);
    for (const line of text.split('\n').slice(1))
      for (const cell of line.split(',')) expect(cell).not.toMatch(/^"?[=+@]|^"?-(?![\d.])/);
    expect(text).toContain(',-15,50,-8.871,-0.5');
    const back = importReadings(text);
    expect(back.ok === true && back.readings.map((r) => r.spot)).toEqual(readings.map((r) => r.spot));
  });

  it('a match map keeps its negative figures as figures', () => {
    const target = [{ incidence: 45, aspecular: 15, lab: [50, -8, -30] as const, tolerance: 1.5 }];
    const score = { toleranceRatio: 0.8, rmsDe: 1.2, differences: [1.2] };
    const cell = { coats: 2, labs: [[50, -8.87, -30.5] as const], score };
    const map = { rows: [{ groundId: 'white', cells: [cell] }] };
    expect(mapToCsv(map, target).split(/\r?\n/)[1]).toBe('Bright white,2,1.2,0.8,yes,50,-8.87,-30.5,1.2');
  });
});

describe('XML', () => {
  it('refuses document types and entities, and says where XML breaks', () => {
    const bomb = '<?xml version="1.0"?>\n<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]>\n<CxF>&e;</CxF>';
    expect(problemsOf(bomb)).toEqual(['2: This XML declares a document type or entities. Export it without them.']);
    expect(problemsOf('<CxF><Object></CxF>')[0]).toContain('not well-formed');
    expect(problemsOf('<CxF></CxF>')[0]).toContain('no readings');
  });

  it('reads spectra by their specification', () => {
    const values = Array.from({ length: 31 }, () => '0.5').join(' ');
    const text = `<cc:CxF xmlns:cc="x"><cc:Resources><cc:ObjectCollection><cc:Object Name="door"><cc:ColorValues>
      <cc:ReflectanceSpectrum ColorSpecification="M1" StartWL="400">${values}</cc:ReflectanceSpectrum></cc:ColorValues></cc:Object></cc:ObjectCollection>
      <cc:ColorSpecificationCollection><cc:ColorSpecification Id="M1"><cc:MeasurementSpec><cc:GeometryChoice><cc:SingleAngle><cc:IlluminationAngle>45</cc:IlluminationAngle><cc:MeasurementAngle>30</cc:MeasurementAngle></cc:SingleAngle></cc:GeometryChoice></cc:MeasurementSpec></cc:ColorSpecification></cc:ColorSpecificationCollection></cc:Resources></cc:CxF>`;
    const found = importReadings(text);
    expect(found.ok === true && found.readings[0]).toMatchObject({ spot: 'door', incidence: 45, aspecular: 15 });
    expect(found.ok === true && found.readings[0]!.l).toBeCloseTo(76.07, 1);
  });
});

describe('any file', () => {
  it('asks which column is which, and takes the answer', () => {
    const text = 'Where;Winkel;Helligkeit;rot;gelb\nnose;15;50;1;2\n';
    const asked = importReadings(text);
    expect(asked).toMatchObject({
      ok: 'ask',
      question: { ask: 'columns', header: ['Where', 'Winkel', 'Helligkeit', 'rot', 'gelb'] },
    });
    const told = importReadings(text, { columns: { spot: 0, aspecular: 1, l: 2, a: 3, b: 4 } });
    expect(told.ok === true && told.readings[0]).toEqual({
      spot: 'nose',
      incidence: 45,
      aspecular: 15,
      l: 50,
      a: 1,
      b: 2,
    });
  });

  it('never throws, whatever it is given', () => {
    fc.assert(fc.property(fc.string({ maxLength: 400 }), (text) => importReadings(text).ok !== undefined));
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (inner) => importReadings(`<a>${inner}</a>`).ok !== undefined),
    );
  });
});
