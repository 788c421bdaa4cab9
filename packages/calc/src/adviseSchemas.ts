import { schemaBy } from '@steady-gleam/contracts';
import { EYE_VIEWS, VERDICTS, EYE_WORDS } from '@steady-gleam/core/letdown';
import { object, array, boolean, string } from 'yup';
import { ladderOf, targetAngle, finite, lab, count, labs, need, oneEach } from './fields';

/** Readings have one entry for every angle of the target; counts of rungs differ; looks come oldest first. */
export const adviseSchema = object({
  ...ladderOf,
  target: array(targetAngle.required())
    .required('target is missing.')
    .min(1, 'A target needs at least one angle.')
    .max(20, 'A target has at most 20 angles.'),
  targetSpots: finite('targetSpots').min(1, 'targetSpots must be 1 or more.').max(1000),
  sameInstrument: boolean().default(true),
  bare: array(lab.nullable().defined()).nullable().default(null),
  rungs: array(
    object({ coats: count('coats'), labs: labs('labs') })
      .noUnknown()
      .required(),
  )
    .max(20, 'A card has at most 20 rungs.')
    .default(() => [])
    .test('counts', 'Two rungs have the same count.', (r) => new Set(r.map((x) => x?.coats)).size === r.length),
  looks: array(
    object({
      sprayed: count('sprayed'),
      labs: labs('labs'),
      wet: boolean().default(true),
      spots: finite('spots').min(1, 'spots must be 1 or more.').max(1000),
    })
      .noUnknown()
      .required(),
  )
    .max(20, 'At most 20 looks.')
    .default(() => [])
    .test('order', 'Looks come oldest first: sprayed never falls.', (l) => {
      const on = l.map((x) => (x as { sprayed?: number } | null)?.sprayed ?? 0);
      return on.every((v, i) => i === 0 || v >= on[i - 1]!);
    }),
  looksLeft: finite('looksLeft').integer('looksLeft is a whole number.').min(0).max(100),
  noise: schemaBy<number | readonly number[] | null>((value) =>
    Array.isArray(value)
      ? array(need('noise').moreThan(0, 'noise must be above 0.').max(50)).required()
      : finite('noise').moreThan(0, 'noise must be above 0.').max(50).nullable().default(null),
  ),
  at: array(need('at').min(0).max(8, 'Ladders reach to 8 coats.'))
    .max(200)
    .default(() => []),
}).test('angles', (r, context) => {
  const size = Array.isArray(r.target) ? r.target.length : 0;
  const list = (v: unknown): readonly unknown[] => (Array.isArray(v) ? v : []);
  const labsIn = (v: unknown) => (v as { labs?: unknown } | null | undefined)?.labs;
  const checked: readonly (readonly [string, unknown])[] = [
    ['bare', r.bare],
    ...list(r.rungs).map((x, i) => [`rungs[${i}].labs`, labsIn(x)] as const),
    ...list(r.looks).map((x, i) => [`looks[${i}].labs`, labsIn(x)] as const),
    ['noise', r.noise],
  ];
  const wrong = checked.find(([, v]) => Array.isArray(v) && v.length !== size);
  return wrong ? context.createError({ path: wrong[0], message: oneEach(wrong[0]) }) : true;
});

export const eyeSchema = object({
  ...ladderOf,
  target: array(targetAngle.required()).min(1, 'A target needs at least one angle.').max(20).default(undefined),
  handHeld: boolean().default(false),
  verdicts: array(
    object({
      coats: count('coats'),
      view: string()
        .oneOf(EYE_VIEWS, `view is one of ${EYE_VIEWS.join(', ')}.`)
        .required('view is missing.'),
      verdict: string()
        .oneOf(VERDICTS, `verdict is one of ${VERDICTS.join(', ')}.`)
        .required('verdict is missing.'),
      hue: string()
        .oneOf(EYE_WORDS, `hue is one of ${EYE_WORDS.join(', ')}.`)
        .nullable(),
    })
      .noUnknown()
      .required(),
  )
    .required('verdicts is missing.')
    .min(1, 'Give at least one verdict.')
    .max(100, 'At most 100 verdicts.'),
});
