import type { Card, Choice, Mixing, NewBatch, Piece, SprayPlan } from '@steady-gleam/contracts';
import type { Gun, KnownHand, OwnMaterial, PieceStack, Product } from '@steady-gleam/core';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

const stamps = {
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
};

/** A piece to be finished. `version` grows with every edit; a stale edit is refused. */
export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey(),
  piece: text('piece').notNull(),
  matching: text('matching').notNull(),
  family: text('family').notNull(),
  systemId: text('system_id').notNull(),
  status: text('status').notNull().default('open'),
  choice: jsonb('choice').$type<Choice>(),
  stacks: jsonb('stacks').$type<readonly PieceStack[]>(),
  filmLimitUm: doublePrecision('film_limit_um'),
  pieces: jsonb('pieces').$type<readonly Piece[]>(),
  mixing: jsonb('mixing').$type<Mixing>(),
  plan: jsonb('plan').$type<SprayPlan>(),
  /** When it was taken out of the list; it can be put back. */
  removedAt: timestamp('removed_at', { withTimezone: true }),
  invented: boolean('invented').notNull().default(false),
  version: integer('version').notNull().default(1),
  ...stamps,
});

/** The let-down card of a job. */
export const cards = pgTable('cards', {
  id: uuid('id').primaryKey(),
  jobId: uuid('job_id')
    .notNull()
    .unique()
    .references(() => jobs.id, { onDelete: 'cascade' }),
  rungs: jsonb('rungs').$type<Card['rungs']>().notNull(),
  gun: text('gun').notNull(),
  pressureBar: doublePrecision('pressure_bar').notNull(),
  onStand: boolean('on_stand').notNull(),
  settings: jsonb('settings').$type<Card['settings']>(),
  /** What the card said of the hand; for the next card with this gun and style. */
  hand: jsonb('hand').$type<KnownHand>(),
  handStyle: text('hand_style'),
  version: integer('version').notNull().default(1),
  ...stamps,
});

/** Readings taken together. Append-only, client-made id; the newest of a kind and rung is in force. */
export const readingSets = pgTable(
  'reading_sets',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    kind: text('kind').notNull(),
    rungCoats: doublePrecision('rung_coats'),
    source: text('source').notNull(),
    label: text('label').notNull().default(''),
    state: text('state').notNull().default('cleared'),
    doubt: doublePrecision('doubt'),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    /** When the painter took it out as wrong; it stays in the log and is no longer in force. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('reading_sets_job').on(t.jobId, t.kind)],
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

/** Verdicts by eye. Append-only, client-made id; the newest of a place, count, spot and view is in force, null withdraws it. */
export const verdicts = pgTable(
  'verdicts',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    place: text('place').notNull(),
    coats: doublePrecision('coats').notNull(),
    spot: text('spot').notNull(),
    view: text('view').notNull(),
    verdict: text('verdict'),
    patch: doublePrecision('patch'),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('verdicts_job').on(t.jobId)],
);

/** Photos of targets, rungs and jobs. */
export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    kind: text('kind').notNull(),
    coats: doublePrecision('coats'),
    type: text('type').notNull(),
    bytes: bytes('bytes').notNull(),
    takenAt: timestamp('taken_at', { withTimezone: true }).notNull(),
    ...stamps,
  },
  (t) => [index('photos_job').on(t.jobId)],
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
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** When it was taken out as entered wrongly: it counts for nothing any more. */
    removedAt: timestamp('removed_at', { withTimezone: true }),
    version: integer('version').notNull().default(1),
    ...stamps,
  },
  (t) => [index('batches_job').on(t.jobId), index('batches_open').on(t.endedAt)],
);

/** What happened in the booth. Append-only; ids and times are made in the booth, so that sending one twice stores it once. */
export const boothEvents = pgTable(
  'booth_events',
  {
    id: uuid('id').primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    at: bigint('at', { mode: 'number' }).notNull(),
    kind: text('kind').notNull(),
    coatId: text('coat_id'),
    pieceId: text('piece_id'),
    text: text('text').notNull(),
    sequence: integer('sequence').generatedAlwaysAsIdentity(),
    ...stamps,
  },
  (t) => [index('booth_events_job').on(t.jobId)],
);
