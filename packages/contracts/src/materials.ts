import { array, number, object, string, type InferType } from 'yup';
import {
  COLOUR_KINDS,
  FILM_NM,
  type ColourKind,
  type FlakeStructure,
  type OwnMaterial,
} from '@steady-gleam/core/materials';
import { endpoint } from './endpoint';
import { figure, maybeFigure, schemaBy, trimmed, version, versionOrNew } from './figures';
import { FAMILY_IDS, type FinishFamily } from '@steady-gleam/core/finishes';
import type { StrengthSource } from '@steady-gleam/core/materials';

const base = (kind: OwnMaterial['kind']) => ({
  kind: string().oneOf([kind]).required(),
  id: string().uuid().required(),
  name: trimmed().required('Give it a name.').max(40, 'Keep the name under 40 letters.'),
});

const lab = (what: string) =>
  array(number().typeError(`${what}: L*, a* and b* must be numbers.`).required(`${what}: L*, a* and b* are needed.`))
    .required(`${what} is missing.`)
    .length(3, `${what}: L*, a* and b* are needed.`)
    .test(
      'lightness',
      `${what}: L* lies between 1 and 100 for a solid.`,
      (v) => v === undefined || v.length < 1 || (v[0]! >= 1 && v[0]! <= 100),
    )
    .test(
      'chromatic',
      `${what}: a* and b* lie between -128 and 128.`,
      (v) => v === undefined || v.slice(1).every((x) => Math.abs(x) <= 128),
    );

/** Colours of a mix, or of a ground. */
export const MOST_COLOURS = 10;

const price = figure('The price', 0, 10000);
/** Parts as on a sheet; empty where they are not known. */
const parts = maybeFigure('Parts', 0.001, 10_000);
const structures = Object.keys(FILM_NM) as FlakeStructure[];

export const ownGroundSchema = object({
  ...base('ground'),
  mark: trimmed()
    .required('Give it a short mark for the map.')
    .max(13, 'Thirteen letters at most: it stands beside the row.'),
  lab: lab('The reading'),
  pigmentId: string().nullable().max(60).default(null),
  cover: figure('The cover', 0.05, 0.99).default(0.93),
  tintId: string().nullable().max(60).default(null),
  tintDepth: figure('The tint', 0.01, 10).default(1),
  hidesIn: figure('The coats until it hides', 0.5, 60).default(3),
  solids: array(
    object({ solidId: string().required('Choose the base colour.').max(60), parts: figure('The parts', 0.001, 10_000) })
      .noUnknown()
      .required(),
  )
    .max(MOST_COLOURS, `${MOST_COLOURS} base colours at most.`)
    .default(() => []),
  pricePerLitre: price,
}).noUnknown();

export const ownPigmentSchema = object({
  ...base('pigment'),
  structure: string()
    .oneOf(structures, 'Choose what the flake is made of.')
    .required('Choose what the flake is made of.'),
  filmNm: figure('The film', 1, 2000, ' nm').when('structure', ([structure], s) => {
    const range = FILM_NM[structure as FlakeStructure];
    return range
      ? s
          .min(range[0], `A film of this kind is at least ${range[0]} nm thick.`)
          .max(range[1], `A film of this kind is at most ${range[1]} nm thick.`)
      : s;
  }),
  sizeUm: figure('The flake size', 3, 1000, ' µm'),
  tilt: figure('The tilt', 2, 20, '°'),
  edge: figure('The edge share', 0, 0.5),
}).noUnknown();

export const ownDyeSchema = object({
  ...base('dye'),
  bare: lab('The bare drawdown'),
  dyed: lab('The dyed drawdown').test('darker', 'The dyed drawdown must be darker than the bare one.', (v, context) => {
    const bare = (context.parent as { bare?: number[] }).bare;
    return !v || !bare || v.length < 3 || bare.length < 3 || v[0]! < bare[0]!;
  }),
  coats: figure('The coats', 0.5, 12),
}).noUnknown();

export const ownCarrierSchema = object({
  ...base('carrier'),
  chemistry: string()
    .oneOf(['solvent', 'waterborne', 'two-pack'] as const, 'Choose its chemistry.')
    .required('Choose its chemistry.'),
  volumeSolids: figure('The volume solids', 0.02, 1),
  filmUm: figure('The film of a coat', 1, 200, ' µm'),
  densityGPerMl: figure('The density', 0.6, 2, ' g/ml'),
  flashMinutes: figure('The flash', 1, 240, ' min'),
}).noUnknown();

export const ownSystemSchema = object({
  ...base('system'),
  family: string()
    .oneOf<FinishFamily>([...FAMILY_IDS])
    .required('Choose the finish family.'),
  carrierId: string().required('Choose the carrier.').max(60),
  carrierParts: parts,
  colours: array(
    object({
      kind: string()
        .oneOf<ColourKind>([...COLOUR_KINDS], 'Choose what colours it.')
        .required('Choose what colours it.'),
      id: string().required('Choose what colours it.').max(60),
      parts,
      strength: figure('The strength', 0.001, 30).when('kind', ([kind], s) => {
        if (kind === 'flake') return s.max(0.98, 'The cover of a coat is at most 0.98.');
        return kind === 'solid' ? s.max(1, 'A base colour is all of the film at most: 1.') : s;
      }),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .min(1, 'A mix needs a pigment, a dye or a base colour.')
    .max(MOST_COLOURS, `${MOST_COLOURS} colours at most.`)
    .test('shares', 'The shares of the base colours come to more than the whole film.', (v) => {
      const solids = (v ?? []).filter((c) => c?.kind === 'solid');
      return solids.reduce((sum, c) => sum + Number(c.strength ?? 0), 0) <= 1 + 1e-6;
    }),
  strengthFrom: string().oneOf<StrengthSource>(['parts', 'typed', 'drawdown']).required(),
  drawdown: object({
    groundId: string().required('Choose the ground.').max(60),
    coats: figure('The coats', 0.5, 12),
    lab: lab('The drawdown'),
  })
    .noUnknown()
    .nullable()
    .defined(),
  filmUm: figure('The film of a coat', 1, 100, ' µm'),
  flashMinutes: figure('The flash', 1, 240, ' min'),
  pricePerLitre: price,
}).noUnknown();

const schemas = {
  ground: ownGroundSchema,
  pigment: ownPigmentSchema,
  dye: ownDyeSchema,
  carrier: ownCarrierSchema,
  system: ownSystemSchema,
};

/** Schema of one of a shop's own materials, by its kind. */
export const ownMaterialSchema = schemaBy<OwnMaterial>(
  (value) => schemas[(value as { kind?: keyof typeof schemas } | undefined)?.kind ?? 'ground'] ?? ownGroundSchema,
);

export const storedMaterialSchema = object({
  version,
  material: ownMaterialSchema,
});
export type StoredMaterial = Omit<InferType<typeof storedMaterialSchema>, 'material'> & { material: OwnMaterial };

export const putMaterialSchema = object({
  version: versionOrNew,
  material: ownMaterialSchema,
}).noUnknown();
const removeMaterialSchema = object({ version }).noUnknown();

export const materialsApi = {
  list: endpoint({
    method: 'GET',
    path: '/api/materials',
    body: null,
    reply: array(storedMaterialSchema.required()).required(),
  }),
  put: endpoint({ method: 'PUT', path: '/api/materials/:id', body: putMaterialSchema, reply: storedMaterialSchema }),
  remove: endpoint({ method: 'DELETE', path: '/api/materials/:id', body: removeMaterialSchema, reply: object({}) }),
} as const;
