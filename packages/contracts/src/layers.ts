import { LAYER_NAMES, STYLES, type StackLayerKind, type StyleId } from '@steady-gleam/core/finishes';
import { array, number, object, string, type InferType } from 'yup';
import { figure, trimmed } from './figures';

/** Material ids are those of the library or of the shop's own materials; the server checks that they are there. */
export const materialId = (missing: string) => string().max(60).required(missing);
const styleIds = Object.keys(STYLES) as StyleId[];

/** What the painter picked on the match map. */
export const recipeSchema = object({
  groundId: materialId('Choose a ground.'),
  coats: number().min(0.5).max(12).required(),
  strength: figure('The strength', 0.3, 3),
  style: string().oneOf(styleIds).required(),
  controlCoats: number().min(0).max(4).required(),
}).noUnknown();
export type Recipe = InferType<typeof recipeSchema>;

const layerKinds = Object.keys(LAYER_NAMES) as StackLayerKind[];

/** Coats of one kind in a stack. */
export const stackLayerSchema = object({
  id: string().max(160).required(),
  kind: string().oneOf(layerKinds).required(),
  materialId: string()
    .max(60)
    .nullable()
    .defined()
    .test('needed', 'Choose what is laid here.', (v, context) => {
      const { kind } = context.parent as { kind?: StackLayerKind };
      return (kind !== 'ground' && kind !== 'effect') || !!v;
    }),
  coats: number()
    .typeError('Coats must be a number.')
    .min(0.5, 'A layer has half a coat or more; take it out instead.')
    .max(20, 'A layer has 20 coats at most.')
    .required('Say how many coats.'),
  style: string().oneOf(styleIds).required(),
  strength: figure('The strength', 0.3, 3),
  filmUm: number()
    .typeError('The film must be a number.')
    .min(1, 'A coat is at least 1 µm thick.')
    .max(500, 'A coat is at most 500 µm thick.')
    .required('Say how thick a coat is.'),
}).noUnknown();

export const stacksSchema = array(
  object({
    id: string().max(60).required(),
    /** The finish that it is; left out while it is not kept yet. */
    finishId: string().uuid().nullable().optional(),
    name: trimmed().required('Name this part of the piece.').max(40, 'Keep it under 40 letters.'),
    layers: array(stackLayerSchema.required())
      .required()
      .min(1, 'A stack has a layer or more.')
      .max(30, 'A stack has 30 layers at most.'),
  })
    .noUnknown()
    .required(),
)
  .min(1, 'Keep one stack.')
  .max(4, 'Four stacks at most.');

export const filmLimitSchema = number()
  .typeError('The limit must be a number.')
  .min(50, 'A limit under 50 µm leaves no room for a finish.')
  .max(3000, 'A limit over 3000 µm is no limit.');
