// First of all: it sets what is said of what no schema has a sentence for.
import { schemaBy } from '@steady-gleam/contracts';
import { array, boolean, lazy, mixed, number, object, string, type InferType, type Schema } from 'yup';
import { ILLUMINANTS, OBSERVERS } from '@steady-gleam/core/colour';

/** A number, or `{start: 400, step: 10, values: [31 numbers]}`. */
export type SpectrumInput = number | { start: number; step: number; values: number[] };

/** Beyond these nothing here is measured, and powers of it would leave the numbers. */
const [LARGEST, SMALLEST] = [1e12, 1e-30];

export const finite = (label: string) =>
  number()
    .strict()
    .typeError(`${label} must be a number.`)
    .test('finite', `${label} must be finite.`, (v) => v === undefined || Number.isFinite(v))
    .test(
      'size',
      `${label} is too large or too small to reckon with.`,
      (v) => !v || !Number.isFinite(v) || (Math.abs(v) <= LARGEST && Math.abs(v) >= SMALLEST),
    );
export const need = (label: string) => finite(label).required(`${label} is missing.`);

const spectrumObject = object({
  start: need('start').oneOf([400], 'A spectrum starts at 400 nm.'),
  step: need('step').oneOf([10], 'A spectrum has steps of 10 nm.'),
  values: array(need('value')).required('values is missing.').length(31, 'A spectrum has 31 values, 400 to 700 nm.'),
}).noUnknown();

/** Spectrum or plain number; every value at least `lo` and, if given, at most `hi`. */
export function spectrum(label: string, lo = -Infinity, hi = Infinity): Schema<SpectrumInput> {
  const range = hi === Infinity ? `at least ${lo}` : `between ${lo} and ${hi}`;
  const inRange = (v: number) => v >= lo && v <= hi;
  return schemaBy<SpectrumInput>((value) =>
    typeof value === 'object' && value !== null
      ? spectrumObject.test(
          'range',
          `${label} must be ${range} everywhere.`,
          (v) => !Array.isArray(v.values) || v.values.every((x) => x === undefined || inRange(x)),
        )
      : need(label).test('range', `${label} must be ${range}.`, (v) => v === undefined || inRange(v)),
  );
}

export const optionalSpectrum = (label: string, lo?: number, hi?: number): Schema<SpectrumInput | undefined> =>
  schemaBy((value) => (value === undefined ? mixed() : spectrum(label, lo, hi)));

export const illuminant = string().oneOf(ILLUMINANTS, `The illuminant is one of ${ILLUMINANTS.join(', ')}.`);
export const observer = string().oneOf(OBSERVERS, 'The observer is "2" or "10".');
export const lab = array(need('Lab')).length(3, 'A colour is [L, a, b].').required('A colour is missing.');
export const index = (label: string) => need(label).min(0.05, `${label} must be above 0.`).max(20);
/** Optical constants of what there is: metals reach some ten. */
export const opticalN = (label: string) =>
  need(label).min(0.01, `${label} must be 0.01 at least.`).max(50, `${label} must be 50 at most.`);
export const opticalK = (label: string) =>
  need(label).min(0, `${label} must be 0 or more.`).max(50, `${label} must be 50 at most.`);
export const angle = need('incidence').min(0).lessThan(90, 'incidence must be below 90 degrees.');

export const geometry = object({
  incidence: angle,
  aspecular: need('aspecular').min(-90).max(180),
}).noUnknown();

const layer = object({
  n: optionalSpectrum('n', 0.01),
  k: optionalSpectrum('k', 0),
  nm: need('nm').min(0).max(100000),
});

