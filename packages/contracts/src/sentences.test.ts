import { describe, expect, it } from '@jest/globals';
import { ValidationError, type Schema } from 'yup';
import { SAMPLES } from './testdata/samples';

type Path = readonly string[];

/** What a painter types, and so is answered in sentences made for it; the last names of their paths. */
const TYPED = new Set(
  (
    'piece matching name area width height diameter top bottom length count filmLimitUm filmUm temperatureC humidity overlap ' +
    'distanceCm pressureBar turns tipMm speedCmS flashMinutes surfaceC fanCm heightCm repairCm atCm reachCm fadeCm gun ' +
    'sealer groundCoats reducer ratio densityGPerMl volumeSolids filmUm vocGPerL waterShare exemptShare recoatMinutes ' +
    'potLifeMinutes fromC toC pricePerLitre note lot lossMl transfer flowMlMin spot incidence aspecular l a b ' +
    'mark cover tintDepth hidesIn filmNm sizeUm tilt edge strength'
  ).split(' '),
);
/** Lists a painter types, figure by figure. */
const TYPED_LISTS = new Set(['lab', 'bare', 'dyed', 'rungs', 'panels']);
const isTyped = (path: Path): boolean => TYPED.has(path.at(-1)!) || TYPED_LISTS.has(path.at(-2) ?? '');
const TYPED_VALUES: readonly unknown[] = ['', '   ', 'x', -1e6, 1e9, NaN, 'a'.repeat(3000)];
const OTHER_VALUES: readonly unknown[] = [undefined, null, [], {}, true, [null], 0.5];

const pathsOf = (value: unknown, at: Path = []): Path[] =>
  value !== null && typeof value === 'object'
    ? Object.keys(value).flatMap((k) => [[...at, k], ...pathsOf((value as Record<string, unknown>)[k], [...at, k])])
    : [];
function replaced(sample: object, path: Path, value: unknown): object {
  const copy = structuredClone(sample);
  const inner = path.slice(0, -1).reduce((o, k) => o[k] as Record<string, unknown>, copy as Record<string, unknown>);
  if (value === undefined) delete inner[path.at(-1)!];
  else inner[path.at(-1)!] = value;
  return copy;
}

/** Everything said of a sample with one value put wrong; empty when it is taken. @throws what is no answer to a client */
function said(schema: Schema, body: object): ValidationError[] {
  try {
    schema.validateSync(body, { abortEarly: false });
    return [];
  } catch (error) {
    if (error instanceof ValidationError) return error.inner.length ? error.inner : [error];
    throw error;
  }
}

describe.each(Object.entries(SAMPLES))('what is said of a wrong %s', (_, [schema, sample]) => {
  const paths = pathsOf(sample);

  it('is nothing when it is right, and it comes out as it went in', () => {
    expect(said(schema, sample)).toEqual([]);
    expect(schema.validateSync(sample)).toEqual(sample);
  });

  it('is a whole sentence, and never a fault of the program', () => {
    for (const path of paths)
      for (const value of [...TYPED_VALUES, ...OTHER_VALUES])
        for (const { message } of said(schema, replaced(sample, path, value))) {
          expect(message).toMatch(/^.{4,}\.$/);
          expect(message).not.toMatch(/`|required field|following values|unspecified keys|NaN/);
        }
  });

  it('is made for the field where a painter types, at that field', () => {
    for (const path of paths.filter(isTyped))
      for (const value of TYPED_VALUES)
        for (const e of said(schema, replaced(sample, path, value))) {
          expect(e.message).toMatch(/^([A-Z0-9“]|[ab]\* )/);
          expect(e.message).not.toContain('what belongs there');
          expect(e.path).toBeTruthy();
        }
  });
});
