import type { Area, BatchCorrection, Card, JobObjectRow, Mixing, NewBatch, SprayPlan } from '@steady-gleam/contracts';
import type { MatchLimits, Recipe, StackLayer, Texture } from '@steady-gleam/core/finishes';
import type { Done, JobEvent } from '@steady-gleam/core/jobs';
import type { KnownHand } from '@steady-gleam/core/letdown';
import type { OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun, Product } from '@steady-gleam/core/products';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

const stamps = {
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
};

/**
 * What is matched and what makes it. It outlives the jobs that use it. `mixId` and `family` are null for one that lays no mix;
 * `layers` are null while they follow from the pick.
 */
export const finishes = pgTable(
  'finishes',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    /** Free text, the shop's own and what came with the finish. */
    codes: jsonb('codes').$type<readonly string[]>().notNull().default([]),
    matching: text('matching').notNull(),
    family: text('family'),
    mixId: text('mix_id'),
    pick: jsonb('pick').$type<Recipe>(),
    layers: jsonb('layers').$type<readonly StackLayer[]>(),
    /** A shop's own file it was opened from; null for one made here. */
    origin: text('origin'),
    /** Of a try-out: nothing of the shop's own is learned from it. */
    tryOut: boolean('try_out').notNull().default(false),
    invented: boolean('invented').notNull().default(false),
    version: integer('version').notNull().default(1),
    ...stamps,
  },
  (t) => [index('finishes_latest').on(t.updatedAt), index('finishes_name').on(sql`lower(${t.name})`)],
);

