import { TEXTURES, type FinishFamily, type Texture } from '@steady-gleam/core/finishes';
import { MIXES } from '@steady-gleam/core/materials';
import { array, boolean, number, object, string, tuple, type InferType } from 'yup';
import { areasSchema, objectsSchema } from './areas';
import { earlierHandsSchema, storedCardSchema } from './cards';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { trimmed, version } from './figures';
import { families, finishNameSchema, finishOfJobSchema, matching, pageQuery } from './finishes';
import { familyLimitsSchema, limitsSchema } from './limits';
import { filmLimitSchema, materialId, recipeSchema, stackLayerSchema, stacksSchema } from './layers';
import { jobEventSchema } from './log';
import { mixingSchema } from './mixing';
import { photoSchema } from './photos';
import { readingSetSchema } from './readings';
import { sprayPlanSchema } from './plan';
import { verdictEventSchema } from './verdicts';

const id = string().uuid().required();

const piece = trimmed()
  .max(80, 'Keep it under 80 letters.')
  .required('Say what is to be finished, for instance “dodgem shell 7”.');
const mixId = materialId('Choose what is in the cup.');
const family = string()
  .oneOf<FinishFamily>([...families], 'Choose the finish family.')
  .required('Choose the finish family.');

/** Effect coats a job can be begun with. */
export const jobCountSchema = number()
  .typeError('Coats must be a number.')
  .min(0.5, 'Half a coat or more.')
  .max(12, 'At most 12 coats.');

/**
 * `finishId`: of a finish that is there already; the job is about that one, with its card, and what else is said of it counts for
 * nothing. With a count or a target of its own the job gets its own of it.
 */
export const newJobSchema = object({
  ...{ id, piece, matching, family, mixId },
  finishId: string().uuid().nullable().default(null),
  /** Effect coats of that finish that this piece wants, as its card has them; null for what was picked. */
  coats: jobCountSchema.nullable().default(null),
  /** What this piece has to match, as it was read; null for what the finish was matched to. */
  target: readingSetSchema.nullable().default(null),
}).test('system-of-family', (job, context) =>
  (MIXES.find((s) => s.id === job.mixId)?.family ?? job.family) === job.family
    ? true
    : context.createError({
        path: 'mixId',
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

/** Looks after each layer of some stacks, CIELAB 45 degrees from the mirror; `of` tells layers that look alike (`looksKey`). */
const coloursSchema = array(
  object({
    of: string().defined(),
    labs: array(tuple([number().required(), number().required(), number().required()]).required()).required(),
  }).required(),
)
  .default([])
  .required();
export type ToldColours = InferType<typeof coloursSchema>;

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

const textureSchema = string().oneOf<Texture>(TEXTURES.map((t) => t.id));

export const jobSchema = object({
  id,
  /** The finish it is about: the first of its finishes. */
  finishId: id,
  piece,
  /** Empty for a finish that came with layers and matches nothing yet. */
  matching: string().defined(),
  family,
  mixId,
  status: string()
    .oneOf([...JOB_STATES])
    .required(),
  pick: recipeSchema.nullable().defined(),
  /** Layers as the painter set them; null while they follow from the pick. */
  stacks: stacksSchema.nullable().defined(),
  /** Build the painter does not want to exceed, um; null for the usual one. */
  filmLimitUm: filmLimitSchema.nullable().defined(),
  /** Null until they are entered. */
  objects: objectsSchema.nullable().defined(),
  areas: areasSchema.nullable().defined(),
  mixing: mixingSchema.nullable().defined(),
  /** Limits of the match; null for the family's, edge to edge. */
  limits: limitsSchema.nullable().default(null).defined(),
  /** How much peel what has to be matched has; null while nobody said. */
  texture: textureSchema.nullable().default(null).defined(),
  plan: sprayPlanSchema.nullable().defined(),
  /** Null until it is finished. */
  done: doneSchema.nullable().default(null).defined(),
  /** When it was taken out of the list; null while it is in it. */
  removedAt: string().datetime().nullable().defined(),
  /** A try-out: everything read of it is simulated. Null for a job of the shop's own. */
  tryOut: object({ lifted: boolean().required() }).noUnknown().nullable().default(null).defined(),
  /** Demo data: invented. */
  invented: boolean().required(),
  version,
  createdAt: string().datetime().required(),
  updatedAt: string().datetime().required(),
}).noUnknown();
export type Job = InferType<typeof jobSchema>;

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
  /** What no eye has seen yet of what lies there, a clause; null when nothing is missing or no effect is on. */
  unseen: string().nullable().defined(),
}).noUnknown();

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
  /** Of the stack its film section shows first; empty where they can't be worked out. */
  colours: coloursSchema,
});
export type JobSummary = InferType<typeof jobSummarySchema>;

