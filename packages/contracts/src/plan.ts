import type { CellEdit } from '@steady-gleam/core/jobs';
import type { CoatEdit, FanProfile, School } from '@steady-gleam/core/spraying';
import { START_SETTINGS } from '@steady-gleam/core/jobs';
import { array, boolean, number, object, string, type InferType, type Schema } from 'yup';
import { figure, keyed, moment, choiceOf } from './figures';

/** What a painter may change of a planned coat. */
export const coatEditSchema = object({
  overlap: figure('The overlap', 0, 0.95).optional(),
  distanceCm: figure('The distance', 3, 90, ' cm').optional(),
  pressureBar: figure('The pressure', 0.2, 8, ' bar').optional(),
  turns: figure('The turns', 0.1, 8).optional(),
  tipMm: figure('The tip', 0.1, 4, ' mm').optional(),
  speedCmS: figure('The speed', 3, 200, ' cm/s').optional(),
  flashMinutes: figure('The flash', 0.5, 600, ' min').optional(),
}).noUnknown();

const edits: Schema<Record<string, CoatEdit>> = keyed(coatEditSchema);

export const passSettingsSchema = object({
  profile: string().oneOf<FanProfile>(['bell', 'elliptical', 'flat']).required(),
  fanCm: figure('The fan', 1, 60, ' cm'),
  overlap: figure('The overlap', 0, 0.9),
  shift: figure('The shift', 0, 1),
  cross: boolean().required(),
  marginCm: figure('The trigger margin', -20, 40, ' cm'),
  panels: array(figure('A panel', 5, 600, ' cm'))
    .required()
    .min(1, 'One panel at least.')
    .max(8, 'Eight panels at most.'),
  walk: boolean().required(),
  heightCm: figure('The height', 10, 300, ' cm'),
  /** Scatter of the hand, fractions and cm. */
  speedSd: figure('The speed’s scatter', 0, 0.5),
  distanceSd: figure('The distance’s scatter', 0, 0.5),
  aimSdCm: figure('The aim’s scatter', 0, 10, ' cm'),
}).noUnknown();
export type PassSettings = InferType<typeof passSettingsSchema>;

export const blendSettingsSchema = object({
  /** Panels in a row, cm, from the one with the repair outward; breaks lie between them. */
  panels: array(figure('A panel', 10, 600, ' cm'))
    .required()
    .min(1)
    .max(6, 'Six panels at most.'),
  repairCm: figure('The repair', 1, 200, ' cm'),
  /** Where it lies from the left edge of the first panel. */
  atCm: figure('The place', 0, 600, ' cm'),
  layers: array(
    object({
      id: string().max(80).required(),
      reachCm: figure('The reach', 1, 2000, ' cm'),
      fadeCm: figure('The fade', 0, 1000, ' cm'),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(30),
}).noUnknown();
export type BlendSettings = InferType<typeof blendSettingsSchema>;

/** How far a coat goes on an area. */
const reachSchema = object({
  kind: string()
    .oneOf(['all', 'none', 'spot', 'blend'] as const)
    .required(),
  m2: figure('The spot', 0.001, 200, ' m²').when('kind', { is: 'spot', otherwise: (f) => f.optional() }),
  endCm: figure('The end of the blend', 1, 2000, ' cm').when('kind', { is: 'blend', otherwise: (f) => f.optional() }),
  fadeCm: figure('The fade', 0, 1000, ' cm').when('kind', { is: 'blend', otherwise: (f) => f.optional() }),
  stepCm: figure('The step', 0, 200, ' cm').when('kind', { is: 'blend', otherwise: (f) => f.optional() }),
  from: string()
    .max(40, 'Keep it under 40 letters.')
    .when('kind', { is: 'blend', then: (f) => f.defined(), otherwise: (f) => f.optional() }),
}).noUnknown();

/** How far a coat of a mend goes: over all, or about one place. */
export const mendReachSchema = object({
  kind: string()
    .oneOf(['all', 'fan'] as const)
    .required(),
  m2: figure('The spot', 0.0001, 200, ' m²').when('kind', { is: 'fan', otherwise: (f) => f.optional() }),
  acrossCm: figure('The spot', 0, 2000, ' cm').when('kind', { is: 'fan', otherwise: (f) => f.optional() }),
  fadeCm: figure('The fade', 0, 1000, ' cm').when('kind', { is: 'fan', otherwise: (f) => f.optional() }),
  from: string()
    .max(40, 'Keep it under 40 letters.')
    .when('kind', { is: 'fan', then: (f) => f.defined(), otherwise: (f) => f.optional() }),
}).noUnknown();

/** What a painter changed of a layer on one area. */
export const cellEditSchema = choiceOf<CellEdit>()(
  object({
    areaId: string().max(60).required(),
    layerId: string().max(160).required(),
    coats: number()
      .typeError('Coats must be a number.')
      .min(0, 'No fewer than none.')
      .max(14, 'At most 14 coats.')
      .nullable()
      .defined(),
    reach: reachSchema.nullable().default(null).defined(),
  }).noUnknown(),
);

/** How a job is sprayed; kept with the job. */
export const sprayPlanSchema = object({
  school: string().oneOf<School>(['wet', 'mist']).required(),
  grip: boolean().required(),
  tack: boolean().required(),
  blown: boolean().required(),
  bake: boolean().required(),
  airTowards: figure('The air', 0, 360, '°'),
  order: array(string().max(60).required()).nullable().defined().max(40),
  edits,
  cells: array(cellEditSchema.required())
    .max(600)
    .default(() => []),
  /** Least wait before two-pack clear over solvent or water base, minutes; null for the usual one. */
  beforeClearMinutes: number()
    .typeError('The wait before clear must be a number, or empty.')
    .min(0, 'The wait before clear can’t be below 0 min.')
    .max(1440, 'The wait before clear can’t be above 1440 min.')
    .nullable()
    .default(null),
  /** When the first coat goes on; null for now. */
  startAt: moment().nullable().defined(),
  /** Of the piece, C; null for the booth's own temperature. */
  surfaceC: number()
    .typeError('The surface’s temperature must be a number.')
    .min(-20, 'At least -20 °C.')
    .max(80, 'At most 80 °C.')
    .nullable()
    .defined(),
  passes: passSettingsSchema.nullable().defined(),
  blend: blendSettingsSchema.nullable().defined(),
}).noUnknown();
export type SprayPlan = InferType<typeof sprayPlanSchema>;

/** Before the painter changed anything. */
export const START_PLAN: SprayPlan = {
  ...START_SETTINGS,
  ...{ order: null, edits: {}, cells: [], beforeClearMinutes: null },
  ...{ startAt: null, surfaceC: null, passes: null, blend: null },
};
