import { XMLValidator, XMLParser } from 'fast-xml-parser';
import { type ImportHints, type ImportResult, fail, type RawSample, angleInName, toReadings } from './samples';

type Node = { readonly [key: string]: unknown };
/** A value of the file as text; empty for what is no single value. */
const textOf = (v: unknown): string => (typeof v === 'string' || typeof v === 'number' ? String(v) : '');
const list = (v: unknown): Node[] => (Array.isArray(v) ? v : v === undefined ? [] : [v]) as Node[];
/** First value under a key that matches, however deep. */
function deep(node: unknown, key: RegExp): string | null {
  if (typeof node !== 'object' || node === null) return null;
  for (const [name, value] of Object.entries(node)) {
    if (key.test(name) && typeof value !== 'object') return String(value);
    const found = deep(value, key);
    if (found !== null) return found;
  }
  return null;
}

function objectsOf(node: unknown): Node[] {
  if (typeof node !== 'object' || node === null) return [];
  return Object.entries(node).flatMap(([name, value]) =>
    name === 'Object' ? list(value) : Array.isArray(value) ? value.flatMap(objectsOf) : objectsOf(value),
  );
}

/**
 * XML with colour objects in the manner of ISO 17972: Object elements with ColorValues of a ReflectanceSpectrum or a ColorCIELab,
 * angles from the ColorSpecification they name or from the object's name. Element names from memory. Document types and
 * entities are refused: a file of readings needs none, and they can reach outside.
 */
export function parseColourXml(text: string, hints: ImportHints = {}): ImportResult {
  const declared = text.split(/\r?\n/).findIndex((l) => /<!\s*(DOCTYPE|ENTITY)/i.test(l));
  if (declared >= 0)
    return fail(declared + 1, 'This XML declares a document type or entities. Export it without them.');
  const valid = XMLValidator.validate(text);
  if (valid !== true) return fail(valid.err.line, `This is not well-formed XML: ${valid.err.msg}`);
  const root = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    removeNSPrefix: true,
    parseTagValue: false,
    processEntities: false,
  }).parse(text) as Node;
  const specs = new Map<string, { incidence: number; aspecular: number }>();
  const collect = (node: unknown): void => {
    if (typeof node !== 'object' || node === null) return;
    for (const [name, value] of Object.entries(node)) {
      if (name === 'ColorSpecification' && typeof value === 'object')
        for (const spec of list(value)) {
          const id = spec['@Id'];
          const aspecular = deep(spec, /aspecular/i);
          const lamp = Number(deep(spec, /illuminationangle/i) ?? 45);
          const view = deep(spec, /measurementangle/i);
          if (typeof id !== 'string') continue;
          if (aspecular !== null) specs.set(id, { incidence: lamp, aspecular: Number(aspecular) });
          else if (view !== null) specs.set(id, { incidence: lamp, aspecular: lamp - Number(view) });
        }
      else if (Array.isArray(value)) value.forEach(collect);
      else collect(value);
    }
  };
  collect(root);
  const samples = objectsOf(root).flatMap((object): RawSample[] => {
    const name = textOf(object['@Name'] ?? object['@Id']);
    return list(object['ColorValues']).flatMap((values) => {
      const geometryOf = (v: Node) => specs.get(String(v['@ColorSpecification'])) ?? angleInName(name);
      const spectra = list(values['ReflectanceSpectrum']).map((v): RawSample => {
        const start = Number(v['@StartWL'] ?? 400);
        const numbers = textOf(v['#text']).trim().split(/\s+/).map(Number);
        // Without a stated step the values are taken to end where the visible range usually does in tens.
        const step = Number(v['@IncrementWL'] ?? v['@Increment'] ?? 10);
        return {
          line: null,
          name,
          geometry: geometryOf(v),
          lab: null,
          spectrum: numbers.map((n, i) => [start + i * step, n] as const),
        };
      });
      if (spectra.length) return spectra;
      return list(values['ColorCIELab']).map((v): RawSample => ({
        line: null,
        name,
        geometry: geometryOf(v),
        lab: [Number(v['L']), Number(v['A']), Number(v['B'])],
        spectrum: null,
      }));
    });
  });
  return toReadings(samples, 'XML', hints);
}
