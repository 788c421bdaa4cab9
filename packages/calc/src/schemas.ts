// First of all: it sets what is said of what no schema has a sentence for.
import { array, boolean, object, string } from 'yup';
import { STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import {
  finite,
  need,
  spectrum,
  illuminant,
  observer,
  lab,
  index,
  opticalN,
  opticalK,
  angle,
  geometry,
  coatSchema,
  ground,
  viewing,
  targetAngle,
  fraction,
  mixParts,
} from './fields';
import { adviseSchema, eyeSchema } from './adviseSchemas';
import { formulateSchema } from './formulateSchema';

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
