import { array, boolean, lazy, number, object, string, type InferType, type Schema } from 'yup';
import {
  LAYER_NAMES,
  STYLES,
  SYSTEMS,
  FAMILY_IDS,
  type FinishFamily,
  type StackLayerKind,
  type StyleId,
} from '@steady-gleam/core';
import { endpoint } from './endpoint';
import { earlierHandsSchema, photoSchema, verdictEventSchema } from './letdown';
import { jobEventSchema } from './log';
import { sprayPlanSchema } from './spray';
import { newReadingSetSchema, readingSetSchema } from './readings';
import { trimmed } from './figures';

/** Material ids are those of the library or of the shop's own materials; the server checks that they are there. */
const materialId = (missing: string) => string().max(60).required(missing);
const styleIds = Object.keys(STYLES) as StyleId[];
export const families: readonly FinishFamily[] = FAMILY_IDS;

const id = string().uuid().required();
const version = number().integer().min(1).required();

/** What the painter picked on the match map. */
export const choiceSchema = object({
  groundId: materialId('Choose a ground.'),
  coats: number().min(0.5).max(12).required(),
  strength: number().min(0.3).max(3).required(),
  style: string().oneOf(styleIds).required(),
  controlCoats: number().min(0).max(4).required(),
}).noUnknown();
export type Choice = InferType<typeof choiceSchema>;

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
  strength: number().min(0.3).max(3).required(),
  filmUm: number()
    .typeError('The film must be a number.')
    .min(1, 'A coat is at least 1 µm thick.')
    .max(500, 'A coat is at most 500 µm thick.')
    .required('Say how thick a coat is.'),
}).noUnknown();