export const flakeOptics = lazy((value: unknown) =>
  (value as { kind?: string } | undefined)?.kind === 'thinFilm'
    ? object({
        kind: string().oneOf(['thinFilm']).required(),
        layers: array(layer).required('layers is missing.').max(40),
        exit: object({ n: spectrum('exit n', 0.01), k: optionalSpectrum('exit k', 0) }).required(),
        twoSided: boolean(),
      }).noUnknown()
    : (value as { kind?: string } | undefined)?.kind === 'lacquered'
      ? object({
          kind: string().oneOf(['lacquered']).required(),
          lacquerDepth: spectrum('lacquerDepth', 0),
          metal: object({ n: spectrum('metal n', 0.01), k: optionalSpectrum('metal k', 0) }).required(),
        }).noUnknown()
      : object({
          kind: string()
            .oneOf(['scalar'], 'Flake optics are of kind "scalar", "thinFilm" or "lacquered".')
            .required('optics needs a kind.'),
          reflectance: spectrum('reflectance', 0, 1),
          transmittance: spectrum('transmittance', 0, 1),
        }).noUnknown(),
);

const flakes = object({
  cover: need('cover').min(0).lessThan(1, 'cover must be below 1.'),
  tilt: need('tilt').min(0.3).max(30),
  edge: need('edge').min(0).max(1),
  optics: flakeOptics,
}).noUnknown();
type FlakesRequest = InferType<typeof flakes>;

/** One kind of flakes or several that lie among one another. */
export const coatSchema = object({
  dye: optionalSpectrum('dye', 0),
  flakes: schemaBy<FlakesRequest | readonly FlakesRequest[] | undefined>((value) =>
    Array.isArray(value)
      ? array(flakes.required()).max(8, 'At most 8 kinds of flakes in a coat.')
      : flakes.default(undefined),
  ),
  pigment: object({
    k: spectrum('k', 0),
    s: spectrum('s', 0),
    thickness: need('thickness').min(0),
  })
    .default(undefined)
    .noUnknown(),
  factor: finite('factor').min(0, 'factor must be 0 or more.').max(100),
}).noUnknown();

export const ground = object({
  reflectance: optionalSpectrum('ground reflectance', 0, 1),
  lab: array(need('Lab')).length(3).default(undefined),
})
  .noUnknown()
  .required('ground is missing.')
  .test(
    'one',
    'Give the ground as reflectance or as lab.',
    (g) => (g.reflectance === undefined) !== (g.lab === undefined),
  );

export const viewing = { illuminant: illuminant.default('D65'), observer: observer.default('10') };

export const targetAngle = object({
  incidence: angle,
  aspecular: need('aspecular').min(-90).max(180),
  lab,
  tolerance: finite('tolerance').moreThan(0, 'tolerance must be above 0.'),
});

export const fraction = (label: string) =>
  need(label).moreThan(0, `${label} must be above 0.`).max(1, `${label} is a fraction, at most 1.`);

/** Parts of a mix by volume. */
export const mixParts = array(
  object({
    name: string().required('Each part needs a name.'),
    parts: need('parts').moreThan(0, 'Parts must be above 0.'),
    density: finite('density').moreThan(0, 'A density must be above 0.'),
  }).required(),
).required('parts is missing.');

/** One Lab a geometry; null where an angle was not read. */
export const labs = (label: string) =>
  array(lab.nullable().defined()).required(`${label} is missing.`).max(60, `${label} has at most 60 angles.`);

export const styleOf = object({
  film: need('style.film').moreThan(0, 'style.film must be above 0.').max(10),
  spread: need('style.spread').moreThan(0, 'style.spread must be above 0.').max(10),
})
  .noUnknown()
  .default({ film: 1, spread: 1 });

export const ladderOf = {
  ground,
  under: array(coatSchema.required())
    .max(20, 'At most 20 coats lie under.')
    .default(() => []),
  coat: coatSchema.required('coat is missing.'),
  style: styleOf,
};

export const count = (label: string) =>
  need(label).moreThan(0, `${label} must be above 0.`).max(40, `${label} must be 40 at most.`);

export const oneEach = (name: string) => `${name} needs one entry for every angle of the target.`;
