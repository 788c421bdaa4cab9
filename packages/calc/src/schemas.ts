// First of all: it sets what is said of what no schema has a sentence for.
import { schemaBy } from '@steady-gleam/contracts';
import { array, boolean, lazy, mixed, number, object, string, type InferType, type Schema } from 'yup';
import { ILLUMINANTS, OBSERVERS } from '@steady-gleam/core/colour';
import { STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { EYE_VIEWS, EYE_WORDS, VERDICTS } from '@steady-gleam/core/letdown';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';

/** A number, or `{start: 400, step: 10, values: [31 numbers]}`. */
export type SpectrumInput = number | { start: number; step: number; values: number[] };

/** Beyond these nothing here is measured, and powers of it would leave the numbers. */
const [LARGEST, SMALLEST] = [1e12, 1e-30];

const finite = (label: string) =>
  number()
    .strict()
    .typeError(`${label} must be a number.`)
    .test('finite', `${label} must be finite.`, (v) => v === undefined || Number.isFinite(v))
    .test(
      'size',
      `${label} is too large or too small to reckon with.`,
      (v) => !v || !Number.isFinite(v) || (Math.abs(v) <= LARGEST && Math.abs(v) >= SMALLEST),
    );
const need = (label: string) => finite(label).required(`${label} is missing.`);

const spectrumObject = object({
  start: need('start').oneOf([400], 'A spectrum starts at 400 nm.'),
  step: need('step').oneOf([10], 'A spectrum has steps of 10 nm.'),
  values: array(need('value')).required('values is missing.').length(31, 'A spectrum has 31 values, 400 to 700 nm.'),
}).noUnknown();

/** Spectrum or plain number; every value at least `lo` and, if given, at most `hi`. */
function spectrum(label: string, lo = -Infinity, hi = Infinity): Schema<SpectrumInput> {
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

const optionalSpectrum = (label: string, lo?: number, hi?: number): Schema<SpectrumInput | undefined> =>
  schemaBy((value) => (value === undefined ? mixed() : spectrum(label, lo, hi)));

const illuminant = string().oneOf(ILLUMINANTS, `The illuminant is one of ${ILLUMINANTS.join(', ')}.`);
const observer = string().oneOf(OBSERVERS, 'The observer is "2" or "10".');
const lab = array(need('Lab')).length(3, 'A colour is [L, a, b].').required('A colour is missing.');
const index = (label: string) => need(label).min(0.05, `${label} must be above 0.`).max(20);
/** Optical constants of what there is: metals reach some ten. */
const opticalN = (label: string) =>
  need(label).min(0.01, `${label} must be 0.01 at least.`).max(50, `${label} must be 50 at most.`);
const opticalK = (label: string) =>
  need(label).min(0, `${label} must be 0 or more.`).max(50, `${label} must be 50 at most.`);
const angle = need('incidence').min(0).lessThan(90, 'incidence must be below 90 degrees.');

const geometry = object({
  incidence: angle,
  aspecular: need('aspecular').min(-90).max(180),
}).noUnknown();

const layer = object({
  n: optionalSpectrum('n', 0.01),
  k: optionalSpectrum('k', 0),
  nm: need('nm').min(0).max(100000),
});

const flakeOptics = lazy((value: unknown) =>
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

const ground = object({
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

const viewing = { illuminant: illuminant.default('D65'), observer: observer.default('10') };

const targetAngle = object({
  incidence: angle,
  aspecular: need('aspecular').min(-90).max(180),
  lab,
  tolerance: finite('tolerance').moreThan(0, 'tolerance must be above 0.'),
});

const fraction = (label: string) =>
  need(label).moreThan(0, `${label} must be above 0.`).max(1, `${label} is a fraction, at most 1.`);

/** Parts of a mix by volume. */
const mixParts = array(
  object({
    name: string().required('Each part needs a name.'),
    parts: need('parts').moreThan(0, 'Parts must be above 0.'),
    density: finite('density').moreThan(0, 'A density must be above 0.'),
  }).required(),
).required('parts is missing.');

/** One Lab a geometry; null where an angle was not read. */
const labs = (label: string) =>
  array(lab.nullable().defined()).required(`${label} is missing.`).max(60, `${label} has at most 60 angles.`);

const styleOf = object({
  film: need('style.film').moreThan(0, 'style.film must be above 0.').max(10),
  spread: need('style.spread').moreThan(0, 'style.spread must be above 0.').max(10),
})
  .noUnknown()
  .default({ film: 1, spread: 1 });

const ladderOf = {
  ground,
  under: array(coatSchema.required())
    .max(20, 'At most 20 coats lie under.')
    .default(() => []),
  coat: coatSchema.required('coat is missing.'),
  style: styleOf,
};

const count = (label: string) =>
  need(label).moreThan(0, `${label} must be above 0.`).max(40, `${label} must be 40 at most.`);

const oneEach = (name: string) => `${name} needs one entry for every angle of the target.`;

/** Readings have one entry for every angle of the target; counts of rungs differ; looks come oldest first. */
const adviseSchema = object({
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

const eyeSchema = object({
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

/** Schemas of the headless calculator by the word after `do`. */
const named = string().required('Each needs an id.').max(80, 'An id has at most 80 letters.');
const atMost = (label: string) =>
  finite(label).integer(`${label} is a whole number.`).min(0).max(2, `${label} is 2 at most.`);
const formulateSchema = object({
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

export const calcSchemas = {
  advise: adviseSchema,
  formulate: formulateSchema,
  eye: eyeSchema,
  colour: object({ reflectance: spectrum('reflectance', 0), ...viewing }),
  difference: object({
    a: lab,
    b: lab,
    formula: string()
      .oneOf(['de76', 'de94', 'de2000', 'cmc'] as const, 'formula is de76, de94, de2000 or cmc.')
      .required('formula is missing.'),
  }),
  interface: object({ n1: index('n1'), n2: index('n2'), incidence: need('incidence').min(0).max(90) }),
  thinFilm: object({
    n0: index('n0'),
    layers: array(object({ n: opticalN('n'), k: opticalK('k'), nm: need('nm').min(0).max(100000) })).required(
      'layers is missing.',
    ),
    exit: object({ n: opticalN('exit n'), k: opticalK('exit k') }).required('exit is missing.'),
    incidence: angle,
    wavelength: need('wavelength').moreThan(0),
  }),
  stack: object({
    ground,
    coats: array(coatSchema.required()).default([]).max(60),
    geometries: array(geometry.required())
      .required('geometries is missing.')
      .min(1, 'Give at least one geometry.')
      .max(40),
    tier: string()
      .oneOf(['reference', 'fast'] as const, 'tier is "reference" or "fast".')
      .default('reference'),
    n: finite('n').min(1.01, 'The film index must be above 1.').max(3),
    ...viewing,
  }),
  ladder: object({
    ground,
    coat: coatSchema.required('coat is missing.'),
    coats: object({
      from: need('from').min(0).max(40),
      to: need('to').min(0).max(40),
      step: need('step').min(0.01, 'step must be at least 0.01.'),
    })
      .required('coats is missing.')
      .test('order', 'coats.to must be above coats.from.', (c) => !(c.to <= c.from)),
    target: array(targetAngle.required()).required('target is missing.').min(1, 'Give at least one target angle.'),
    n: finite('n').min(1.01).max(3),
    ...viewing,
  }),
  metamerism: object({
    reference: spectrum('reference', 0),
    sample: spectrum('sample', 0),
    under: illuminant.required('under is missing.'),
    test: illuminant.required('test is missing.'),
    observer: observer.default('10'),
  }),
  diffuseInterface: object({ n: need('n').min(1, 'n must be at least 1.').max(4) }),
  kubelkaMunk: object({
    k: need('k').min(0),
    s: need('s').min(0),
    thickness: need('thickness').min(0),
    over: need('over').min(0).max(1),
  }),
  saunderson: object({
    internal: finite('internal').min(0).max(1),
    measured: finite('measured').min(0).max(1),
    k1: need('k1').min(0).lessThan(1),
    k2: need('k2').min(0).lessThan(1),
  }).test('one', 'Give either internal or measured.', (r) => (r.internal === undefined) !== (r.measured === undefined)),
  mix: object({
    parts: mixParts.min(1, 'Give at least one part.'),
    total: finite('total').moreThan(0, 'total must be above 0.'),
    cup: object({ mark: need('mark').moreThan(0, 'mark must be above 0.') }).default(undefined),
  }).test('one', 'Give either total or cup.', (r) => (r.total === undefined) !== (r.cup === undefined)),
  quantity: object({
    area: need('area').min(0),
    coats: need('coats').min(0),
    dryFilm: need('dryFilm').moreThan(0),
    volumeSolids: fraction('volumeSolids'),
    transferEfficiency: fraction('transferEfficiency'),
    loss: finite('loss').min(0),
  }),
  ratio: object({
    text: string().required('text is missing.').max(80),
  }),
  rescue: object({
    parts: mixParts.min(2, 'Give at least two parts.'),
    total: need('total').moreThan(0, 'total must be above 0.'),
    overpoured: need('overpoured').integer('overpoured is the number of a part, 1 for the first.').min(1),
    poured: need('poured').moreThan(0, 'poured must be above 0.'),
  }).test('part', 'There is no such part.', (r) => r.overpoured <= (r.parts ?? []).length),
  voc: object({
    parts: array(
      object({
        ml: need('ml').min(0),
        voc: need('voc').min(0),
        water: finite('water').min(0).max(1),
        exempt: finite('exempt').min(0).max(1),
      }).required(),
    )
      .required('parts is missing.')
      .min(1, 'Give at least one part.'),
  }),
  potLife: object({ minutesAt20: need('minutesAt20').moreThan(0), temperature: need('temperature').min(-20).max(120) }),
  flakeDose: object({
    sizes: array(
      object({
        size: need('size').moreThan(0),
        thickness: need('thickness').moreThan(0),
        density: need('density').moreThan(0),
        parts: need('parts').moreThan(0),
      }).required(),
    )
      .required('sizes is missing.')
      .min(1, 'Give at least one size.'),
    cover: need('cover').moreThan(0, 'cover must be above 0.').lessThan(1, 'cover must be below 1.'),
    dryFilm: need('dryFilm').moreThan(0),
    volumeSolids: fraction('volumeSolids'),
    most: finite('most').moreThan(0),
  }),
  flakeCover: object({
    gramsPerM2: need('gramsPerM2').min(0),
    thickness: need('thickness').moreThan(0),
    density: need('density').moreThan(0),
    shape: finite('shape').moreThan(0),
  }),
  order: object({
    pieces: array(
      object({
        name: string().required('Each piece needs a name.'),
        x: need('x'),
        y: need('y'),
        area: need('area').moreThan(0, 'area must be above 0.'),
        first: boolean(),
      }).required(),
    )
      .required('pieces is missing.')
      .min(1, 'Give at least one piece.')
      .max(40),
    airTowards: need('airTowards').min(0).max(360),
    openMinutes: need('openMinutes').moreThan(0),
    minutesPerM2: need('minutesPerM2').moreThan(0),
  }),
  filmFromGun: object({
    flow: need('flow').moreThan(0),
    volumeSolids: fraction('volumeSolids'),
    transferEfficiency: fraction('transferEfficiency'),
    speed: need('speed').moreThan(0),
    fan: need('fan').moreThan(0),
    overlap: need('overlap').min(0).max(0.95),
  }),
  timeline: object({
    tasks: array(
      object({
        id: string().required('Each task needs an id.'),
        minutes: need('minutes').min(0),
        painter: boolean(),
        after: array(
          object({
            id: string().required(),
            min: need('min').min(0),
            max: finite('max').min(0).nullable(),
          }),
        ),
        batch: string().nullable(),
      }).required(),
    )
      .required('tasks is missing.')
      .min(1, 'Give at least one task.')
      .max(500),
    batches: array(
      object({
        id: string().required('Each batch needs an id.'),
        mixMinutes: need('mixMinutes').min(0),
        potMinutes: finite('potMinutes').moreThan(0).nullable(),
      }).required(),
    ),
    now: finite('now').min(0),
  }),
  library: object({}),
  families: object({}),
  swatch: object({
    layers: array(
      object({
        kind: string()
          .oneOf(['ground', 'effect'] as const, 'A layer is of kind ground or effect.')
          .required('A layer is of kind ground or effect.'),
        id: string().required('Each layer needs the id of a ground or a mix.').max(60),
        coats: need('coats').min(0).max(40),
        strength: finite('strength').min(0).max(10),
        style: string().oneOf(Object.keys(STYLES) as StyleId[], `style is one of ${Object.keys(STYLES).join(', ')}.`),
      })
        .noUnknown()
        .required(),
    )
      .required('layers is missing.')
      .min(1, 'Give at least one layer.')
      .max(30),
    geometries: array(geometry)
      .min(1, 'Give at least one geometry.')
      .max(60)
      .default(() => FIVE_ANGLES.map((g) => ({ ...g }))),
    ...viewing,
  }),
  ripple: object({
    fanWidth: need('fanWidth').moreThan(0),
    overlap: need('overlap').min(0).max(0.95),
    profile: string()
      .oneOf(['bell', 'elliptical', 'flat'] as const, 'profile is bell, elliptical or flat.')
      .required('profile is missing.'),
    plateau: finite('plateau')
      .min(0)
      .max(1)
      .when('profile', { is: 'flat', then: (s) => s.required('A flat fan needs its plateau.') }),
  }),
  flash: object({
    minutesAt20: need('minutesAt20').min(0),
    temperature: need('temperature').min(-20).max(120),
    film: need('film').min(0),
    humidity: finite('humidity').min(0).max(1),
    blown: boolean(),
    chemistry: string()
      .oneOf(['solvent', 'waterborne', 'two-pack'] as const, 'chemistry is solvent, waterborne or two-pack.')
      .required('chemistry is missing.'),
  }),
  dewPoint: object({
    temperature: need('temperature').min(-40).max(80),
    humidity: need('humidity').moreThan(0, 'humidity must be above 0.').max(1),
  }),
} as const;

export type CalcName = keyof typeof calcSchemas;