export const stacksSchema = array(
  object({
    id: string().max(60).required(),
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

const shapes = ['area', 'panel', 'cylinder', 'dome', 'tub', 'tube'] as const;
const measure = number().typeError('A number.').min(0.001, 'More than zero.').max(200, 'At most 200.');

/** What is looked at as one: a coach, a shell with its loose parts. */
export const jobObjectSchema = object({
  id: string().max(60).required(),
  name: trimmed().required('Name the object.').max(80, 'Keep it under 80 letters.'),
  /** Effect coats by finish, as the object's own target asks for; and when it is looked at. */
  counts: array(
    object({
      finishId: string().max(60).required(),
      coats: number()
        .typeError('Coats must be a number.')
        .min(0.25, 'A quarter coat at the least.')
        .max(14, 'At most 14 coats.')
        .nullable()
        .defined(),
      lookAfter: number()
        .typeError('Coats must be a number.')
        .min(0.25, 'Look after a quarter coat at the earliest.')
        .max(14, 'At most 14 coats.')
        .nullable()
        .defined(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(8),
}).noUnknown();
export const objectsSchema = array(jobObjectSchema.required())
  .min(1, 'Keep one object.')
  .max(12, 'Twelve objects at most.');

/** What is sprayed in one go: its shape for the area, its place in the booth for the order; metres. */
export const areaSchema = object({
  id: string().max(60).required(),
  name: trimmed().required('Name the area.').max(40, 'Keep it under 40 letters.'),
  shape: string().oneOf(shapes).required(),
  /** Measures of the shape by name; `area` in m2, the others in m. */
  measures: object({
    area: measure,
    width: measure,
    height: measure,
    diameter: measure,
    top: measure,
    bottom: measure,
    length: measure,
  }).noUnknown(),
  count: number()
    .typeError('A whole number.')
    .integer('A whole number.')
    .min(1, 'One or more.')
    .max(200, 'At most 200.')
    .required('A whole number.'),
  /** Where it hangs or lies in the booth; null until it is placed. */
  x: number().min(-50).max(50).nullable().default(null),
  y: number().min(-50).max(50).nullable().default(null),
  mounting: string()
    .oneOf(['object', 'stand'] as const)
    .default('object'),
  /** Jambs, edges and pockets are sprayed before the rest. */
  first: boolean().default(false),
  objectId: string().max(60).required('Say which object it belongs to.'),
  /** Null for the job's own finish. */
  finishId: string().max(60).nullable().default(null),
  /** The area it lies masked on, as a stripe or letters do; null for one of its own. */
  on: string().max(60).nullable().default(null),
})
  .noUnknown()
  .test('size', (area, context) =>
    Object.values(area.measures ?? {}).some((v) => v !== undefined)
      ? true
      : context.createError({ path: `${context.path}.measures.area`, message: 'Say how large it is.' }),
  );
export type Area = InferType<typeof areaSchema>;
export const areasSchema = array(areaSchema.required())
  .min(1, 'Keep one area.')
  .max(40, 'Forty areas at most; count alike ones together.')
  .test('on', (areas, context) => {
    const list = (areas ?? []).filter(Boolean);
    const at = list.findIndex((a) => a.on && list.find((b) => b.id === a.on)?.on !== null);
    return at < 0
      ? true
      : context.createError({
          path: `${context.path}[${at}].on`,
          message: 'What it lies on is not here any more, or is a stripe itself; choose another.',
        });
  });

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
  products: lazy((value: unknown) =>
    object(Object.fromEntries(Object.keys((value as object | null) ?? {}).map((k) => [k, string().uuid().required()]))),
  ) as unknown as Schema<Record<string, string>>,
  /** Reducer the painter chose for a cup, by name; the key is the cup's first layer. */
  reducers: lazy((value: unknown) =>
    object(
      Object.fromEntries(Object.keys((value as object | null) ?? {}).map((k) => [k, string().max(80).required()])),
    ).default({}),
  ) as unknown as Schema<Record<string, string> | undefined>,
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
  added: lazy((value: unknown) =>
    object(
      Object.fromEntries(
        Object.keys((value as object | null) ?? {}).map((k) => [k, array(addedSchema).required().max(12)]),
      ),
    ).default({}),
  ) as unknown as Schema<Record<string, Added[]> | undefined>,
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

/** Before the painter said anything: a mild booth, and two square metres. */
export const START_MIXING: Mixing = { products: {}, flake: null, gunId: null, temperatureC: 20, humidity: 0.5 };
const START_OBJECT = 'object-1';
export const START_AREAS: readonly Area[] = [
  {
    id: 'piece-1',
    name: 'Whole piece',
    shape: 'area',
    measures: { area: 2 },
    count: 1,
    x: null,
    y: null,
    mounting: 'object',
    first: false,
    objectId: START_OBJECT,
    finishId: null,
    on: null,
  },
];

const piece = trimmed()
  .max(80, 'Keep it under 80 letters.')
  .required('Say what is to be finished, for instance “dodgem shell 7”.');
const matching = trimmed()
  .max(160, 'Keep it under 160 letters.')
  .required('Say what it has to match, for instance “shell 4, left side”.');
const systemId = materialId('Choose what is in the cup.');
const family = string()
  .oneOf<FinishFamily>([...families], 'Choose the finish family.')
  .required('Choose the finish family.');

export const newJobSchema = object({ id, piece, matching, family, systemId }).test(
  'system-of-family',
  (job, context) =>
    (SYSTEMS.find((s) => s.id === job.systemId)?.family ?? job.family) === job.family
      ? true
      : context.createError({
          path: 'systemId',
          message: 'This mix belongs to another finish family; choose one of this family.',
        }),
);
export type NewJob = InferType<typeof newJobSchema>;

/** Dry film of a layer that is on and that is planned, um; the mean over the areas that get it, grip and tack coats with it. */
const layerFilmSchema = object({
  finishId: string().required(),
  layer: stackLayerSchema.required(),
  onUm: number().required(),
  plannedUm: number().required(),
}).noUnknown();
export type LayerFilm = InferType<typeof layerFilmSchema>;

/** `away`: put out of the way, neither open nor finished. */
export const JOB_STATES = ['open', 'finished', 'away'] as const;
/** For so many days a job that was taken out can be put back; then it is gone. */
export const REMOVED_DAYS = 30;

/** What was done when a job was finished, as its log had it then. */
const doneSchema = object({
  at: string().datetime().required(),
  sprays: number().integer().required(),
  planned: number().integer().required(),
  /** Effect coats of the job's own mix that are on, by object. */
  counts: array(
    object({ objectId: string().required(), name: string().required(), coats: number().required() }).required(),
  ).required(),
  film: array(layerFilmSchema.required()).required(),
}).noUnknown();
export type Done = InferType<typeof doneSchema>;

export const jobSchema = object({
  id,
  piece,
  matching,
  family,
  systemId,
  status: string()
    .oneOf([...JOB_STATES])
    .required(),
  choice: choiceSchema.nullable().defined(),
  /** Layers as the painter set them; null while they follow from the pick. */
  stacks: stacksSchema.nullable().defined(),
  /** Build the painter does not want to exceed, um; null for the usual one. */
  filmLimitUm: filmLimitSchema.nullable().defined(),
  /** Null until they are entered. */
  objects: objectsSchema.nullable().defined(),
  areas: areasSchema.nullable().defined(),
  mixing: mixingSchema.nullable().defined(),
  plan: sprayPlanSchema.nullable().defined(),
  /** Null until it is finished. */
  done: doneSchema.nullable().default(null).defined(),
  /** When it was taken out of the list; null while it is in it. */
  removedAt: string().datetime().nullable().defined(),
  /** Demo data: invented. */
  invented: boolean().required(),
  version,
  createdAt: string().datetime().required(),
  updatedAt: string().datetime().required(),
}).noUnknown();
export type Job = InferType<typeof jobSchema>;
export type JobObjectRow = InferType<typeof jobObjectSchema>;

/** The objects of a job; while none were entered the piece itself is the one. */
export const objectsOf = (job: Pick<Job, 'objects' | 'piece'>): readonly JobObjectRow[] =>
  job.objects ?? [{ id: START_OBJECT, name: job.piece, counts: [] }];
export const areasOf = (job: Pick<Job, 'areas'>): readonly Area[] => job.areas ?? START_AREAS;

/** Where a job stands, as its log says: what the list of jobs tells of it. */
export const runStateSchema = object({
  done: number().integer().required(),
  total: number().integer().required(),
  /** The next step, as it is said; null when nothing is left to do. */
  next: string().nullable().defined(),
  /** The next step is a coat; false for a look and the like. */
  isCoat: boolean().required(),
  /** When the next may go on by the clock, ms since 1970; null when nothing is waited for. */
  readyAt: number().nullable().defined(),
  /** When the recoat window of what lies below it closes, ms since 1970; null where it has none. */
  closesAt: number().nullable().defined(),
}).noUnknown();
export type RunState = InferType<typeof runStateSchema>;

export const jobSummarySchema = jobSchema.shape({
  targetAngles: number().integer().required(),
  /** Rungs of its card that were read, by instrument or by eye. */
  rungsRead: number().integer().required(),
  /** Cups mixed for it. */
  batches: number().integer().required(),
  /** Null until its run in the booth is started. */
  run: runStateSchema.nullable().default(null).defined(),
  /** Null until something is picked. */
  film: array(layerFilmSchema.required()).nullable().default(null).defined(),
});
export type JobSummary = InferType<typeof jobSummarySchema>;

/** A stored row that today's program can't read: left out of its list, named here. */
export const damagedSchema = object({
  what: string()
    .oneOf(['job', 'product', 'gun', 'material', 'batch', 'event'] as const)
    .required(),
  id: string().required(),
  /** What it was called, as far as that can be read. */
  name: string().defined(),
}).noUnknown();
export type Damaged = InferType<typeof damagedSchema>;

export const changeJobSchema = object({
  version,
  piece: piece.optional(),
  matching: matching.optional(),
  status: string()
    .oneOf([...JOB_STATES])
    .optional(),
  /** True takes the job out of the list, false puts it back. */
  removed: boolean().optional(),
  choice: choiceSchema.optional().default(undefined),
  stacks: stacksSchema.nullable().optional().default(undefined),
  filmLimitUm: filmLimitSchema.nullable().optional().default(undefined),
  objects: objectsSchema.optional().default(undefined),
  areas: areasSchema.optional().default(undefined),
  mixing: mixingSchema.optional().default(undefined),
  plan: sprayPlanSchema.optional().default(undefined),
}).noUnknown();

const text = (max: number) => trimmed().max(max, `Keep it under ${max} letters.`);
const rungCoats = number()
  .typeError('Coats must be a number.')
  .min(0.5, 'A rung has half a coat or more.')
  .max(12, 'A rung has 12 coats at most.')
  .required();

/** A let-down card: what is sprayed on it, and with what. */
export const cardSchema = object({
  id,
  rungs: array(rungCoats)
    .required()
    .min(1, 'Plan at least one rung.')
    .max(8, 'Eight rungs fit on a card.')
    .test('unique', 'Each rung needs its own coat count.', (list) => new Set(list).size === (list ?? []).length),
  gun: text(60).required('Say which gun, so that the card can be trusted next time.'),
  pressureBar: number()
    .typeError('Pressure must be a number.')
    .min(0.3, 'At least 0.3 bar.')
    .max(6, 'At most 6 bar.')
    .required('Enter the pressure at the gun.'),
  onStand: boolean().required(),
  /** What else has to be the same on the job; kept on the label. */
  settings: object({
    sealer: text(60).default(''),
    groundCoats: text(40).default(''),
    reducer: text(60).default(''),
    distanceCm: number()
      .typeError('Distance must be a number.')
      .min(5, 'At least 5 cm.')
      .max(60, 'At most 60 cm.')
      .nullable()
      .default(null),
    temperatureC: number()
      .typeError('Temperature must be a number.')
      .min(0, 'At least 0 °C.')
      .max(50, 'At most 50 °C.')
      .nullable()
      .default(null),
    patches: boolean().default(false),
  })
    .noUnknown()
    .default({ sealer: '', groundCoats: '', reducer: '', distanceCm: null, temperatureC: null, patches: false }),
}).noUnknown();
export type Card = InferType<typeof cardSchema>;

export const putCardSchema = cardSchema.shape({ version: number().integer().min(0).required() });

export const storedCardSchema = cardSchema.shape({ version });
export type StoredCard = InferType<typeof storedCardSchema>;

export const jobDetailSchema = object({
  job: jobSchema.required(),
  target: readingSetSchema.nullable().default(null).defined(),
  /** Targets of single objects, where they differ from the job's. */
  objectTargets: array(readingSetSchema.required()).required(),
  card: storedCardSchema.nullable().default(null).defined(),
  rungs: array(readingSetSchema.required()).required(),
  /** Earlier readings of the target, newest first; the target in force is not among them. */
  targetHistory: array(readingSetSchema.required()).required(),
  /** Variant chips, each by its newest readings. */
  chips: array(readingSetSchema.required()).required(),
  /** Places on the job that were read while spraying. */
  spots: array(readingSetSchema.required()).required(),
  /** Verdicts of rungs in force. */
  verdicts: array(verdictEventSchema.required()).required(),
  photos: array(photoSchema.required()).required(),
  /** Everything that happened to it, in the order it came in. */
  events: array(jobEventSchema.required()).required(),
  /** Hands that earlier cards with the same gun and style showed. */
  earlier: earlierHandsSchema,
});
export type JobDetail = InferType<typeof jobDetailSchema>;

export const api = {
  listJobs: endpoint({
    method: 'GET',
    path: '/api/jobs',
    body: null,
    reply: array(jobSummarySchema.required()).required(),
  }),
  /** Jobs that were taken out and can be put back, the latest first. */
  listRemoved: endpoint({
    method: 'GET',
    path: '/api/removed-jobs',
    body: null,
    reply: array(jobSchema.required()).required(),
  }),
  /** Rows of every kind that can't be read. */
  listDamaged: endpoint({
    method: 'GET',
    path: '/api/damaged',
    body: null,
    reply: array(damagedSchema.required()).required(),
  }),
  createJob: endpoint({ method: 'POST', path: '/api/jobs', body: newJobSchema, reply: jobSchema }),
  /** A job like another: its target, card, pick, areas and plan; nothing of its log. */
  copyJob: endpoint({ method: 'POST', path: '/api/jobs/:id/copy', body: object({ id, piece }), reply: jobSchema }),
  readJob: endpoint({ method: 'GET', path: '/api/jobs/:id', body: null, reply: jobDetailSchema }),
  changeJob: endpoint({ method: 'PATCH', path: '/api/jobs/:id', body: changeJobSchema, reply: jobSchema }),
  addReadings: endpoint({
    method: 'POST',
    path: '/api/jobs/:id/readings',
    body: newReadingSetSchema,
    reply: readingSetSchema,
  }),
  /** A set of readings that was entered wrongly is taken out, or put back; what it replaced goes with it. */
  removeReadings: endpoint({
    method: 'PUT',
    path: '/api/readings/:id/removed',
    body: object({ removed: boolean().required() }).noUnknown(),
    reply: object({}),
  }),
  putCard: endpoint({ method: 'PUT', path: '/api/jobs/:id/card', body: putCardSchema, reply: storedCardSchema }),
} as const;
