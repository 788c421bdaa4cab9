import { string, object, array } from 'yup';
import { finite, targetAngle, optionalSpectrum, need, coatSchema, flakeOptics, spectrum, styleOf } from './fields';

/** Schemas of the headless calculator by the word after `do`. */
const named = string().required('Each needs an id.').max(80, 'An id has at most 80 letters.');
const atMost = (label: string) =>
  finite(label).integer(`${label} is a whole number.`).min(0).max(2, `${label} is 2 at most.`);
export const formulateSchema = object({
  target: array(targetAngle.required())
    .required('target is missing.')
    .min(1, 'A target needs at least one angle.')
    .max(12, 'A target has at most 12 angles.'),
  grounds: array(
    object({
      id: named,
      reflectance: optionalSpectrum('ground reflectance', 0, 1),
      lab: array(need('Lab')).length(3).default(undefined),
      under: array(coatSchema.required())
        .max(8, 'At most 8 coats lie under.')
        .default(() => []),
    })
      .noUnknown()
      .required()
      .test(
        'one',
        'Give each ground as reflectance or as lab.',
        (g) => (g.reflectance === undefined) !== (g.lab === undefined),
      ),
  )
    .min(1, 'At least one ground.')
    .max(40, 'At most 40 grounds.')
    .optional(),
  pigments: array(
    object({
      id: named,
      tilt: need('tilt').min(0.3).max(30),
      edge: need('edge').min(0).max(1),
      optics: flakeOptics,
      thickness: finite('thickness').min(0.01).max(50),
    })
      .noUnknown()
      .required(),
  )
    .max(60, 'At most 60 pigments.')
    .optional(),
  dyes: array(
    object({ id: named, depth: spectrum('depth', 0) })
      .noUnknown()
      .required(),
  )
    .max(40, 'At most 40 dyes.')
    .optional(),
  style: styleOf,
  filmUm: finite('filmUm').min(1, 'filmUm is 1 at least.').max(60, 'filmUm is 60 at most.'),
  mostPigments: atMost('mostPigments'),
  mostDyes: atMost('mostDyes'),
  counts: array(need('counts').min(0.5).max(8, 'At most 8 coats.'))
    .min(1)
    .max(8)
    .default(() => [2, 3, 4]),
  top: finite('top').integer().min(1).max(14, 'top is 14 at most.'),
});
