import { FAMILY_IDS, type FinishFamily } from '@steady-gleam/core/finishes';
import { array, boolean, number, object, string, tuple, type InferType } from 'yup';
import { earlierCardSchema, storedCardSchema } from './cards';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { removal, trimmed, version } from './figures';
import { recipeSchema, stackLayerSchema } from './layers';
import { photoSchema } from './photos';
import { readingSetSchema } from './readings';
import { verdictEventSchema } from './verdicts';

const id = string().uuid().required();

export const families: readonly FinishFamily[] = FAMILY_IDS;

/** What it has to match; empty for a look that is designed. */
export const matching = trimmed().max(160, 'Keep it under 160 letters.').default('');
export const finishName = trimmed().max(80, 'Keep the name under 80 letters.').required('Give the finish a name.');
const finishCode = trimmed().max(24, 'Keep the code under 24 letters.').required('Leave no code empty.');
/** Free text, several to a finish: whose codes they are is the shop's own business. */
export const finishCodes = array(finishCode)
  .max(12, 'Twelve codes fit on a finish.')
  .test('unique', 'The same code stands there twice.', (list) => new Set(list).size === (list ?? []).length);

/** A finish, as pickers name it. */
export const finishNameSchema = object({ id, name: string().required(), mixId: string().required() }).noUnknown();
export type FinishName = InferType<typeof finishNameSchema>;

const userSchema = object({
  id,
  piece: string().required(),
  status: string().required(),
  /** Taken out of the list; it can be put back. */
  removed: boolean().required(),
  /** Version of the finish it sprayed; null while it sprayed none. */
  sprayed: number().integer().nullable().default(null).defined(),
}).noUnknown();

/** What is matched and what makes it. It outlives the jobs that use it. */
export const finishSchema = object({
  id,
  name: string().required(),
  /** The shop's own codes, and those it came with. */
  codes: array(string().required()).required(),
  matching: string().defined(),
  family: string()
    .oneOf<FinishFamily>([...families])
    .nullable()
    .defined(),
  mixId: string().nullable().defined(),
  pick: recipeSchema.nullable().defined(),
  layers: array(stackLayerSchema.required()).nullable().defined(),
  /** File of another shop it was opened from; null for one made here. */
  origin: string().nullable().default(null).defined(),
  /** Of a try-out: simulated, and in no bank. */
  tryOut: boolean().default(false).defined(),
  invented: boolean().required(),
  version,
  createdAt: string().datetime().required(),
  updatedAt: string().datetime().required(),
}).noUnknown();
export type Finish = InferType<typeof finishSchema>;

const users = array(userSchema.required()).required();
/** With the jobs that use it, and its cards that are not in force. */
export const finishOfJobSchema = finishSchema.shape({
  jobs: users,
  cards: array(earlierCardSchema.required()).required(),
});

/** A colour at one geometry, degrees. */
export const angleLabSchema = object({
  incidence: number().required(),
  aspecular: number().required(),
  lab: tuple([number().required(), number().required(), number().required()]).required(),
}).noUnknown();

export const finishSummarySchema = finishSchema.shape({
  jobs: users,
  /** The target in force, angle by angle; empty where nothing was read. */
  strip: array(angleLabSchema.required()).required(),
  targetAngles: number().integer().required(),
  /** Rungs of the card in force that were read, by instrument or by eye. */
  rungsRead: number().integer().required(),
  /** Gun of the card in force; empty without one. */
  gun: string().defined(),
  /** Finished jobs that used it. */
  proven: number().integer().required(),
  /** Newest photo of its card or target; null where none was taken. */
  photoId: string().uuid().nullable().default(null).defined(),
});
export type FinishSummary = InferType<typeof finishSummarySchema>;

export const FINISH_SORTS = ['latest', 'name', 'proven'] as const;
/** So many finishes, or jobs, are on a page. */
export const PAGE_SIZE = 50;

/** What a list is searched by; each word has to stand somewhere in what is listed. */
export const pageQuery = {
  words: trimmed().max(120, 'Keep the search under 120 letters.').default(''),
  family: string()
    .oneOf<FinishFamily>([...families], 'Choose one of the families.')
    .nullable()
    .default(null)
    .transform((v: unknown) => v || null),
  page: number().typeError('The page is a number.').integer().min(0).max(1_000_000).default(0),
};

