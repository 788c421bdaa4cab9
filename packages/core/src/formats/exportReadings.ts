import Papa from 'papaparse';
import type { Reading } from './readings';

const fixed = (v: number) => v.toFixed(3);
/** Readings as CGATS text (ISO 28178), the geometry in a column. */
export function toCgats(readings: readonly Reading[], originator = 'Steady Gleam'): string {
  return [
    'CGATS.17',
    `ORIGINATOR "${originator.replace(/"/g, "'")}"`,
    'NUMBER_OF_FIELDS 6',
    'BEGIN_DATA_FORMAT',
    'SAMPLE_ID SAMPLE_NAME GEOMETRY LAB_L LAB_A LAB_B',
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${readings.length}`,
    'BEGIN_DATA',
    ...readings.map(
      (r, i) =>
        `${i + 1} "${r.spot.replace(/"/g, "'")}" ${r.incidence}as${r.aspecular} ${[r.l, r.a, r.b].map(fixed).join(' ')}`,
    ),
    'END_DATA',
    '',
  ].join('\n');
}

const escapeXml = (s: string) =>
  s.replace(/[<>&"']/g, (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;', "'": '&apos;' })[c]!);
/** Readings as XML colour objects in the manner of ISO 17972. */
export function toColourXml(readings: readonly Reading[]): string {
  const specs = [...new Map(readings.map((r) => [`${r.incidence}as${r.aspecular}`, r])).entries()];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<CxF>',
    '  <Resources>',
    '    <ObjectCollection>',
    ...readings.map(
      (r, i) =>
        `      <Object ObjectType="Standard" Name="${escapeXml(r.spot)}" Id="o${i + 1}"><ColorValues><ColorCIELab ColorSpecification="${r.incidence}as${r.aspecular}"><L>${fixed(r.l)}</L><A>${fixed(r.a)}</A><B>${fixed(r.b)}</B></ColorCIELab></ColorValues></Object>`,
    ),
    '    </ObjectCollection>',
    '    <ColorSpecificationCollection>',
    ...specs.map(
      ([id, r]) =>
        `      <ColorSpecification Id="${id}"><TristimulusSpec><Illuminant>D65</Illuminant><Observer>10_Degree</Observer></TristimulusSpec><MeasurementSpec><GeometryChoice><SingleAngle><IlluminationAngle>${r.incidence}</IlluminationAngle><AspecularAngle>${r.aspecular}</AspecularAngle></SingleAngle></GeometryChoice></MeasurementSpec></ColorSpecification>`,
    ),
    '    </ColorSpecificationCollection>',
    '  </Resources>',
    '</CxF>',
    '',
  ].join('\n');
}

/**
 * Readings as the CSV that {@link parseReadingsCsv} takes. Names that a spreadsheet would compute are escaped.
 * @param exact every digit is kept, so that they are read back as the same numbers
 */
export function toReadingsCsv(readings: readonly Reading[], exact = false): string {
  const figure = (v: number) => (exact ? v : Number(fixed(v)));
  const rows = readings.map((r) => [r.spot, r.incidence, r.aspecular, figure(r.l), figure(r.a), figure(r.b)]);
  return `${Papa.unparse([['spot', 'incidence', 'aspecular', 'L', 'a', 'b'], ...rows], { escapeFormulae: true, newline: '\n' })}\n`;
}
