import { START_AREAS } from '@steady-gleam/core/jobs';
import { describe, expect, it } from '@jest/globals';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { ValidationError, type Schema } from 'yup';
import {
  batchSchema,
  cardSchema,
  changeJobSchema,
  gunSchema,
  jobEventSchema,
  newJobSchema,
  newReadingSetSchema,
  ownMaterialSchema,
  productSchema,
  sprayPlanSchema,
  START_MIXING,
  START_PLAN,
  verdictEventSchema,
  familyLimitsSchema,
} from './index';

const id = '00000000-0000-4000-8000-000000000000';
const at = '2026-11-20T09:00:00.000Z';

/** One whole example of everything that is sent, with every part that may be there. */
const SAMPLES: Record<string, readonly [Schema, object]> = {
  'new job': [
    newJobSchema,
    {
      ...{ id, piece: 'Tub', finishId: id, matching: 'tub 5', family: 'candy', mixId: 'cinder-candy', coats: 3.4 },
      target: {
        ...{ id, kind: 'target', rungCoats: null, label: '', objectId: null, state: 'cleared', doubt: null },
        ...{ source: 'typed', takenAt: at },
        readings: [{ spot: '1', incidence: 45, aspecular: 15, l: 50, a: 0, b: 0 }],
      },
    },
  ],
  'changed job': [
    changeJobSchema,
    {
      version: 1,
      piece: 'Tub',
      matching: 'tub 5',
      status: 'open',
      pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet', controlCoats: 1 },
      stacks: [
        {
          id: 'main',
          name: 'whole piece',
          layers: [{ id: 'effect-1', kind: 'effect', materialId: 'x', coats: 3, style: 'wet', strength: 1, filmUm: 9 }],
        },
      ],
      filmLimitUm: 300,
      limits: { meeting: 'blend', own: [{ aspecular: 15, limit: 1.5 }], source: 'customer’s sheet' },
      objects: [{ id: 'a', name: 'Coach 1', counts: [{ finishId: 'main', coats: 3, lookAfter: 2 }] }],
      areas: [
        {
          ...START_AREAS[0]!,
          measures: { area: 2, width: 1, height: 1, diameter: 1, top: 1, bottom: 1, length: 1 },
          x: 1,
          y: 1,
        },
      ],
      mixing: {
        ...START_MIXING,
        products: { 'effect-1': id },
        reducers: { 'effect-1': 'slow' },
        added: { 'effect-1': [{ name: 'plum violet', ratio: 0.01, density: 0.97, dry: false }] },
        gunId: id,
      },
    },
  ],
  plan: [
    sprayPlanSchema,
    {
      ...START_PLAN,
      edits: {
        'effect/wet/1': {
          overlap: 0.5,
          distanceCm: 15,
          pressureBar: 1,
          turns: 2,
          tipMm: 1,
          speedCmS: 50,
          flashMinutes: 10,
        },
      },
      cells: [
        {
          areaId: 'tub',
          layerId: 'effect',
          coats: 2,
          reach: { kind: 'blend', endCm: 40, fadeCm: 15, stepCm: 10, from: 'the door' },
        },
      ],
      order: ['tub'],
      surfaceC: 20,
      startAt: at,
      passes: {
        profile: 'bell',
        fanCm: 25,
        overlap: 0.5,
        shift: 0,
        cross: false,
        marginCm: 5,
        panels: [100],
        walk: true,
        heightCm: 70,
        speedSd: 0.1,
        distanceSd: 0.1,
        aimSdCm: 1,
      },
      blend: { panels: [100], repairCm: 10, atCm: 20, layers: [{ id: 'effect-1', reachCm: 20, fadeCm: 10 }] },
    },
  ],
  card: [
    cardSchema,
    {
      id,
      rungs: [1, 2],
      gun: 'Gun 1',
      gunId: id,
      pressureBar: 1.4,
      onStand: true,
      settings: {
        ...{ sealer: 's', groundCoats: '2', reducer: 'r', temperatureC: 20, patches: true, sameInstrument: true },
        ...{ eyeLittle: 1, eyeClear: 3 },
        ...{ distanceCm: 15, tipMm: 1.3, overlap: 0.75, turns: 2 },
      },
    },
  ],
  product: [productSchema, STARTING_PRODUCTS[0]!],
  gun: [gunSchema, STARTING_GUNS[0]!],
  batch: [
    batchSchema,
    {
      id,
      jobId: id,
      layerId: 'effect',
      name: 'Cinder candy',
      productId: id,
      gunId: id,
      parts: [{ name: 'binder', role: 'product', parts: 8, ml: 100, grams: 94, lot: 'A1' }],
      ml: 100,
      temperatureC: 20,
      mixedAt: at,
      potMinutes: 60,
      solidMl: 20,
      volumeSolids: 0.2,
      lossMl: 40,
      vocActual: 700,
      vocCoating: 700,
      cost: 8,
      onCard: false,
      note: '',
    },
  ],
  readings: [
    newReadingSetSchema,
    {
      id,
      kind: 'target',
      rungCoats: null,
      source: 'typed',
      label: '',
      objectId: null,
      state: 'cleared',
      doubt: null,
      takenAt: at,
      readings: [{ spot: '1', incidence: 45, aspecular: 15, l: 50, a: 0, b: 0 }],
    },
  ],
  'limits of a family': [
    familyLimitsSchema,
    { family: 'candy', version: 1, own: [{ aspecular: 15, limit: 1.5 }], source: 'customer’s sheet' },
  ],
  verdict: [verdictEventSchema, { id, coats: 2, view: 'shade', verdict: 'match', hue: 'bluer', takenAt: at }],
  tap: [
    jobEventSchema,
    {
      id,
      at: 1,
      kind: 'look',
      cells: [{ coatId: 'a', areaId: 'b', layerId: 'c', name: 'candy', coats: 1, filmUm: 9 }],
      layerId: 'c',
      checkId: 'look',
      coats: 2,
      look: {
        spot: 'nose',
        view: 'lamp',
        verdict: 'match',
        hue: 'redder',
        patch: null,
        against: 'lid',
        photos: [id, id],
      },
      mend: null,
      text: 'a nib',
    },
  ],
  mend: [
    jobEventSchema,
    {
      id,
      at: 1,
      kind: 'mend',
      cells: [{ coatId: 'a', areaId: 'b' }],
      layerId: null,
      checkId: null,
      coats: null,
      look: null,
      mend: {
        way: 'faded',
        spot: 'nose',
        off: 'lighter at dusk',
        views: ['low light'],
        steps: [
          { is: 'work', kind: 'sand', text: 'P800', minutes: 0 },
          {
            ...{ is: 'coat', layerId: 'effect', style: 'light', share: 0.5, letDown: false, anew: false },
            reach: { kind: 'fan', acrossCm: 20, fadeCm: 8, m2: 0.02, from: 'nose' },
          },
        ],
      },
      text: 'Fade a light coat in',
    },
  ],
  ground: [
    ownMaterialSchema,
    {
      kind: 'ground',
      id,
      name: 'Fog',
      mark: 'fog',
      lab: [78, -3, 4],
      pigmentId: 'silver-fine',
      cover: 0.9,
      tintId: 'cinder-red',
      tintDepth: 1,
      hidesIn: 3,
      solids: [{ solidId: 'solid-white', parts: 2 }],
      pricePerLitre: 30,
    },
  ],
  pigment: [
    ownMaterialSchema,
    { kind: 'pigment', id, name: 'Blue', structure: 'titania-mica', filmNm: 120, sizeUm: 20, tilt: 6, edge: 0.1 },
  ],
  dye: [ownMaterialSchema, { kind: 'dye', id, name: 'Ours', bare: [70, 0, 1], dyed: [50, 40, 20], coats: 2 }],
  carrier: [
    ownMaterialSchema,
    {
      kind: 'carrier',
      id,
      name: 'Ours',
      chemistry: 'solvent',
      volumeSolids: 0.2,
      filmUm: 10,
      densityGPerMl: 0.95,
      flashMinutes: 10,
    },
  ],
  mix: [
    ownMaterialSchema,
    {
      kind: 'system',
      id,
      name: 'Ours',
      family: 'pearl',
      carrierId: 'binder',
      colours: [
        { kind: 'flake', id: 'blue', parts: null, strength: 0.2 },
        { kind: 'dye', id: 'cinder-red', parts: null, strength: 0.4 },
      ],
      carrierParts: null,
      strengthFrom: 'typed',
      drawdown: null,
      filmUm: 9,
      flashMinutes: 10,
      pricePerLitre: 60,
    },
  ],
};

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
