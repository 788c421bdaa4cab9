import { array, boolean, number, object, string, type InferType } from 'yup';
import { keyed, trimmed } from './figures';

/** What a nudge or a flake dose puts into a cup, to one part by volume of what is poured first. */
const addedSchema = object({
  name: trimmed().required('Say what is added.').max(80, 'Keep the name under 80 letters.'),
  ratio: number()
    .typeError('What is added must be a number.')
    .min(0, 'What is added can’t be less than nothing.')
    .max(100, 'What is added can’t be over a hundred times the mix.')
    .required('Say how much is added.'),
  density: number().min(0.3).max(4).nullable().defined(),
  /** Dry flake, weighed into the finished mix: the ratio is not of it, and nothing of it evaporates. */
  dry: boolean().default(false),
})
  .noUnknown()
  .required();
export type Added = InferType<typeof addedSchema>;

/** How a job is mixed: products by layer, gun, and the weather in the booth. */
export const mixingSchema = object({
  /** Product of a layer, by the layer's id. */
  products: keyed(string().uuid().required()),
  /** Reducer the painter chose for a cup, by name; the key is the cup's first layer. */
  reducers: keyed(string().max(80).required()),
  /** How the flake of the job is mixed, covered and buried; null where it has none or nothing was said. */
  flake: object({
    pigmentId: string().max(60).required(),
    /** By weight, by size in um. */
    parts: array(
      object({ sizeUm: number().min(20).max(2000).required(), parts: number().min(0).max(1000).required() })
        .noUnknown()
        .required(),
    )
      .required()
      .max(8),
    cover: number().min(0.05).max(0.99).nullable().defined(),
    filmUm: number().min(5).max(150).required(),
    sandUm: number().min(0).max(200).required(),
    keepUm: number().min(10).max(200).required(),
    /** Clears that bury it before it is sanded flat. */
    buryCoats: number().min(0).max(40).required(),
  })
    .noUnknown()
    .nullable()
    .default(null),
  /** What a nudge adds to a cup, to one part of its carrier; the key is the cup's first layer. */
  added: keyed(array(addedSchema).required().max(12)),
  gunId: string().uuid().nullable().defined(),
  temperatureC: number()
    .typeError('The temperature must be a number.')
    .min(-10, 'No colder than -10 °C.')
    .max(60, 'No warmer than 60 °C.')
    .required(),
  /** Relative, fraction. */
  humidity: number()
    .typeError('The humidity must be a number.')
    .min(0.05, 'At least 5 %.')
    .max(1, 'At most 100 %.')
    .required(),
}).noUnknown();
export type Mixing = InferType<typeof mixingSchema>;

/** Before the painter said anything: a mild booth. */
export const START_MIXING: Mixing = {
  ...{ products: {}, reducers: {}, added: {}, flake: null, gunId: null },
  ...{ temperatureC: 20, humidity: 0.5 },
};