export const changeJobSchema = object({
  version,
  piece: piece.optional(),
  matching: matching.optional().default(undefined),
  status: string()
    .oneOf([...JOB_STATES])
    .optional(),
  /** True takes the job out of the list, false puts it back. */
  removed: boolean().optional(),
  /** The finish that `matching` and `pick` are about; the job's first when left out. */
  finishId: string().uuid().optional(),
  pick: recipeSchema.optional().default(undefined),
  /** Another mix in the place of the finish's own, before anything of it was sprayed; its pick is said with it. */
  mixId: string().max(80).optional(),
  stacks: stacksSchema.nullable().optional().default(undefined),
  filmLimitUm: filmLimitSchema.nullable().optional().default(undefined),
  objects: objectsSchema.optional().default(undefined),
  areas: areasSchema.optional().default(undefined),
  mixing: mixingSchema.optional().default(undefined),
  limits: limitsSchema.nullable().optional().default(undefined),
  texture: textureSchema.nullable().optional(),
  plan: sprayPlanSchema.optional().default(undefined),
}).noUnknown();

export const jobDetailSchema = object({
  job: jobSchema.required(),
  /** The finish that target, card, verdicts and pick are of. */
  finish: finishOfJobSchema.required(),
  /** Every finish of the job with a mix of its own, in the order of its stacks. */
  finishes: array(finishNameSchema.required()).required(),
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
  /** What the shop set of the limits of the job's family; null while it set none. */
  familyLimits: familyLimitsSchema.nullable().default(null).defined(),
  /** Hands that earlier cards with the same gun and style showed. */
  earlier: earlierHandsSchema,
  /** Of its stacks as they are planned; without those that can't be worked out. */
  colours: coloursSchema,
});
export type JobDetail = InferType<typeof jobDetailSchema>;

export const JOB_SORTS = ['next', 'latest', 'name'] as const;

export const jobQuerySchema = object({
  ...pageQuery,
  status: string()
    .oneOf([...JOB_STATES, 'listed'] as const, 'Choose one of the states.')
    .default('listed'),
  /** `next`: what is being sprayed first, then what is open. */
  sort: string()
    .oneOf([...JOB_SORTS])
    .default('next'),
}).noUnknown();
export type JobQuery = InferType<typeof jobQuerySchema>;

export const jobsApi = {
  /** A page of what answers to a query; how many there are, and how many of each state in all. */
  list: endpoint({
    method: 'GET',
    path: '/api/jobs',
    body: jobQuerySchema,
    reply: object({
      rows: array(jobSummarySchema.required()).required(),
      total: number().integer().required(),
      states: object({
        open: number().integer().required(),
        finished: number().integer().required(),
        away: number().integer().required(),
      }).required(),
    }),
  }),
  /** One job as the list tells it. */
  stands: endpoint({ method: 'GET', path: '/api/jobs/:id/stands', body: null, reply: jobSummarySchema }),
  /** Jobs that were taken out and can be put back, the latest first. */
  listRemoved: endpoint({
    method: 'GET',
    path: '/api/removed-jobs',
    body: null,
    reply: array(jobSchema.required()).required(),
  }),
  create: endpoint({ method: 'POST', path: '/api/jobs', body: newJobSchema, reply: jobSchema }),
  /** A job like another: its finishes, objects, areas and plan; nothing of its log. */
  copy: endpoint({ method: 'POST', path: '/api/jobs/:id/copy', body: object({ id, piece }), reply: jobSchema }),
  read: endpoint({ method: 'GET', path: '/api/jobs/:id', body: null, reply: jobDetailSchema }),
  /** The same with another of its finishes in the place of its first. */
  readWith: endpoint({ method: 'GET', path: '/api/jobs/:id/finishes/:finishId', body: null, reply: jobDetailSchema }),
  change: endpoint({ method: 'PATCH', path: '/api/jobs/:id', body: changeJobSchema, reply: jobSchema }),
  sheet: fileEndpoint({ method: 'GET', path: '/api/jobs/:id/sheet.pdf', types: ['application/pdf'] }),
} as const;

/**
 * @param zone the painter's time zone by its IANA name, so that every paper tells their clock
 * @param as what was planned, or what was done; left out: as done once its run is over
 */
export const jobSheetPath = (jobId: string, units: string, zone: string, as?: 'plan' | 'done'): string =>
  `${pathOf(jobsApi.sheet.path, { id: jobId })}?${new URLSearchParams({ units, zone, ...(as ? { as } : {}) }).toString()}`;