/** What a finish was before it was changed; `version` is the last under which it was so. */
export const finishVersions = pgTable(
  'finish_versions',
  {
    finishId: uuid('finish_id')
      .notNull()
      .references(() => finishes.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    was: jsonb('was').$type<FinishWas>().notNull(),
    ...stamps,
  },
  (t) => [primaryKey({ columns: [t.finishId, t.version] })],
);

/** What makes a finish: all of it that a change can alter. */
export interface FinishWas {
  readonly matching: string;
  readonly mixId: string | null;
  readonly pick: Recipe | null;
  readonly layers: readonly StackLayer[] | null;
}

/** A finish of a job: under which id its areas, plan and log name it, and what it is called there. */
export interface FinishUse {
  readonly key: string;
  readonly name: string;
  readonly finishId: string;
  /** Version of the finish that was sprayed; left out until something was. */
  readonly version?: number;
}

/** The seed of what is hidden; how often the instrument was asked, and after how many of these its white tile was read last. */
export interface TryOutRow {
  readonly seed: number;
  readonly asked: number;
  readonly white: number | null;
  readonly lifted: boolean;
}

/** Something to be sprayed. `version` grows with every edit; a stale edit is refused. The first of its finishes is what it is about. */
export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey(),
    piece: text('piece').notNull(),
    status: text('status').notNull().default('open'),
    finishes: jsonb('finishes').$type<readonly FinishUse[]>().notNull(),
    filmLimitUm: doublePrecision('film_limit_um'),
    objects: jsonb('objects').$type<readonly JobObjectRow[]>(),
    areas: jsonb('areas').$type<readonly Area[]>(),
    mixing: jsonb('mixing').$type<Mixing>(),
    limits: jsonb('limits').$type<MatchLimits>(),
    texture: text('texture').$type<Texture>(),
    plan: jsonb('plan').$type<SprayPlan>(),
    /** Whether anything was told of it: what is being sprayed stands first in the list. */
    begun: boolean('begun').notNull().default(false),
    /** What was done when it was finished. */
    done: jsonb('done').$type<Done>(),
    /** What is behind the curtain of a try-out, and what its instrument was asked; null for a job of the shop's own. */
    tryOut: jsonb('try_out').$type<TryOutRow>(),
    /** When it was taken out of the list; it can be put back. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
    invented: boolean('invented').notNull().default(false),
    version: integer('version').notNull().default(1),
    ...stamps,
  },
  (t) => [index('jobs_finishes').using('gin', sql`${t.finishes} jsonb_path_ops`), index('jobs_latest').on(t.updatedAt)],
);

const ofFinish = () => uuid('finish_id').references(() => finishes.id, { onDelete: 'cascade' });
const ofJob = () => uuid('job_id').references(() => jobs.id, { onDelete: 'cascade' });
/** The earlier card something belongs to; null for the card in force, and for what is of no card. */
const ofCard = () => uuid('card_id').references(() => cards.id, { onDelete: 'cascade' });

/** The let-down cards of a finish. One is in force; the others keep when they were put aside. */
export const cards = pgTable(
  'cards',
  {
    id: uuid('id').primaryKey(),
    finishId: ofFinish().notNull(),
    rungs: jsonb('rungs').$type<Card['rungs']>().notNull(),
    /** As it was typed; null `gunId` where it is none of the shop's. */
    gun: text('gun').notNull(),
    gunId: uuid('gun_id'),
    pressureBar: doublePrecision('pressure_bar').notNull(),
    onStand: boolean('on_stand').notNull(),
    settings: jsonb('settings').$type<Card['settings']>(),
    /** What the card said of the hand; for the next card with this gun and style. */
    hand: jsonb('hand').$type<KnownHand>(),
    handStyle: text('hand_style'),
    /** Another card is told nothing of this hand. */
    handLeftOut: boolean('hand_left_out').notNull().default(false),
    /** Coats after which the job is looked at first, as the card last said. */
    firstStop: doublePrecision('first_stop'),
    retiredAt: timestamp('retired_at', { withTimezone: true }),
    version: integer('version').notNull().default(1),
    ...stamps,
  },
  (t) => [
    uniqueIndex('cards_in_force')
      .on(t.finishId)
      .where(sql`${t.retiredAt} is null`),
  ],
);

/** Readings taken together. Append-only, client-made id; the newest of a kind and rung is in force. */
export const readingSets = pgTable(
  'reading_sets',
  {
    id: uuid('id').primaryKey(),
    /** Targets, rungs and chips are a finish's; spots, and targets of single objects, a job's. */
    finishId: ofFinish(),
    jobId: ofJob(),
    cardId: ofCard(),
    kind: text('kind').notNull(),
    rungCoats: doublePrecision('rung_coats'),
    source: text('source').notNull(),
    label: text('label').notNull().default(''),
    objectId: text('object_id'),
    state: text('state').notNull().default('cleared'),
    doubt: doublePrecision('doubt'),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    /** When the painter took it out as wrong; it stays in the log and is no longer in force. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('reading_sets_job').on(t.jobId, t.kind), index('reading_sets_finish').on(t.finishId, t.kind)],
);

/** One reading of one spot at one angle. */
export const readings = pgTable(
  'readings',
  {
    setId: uuid('set_id')
      .notNull()
      .references(() => readingSets.id, { onDelete: 'cascade' }),
    place: integer('place').notNull(),
    spot: text('spot').notNull(),
    incidence: doublePrecision('incidence').notNull(),
    aspecular: doublePrecision('aspecular').notNull(),
    l: doublePrecision('l').notNull(),
    a: doublePrecision('a').notNull(),
    b: doublePrecision('b').notNull(),
    ...stamps,
  },
  (t) => [index('readings_set').on(t.setId)],
);

/** A material of the shop's own; the details are validated by the contract on the way in and out. */
export const materials = pgTable('materials', {
  id: uuid('id').primaryKey(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  material: jsonb('material').$type<OwnMaterial>().notNull(),
  version: integer('version').notNull().default(1),
  ...stamps,
});

/** Verdicts on rungs by eye. Append-only, client-made id; the newest of a count and view is in force, null withdraws it. */
export const verdicts = pgTable(
  'verdicts',
  {
    id: uuid('id').primaryKey(),
    finishId: ofFinish().notNull(),
    cardId: ofCard(),
    coats: doublePrecision('coats').notNull(),
    view: text('view').notNull(),
    verdict: text('verdict'),
    hue: text('hue'),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('verdicts_finish').on(t.finishId)],
);

/** Photos of targets, rungs and jobs. */
export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    finishId: ofFinish(),
    jobId: ofJob(),
    cardId: ofCard(),
    kind: text('kind').notNull(),
    coats: doublePrecision('coats'),
    type: text('type').notNull(),
    bytes: bytes('bytes').notNull(),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    ...stamps,
  },
  (t) => [index('photos_job').on(t.jobId), index('photos_finish').on(t.finishId)],
);

/** A product of the shop; the details are validated by the contract on the way in and out. */
export const products = pgTable('products', {
  id: uuid('id').primaryKey(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  product: jsonb('product').$type<Product>().notNull(),
  sheetName: text('sheet_name'),
  sheetType: text('sheet_type'),
  sheetBytes: bytes('sheet_bytes'),
  version: integer('version').notNull().default(1),
  ...stamps,
});

/** Limits of a match by family, as the shop set them. */
export const familyLimits = pgTable('family_limits', {
  family: text('family').primaryKey(),
  own: jsonb('own').$type<MatchLimits['own']>().notNull(),
  source: text('source').notNull().default(''),
  version: integer('version').notNull().default(1),
  ...stamps,
});

export const guns = pgTable('guns', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  gun: jsonb('gun').$type<Gun>().notNull(),
  version: integer('version').notNull().default(1),
  ...stamps,
});

/** Batches as they were mixed. Append-only, client-made id; only what was left of one is written later. */
export const batches = pgTable(
  'batches',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    gunId: uuid('gun_id'),
    productId: uuid('product_id'),
    mixedAt: timestamp('mixed_at', { withTimezone: true }).notNull(),
    batch: jsonb('batch').$type<NewBatch>().notNull(),
    leftMl: doublePrecision('left_ml'),
    /** Whether the gun it was sprayed with is taught by it. */
    teaches: boolean('teaches').notNull().default(true),
    /** What it said before it was corrected, the oldest first. */
    corrections: jsonb('corrections').$type<readonly BatchCorrection[]>().notNull().default([]),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** When it was taken out as entered wrongly: it counts for nothing any more. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
    version: integer('version').notNull().default(1),
    ...stamps,
  },
  (t) => [index('batches_job').on(t.jobId), index('batches_open').on(t.endedAt)],
);

/** What happened to a job, or in the run of a finish's card. Append-only; ids and times are made where it happened, so that sending one twice stores it once. */
export const jobEvents = pgTable(
  'job_events',
  {
    id: uuid('id').primaryKey(),
    jobId: ofJob(),
    /** Of the run of this finish's card; null for what is of a job. */
    finishId: ofFinish(),
    cardId: ofCard(),
    at: bigint('at', { mode: 'number' }).notNull(),
    kind: text('kind').$type<JobEvent['kind']>().notNull(),
    cells: jsonb('cells').$type<JobEvent['cells']>().notNull().default([]),
    layerId: text('layer_id'),
    checkId: text('check_id'),
    coats: doublePrecision('coats'),
    look: jsonb('look').$type<JobEvent['look']>(),
    mend: jsonb('mend').$type<JobEvent['mend']>(),
    text: text('text').notNull(),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('job_events_job').on(t.jobId, t.sequence), index('job_events_finish').on(t.finishId, t.sequence)],
);

/** A device that signed in at the shop's door. */
export const sessions = pgTable('sessions', {
  id: uuid('id').primaryKey(),
  /** SHA-256 of what the device's cookie says: who reads the table can't sign in with it. */
  tokenHash: text('token_hash').notNull().unique(),
  /** Whether it may change anything. */
  lookOnly: boolean('look_only').notNull(),
  /** What the device calls itself, as far as a person can tell it by that. */
  device: text('device').notNull(),
  seenAt: timestamp('seen_at', { withTimezone: true }).notNull().defaultNow(),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  ...stamps,
});

/** What is set once for the whole shop, by name. */
export const settings = pgTable('settings', {
  name: text('name').primaryKey(),
  value: jsonb('value').$type<unknown>().notNull(),
  ...stamps,
});

/** Files of readings that came into the watched folder. Each is offered until it is taken or laid aside; what is written again is another. */
export const inboxFiles = pgTable(
  'inbox_files',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    /** SHA-256 of what stands in it. */
    hash: text('hash').notNull(),
    text: text('text').notNull(),
    /** `offered`, `taken` by a set of readings, or laid `aside`. */
    state: text('state').notNull().default('offered'),
    /** Spots and angles that stand in it; null where that has to be asked or was not looked for. */
    found: jsonb('found').$type<{ readonly spots: number; readonly angles: number }>(),
    /** Why nothing of it can be taken; null where something can. */
    fault: text('fault'),
    writtenAt: timestamp('written_at', { withTimezone: true }).notNull(),
    ...stamps,
  },
  (t) => [uniqueIndex('inbox_files_once').on(t.name, t.hash), index('inbox_files_state').on(t.state)],
);