export const finishQuerySchema = object({
  ...pageQuery,
  /** Only these; parted by commas in the address. */
  ids: array(string().uuid('This is no id of a finish.').required())
    .max(PAGE_SIZE, 'Fifty at once.')
    .transform((_, given: unknown) =>
      typeof given === 'string' ? given.split(',').filter(Boolean) : Array.isArray(given) ? (given as string[]) : [],
    )
    .default([]),
  /** Only what a finished job used. */
  proven: boolean().default(false),
  sort: string()
    .oneOf([...FINISH_SORTS])
    .default('latest'),
}).noUnknown();
export type FinishQuery = InferType<typeof finishQuerySchema>;

/** What a finish was: under which versions it was so. */
const finishWasSchema = object({
  /** The first and the last version it was so under. */
  from: version,
  to: version,
  until: string().datetime().required(),
  matching: string().defined(),
  mixId: string().nullable().defined(),
  pick: recipeSchema.nullable().defined(),
  layers: array(stackLayerSchema.required()).nullable().defined(),
}).noUnknown();
export type FinishWas = InferType<typeof finishWasSchema>;

/** Readings that are not in force: replaced by later ones, or taken out as entered wrongly. */
const earlierReadingSchema = object({ set: readingSetSchema.required(), removed: boolean().required() }).noUnknown();
export type EarlierReading = InferType<typeof earlierReadingSchema>;

/** A card of a finish with everything read and seen of it. */
export const cardOfFinishSchema = object({
  card: storedCardSchema.required(),
  /** Null for the one in force. */
  retiredAt: string().datetime().nullable().defined(),
  rungs: array(readingSetSchema.required()).required(),
  /** What was read of its rungs before, newest first. */
  before: array(earlierReadingSchema.required()).required(),
  verdicts: array(verdictEventSchema.required()).required(),
  photos: array(photoSchema.required()).required(),
  /** Whether other cards are told of the hand it showed; null where it has shown none. */
  teaches: boolean().nullable().defined(),
}).noUnknown();
export type CardOfFinish = InferType<typeof cardOfFinishSchema>;

export const finishDetailSchema = object({
  finish: finishSummarySchema.required(),
  target: readingSetSchema.nullable().default(null).defined(),
  /** What was read of the target before, newest first. */
  targetBefore: array(earlierReadingSchema.required()).required(),
  chips: array(readingSetSchema.required()).required(),
  /** The card in force first. */
  cards: array(cardOfFinishSchema.required()).required(),
  /** Newest first; what it is now is not among them. */
  versions: array(finishWasSchema.required()).required(),
  photos: array(photoSchema.required()).required(),
}).noUnknown();
export type FinishDetail = InferType<typeof finishDetailSchema>;

export const finishesApi = {
  /** A page of what answers to a query, and how many there are. */
  list: endpoint({
    method: 'GET',
    path: '/api/finishes',
    body: finishQuerySchema,
    reply: object({ rows: array(finishSummarySchema.required()).required(), total: number().integer().required() }),
  }),
  read: endpoint({ method: 'GET', path: '/api/finishes/:id', body: null, reply: finishDetailSchema }),
  rename: endpoint({
    method: 'PATCH',
    path: '/api/finishes/:id',
    body: object({ version, name: finishName.optional(), codes: finishCodes.optional() }).noUnknown(),
    reply: finishSchema,
  }),
  /** One like it, as a start: its target, card, rungs and verdicts; nothing of its jobs. */
  copy: endpoint({
    method: 'POST',
    path: '/api/finishes/:id/copy',
    body: object({ id, name: finishName }).noUnknown(),
    reply: finishSchema,
  }),
  /** Refused while a job uses it, one that was taken out too. */
  remove: endpoint({ method: 'DELETE', path: '/api/finishes/:id', body: removal, reply: object({}) }),
  passport: fileEndpoint({ method: 'GET', path: '/api/finishes/:id/passport.pdf', types: ['application/pdf'] }),
} as const;

export const passportPath = (finishId: string, units: string, zone: string): string =>
  `${pathOf(finishesApi.passport.path, { id: finishId })}?${new URLSearchParams({ units, zone }).toString()}`;
