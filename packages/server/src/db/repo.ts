import type {
  Area,
  Card,
  Damaged,
  Done,
  Choice,
  Job,
  JobDetail,
  JobObjectRow,
  JobSummary,
  Mixing,
  NewJob,
  SprayPlan,
  ReadingSet,
  StoredCard,
} from '@steady-gleam/contracts';
import {
  areasSchema,
  cardSchema,
  choiceSchema,
  mixingSchema,
  objectsSchema,
  sprayPlanSchema,
  stacksSchema,
} from '@steady-gleam/contracts';
import { materialsOf, recipeOf, withRecipe, type PieceStack } from '@steady-gleam/core';
import { and, asc, desc, eq, inArray, isNotNull, isNull, lt, lte, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { ApiError } from '../http/apiError';
import { createLetdownRepo, type LetdownRepo } from './letdownRepo';
import { createLogRepo } from './logRepo';
import { knownMaterial } from './materialsRepo';
import { rowReader, UNTOLD, without, type TellDamage } from './rows';
import { checkMixing } from './shopRepo';
import type { Db } from './open';
import { batches, cards, jobs, readings, readingSets } from './schema';

type JobRow = typeof jobs.$inferSelect;
type CardRow = typeof cards.$inferSelect;
type SetRow = typeof readingSets.$inferSelect;

function toJob(row: JobRow): Job {
  return {
    id: row.id,
    piece: row.piece,
    matching: row.matching,
    family: row.family as Job['family'],
    systemId: row.systemId,
    status: row.status as Job['status'],
    choice: row.choice === null ? null : choiceSchema.validateSync(row.choice),
    stacks: row.stacks === null ? null : (stacksSchema.validateSync(row.stacks) as Job['stacks']),
    filmLimitUm: row.filmLimitUm,
    objects: row.objects === null ? null : (objectsSchema.validateSync(row.objects) as Job['objects']),
    areas: row.areas === null ? null : (areasSchema.validateSync(row.areas) as Job['areas']),
    mixing: row.mixing === null ? null : mixingSchema.validateSync(row.mixing),
    plan: row.plan === null ? null : (sprayPlanSchema.validateSync(row.plan) as SprayPlan),
    done: row.done,
    removedAt: row.removedAt?.toISOString() ?? null,
    invented: row.invented,
    version: row.version,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
  };
}

function toCard(row: CardRow): StoredCard {
  return {
    id: row.id,
    rungs: row.rungs,
    gun: row.gun,
    pressureBar: row.pressureBar,
    onStand: row.onStand,
    settings: cardSchema.fields.settings.cast(row.settings ?? undefined) as StoredCard['settings'],
    version: row.version,
  };
}

/** Earlier readings of a target that are shown. */
const MOST_HISTORY = 10;

/** Everything the API reads and writes. */
export interface Repo {
  /** Newest first; where they are in the booth is not among it, nor are those that were taken out. */
  readonly listJobs: () => Promise<Omit<JobSummary, 'run' | 'film'>[]>;
  readonly listRemoved: () => Promise<Job[]>;
  /** Cards by job. */
  readonly cardsByJob: () => Promise<ReadonlyMap<string, StoredCard>>;
  readonly damagedJobs: () => Promise<Damaged[]>;
  readonly createJob: (job: NewJob, invented?: boolean) => Promise<Job>;
  readonly readJob: (id: string) => Promise<JobDetail>;
  readonly changeJob: (
    id: string,
    change: {
      version: number;
      piece?: string;
      matching?: string;
      status?: Job['status'];
      removed?: boolean;
      choice?: Choice;
      stacks?: Job['stacks'];
      filmLimitUm?: number | null;
      objects?: JobObjectRow[];
      areas?: Area[];
      mixing?: Mixing;
      plan?: SprayPlan;
      done?: Done | null;
    },
  ) => Promise<Job>;
  /** A job like another: its target, card and rungs, pick, areas and plan; nothing of its log. */
  readonly copyJob: (from: string, id: string, piece: string) => Promise<Job>;
  /** Deletes for good what was taken out before a moment. @returns how many jobs */
  readonly forgetRemoved: (before: Date) => Promise<number>;
  readonly addReadings: (jobId: string, set: ReadingSet) => Promise<ReadingSet>;
  /** Takes a set of readings, and what it replaced, out of force; false puts them back. */
  readonly removeReadings: (setId: string, removed: boolean) => Promise<void>;
  readonly putCard: (jobId: string, card: Card & { version: number }) => Promise<StoredCard>;
  readonly countJobs: () => Promise<number>;
  readonly letdown: LetdownRepo;
}

/** Creates the repository over a database handle. Every change is one transaction. */
export function createRepo(db: Db, tell: TellDamage = UNTOLD): Repo {
  const letdown = createLetdownRepo(db);
  const log = createLogRepo(db, tell);
  const jobRows = rowReader('job', toJob, (row) => ({ id: row.id, name: row.piece }), tell);
  const loadSets = async (handle: Db, rows: readonly SetRow[]): Promise<ReadingSet[]> => {
    if (!rows.length) return [];
    const all = await handle
      .select()
      .from(readings)
      .where(
        inArray(
          readings.setId,
          rows.map((r) => r.id),
        ),
      )
      .orderBy(asc(readings.place));
    return rows.map((row) => ({
      id: row.id,
      kind: row.kind as ReadingSet['kind'],
      rungCoats: row.rungCoats,
      source: row.source as ReadingSet['source'],
      label: row.label,
      objectId: row.objectId,
      state: row.state as ReadingSet['state'],
      doubt: row.doubt,
      takenAt: row.takenAt.toISOString(),
      readings: all
        .filter((r) => r.setId === row.id)
        .map(({ spot, incidence, aspecular, l, a, b }) => ({ spot, incidence, aspecular, l, a, b })),
    }));
  };
  const findJob = async (handle: Db, id: string): Promise<JobRow> => {
    const [row] = await handle.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new ApiError('notFound');
    return row;
  };
  const checkMaterials = async (handle: Db, systemId: string, groundId?: string): Promise<void> => {
    if (!(await knownMaterial(handle, 'system', systemId)))
      throw new ApiError('badRequest', { systemId: 'This mix is not here any more; choose another.' });
    if (groundId !== undefined && !(await knownMaterial(handle, 'ground', groundId)))
      throw new ApiError('badRequest', { groundId: 'This ground is not here any more; choose another.' });
  };
  const checkStacks = async (handle: Db, stacks: readonly PieceStack[]): Promise<void> => {
    for (const { kind, id } of materialsOf(stacks)) {
      if (!(await knownMaterial(handle, kind, id)))
        throw new ApiError('badRequest', {
          stacks: 'A layer names a material that is not here any more; choose another.',
        });
    }
  };
  /** The newest set of each kind and rung of a job. */
  const inForce = (rows: readonly SetRow[]): SetRow[] => {
    const seen = new Set<string>();
    return rows.filter((r) => {
      const key = JSON.stringify([r.kind, r.rungCoats, r.label, r.objectId]);
      return seen.has(key) ? false : (seen.add(key), true);
    });
  };

  return {
    letdown,

    countJobs: async () => (await db.select({ n: sql<number>`count(*)::int` }).from(jobs))[0]!.n,

    listJobs: async () => {
      const listed = jobRows.many(
        await db.select().from(jobs).where(isNull(jobs.removedAt)).orderBy(desc(jobs.updatedAt)),
      );
      const sets = inForceByJob(
        await db.select().from(readingSets).where(isNull(readingSets.removedAt)).orderBy(desc(readingSets.sequence)),
        inForce,
      );
      const angles = await db
        .select({
          setId: readings.setId,
          n: sql<number>`count(distinct (${readings.incidence}, ${readings.aspecular}))::int`,
        })
        .from(readings)
        .groupBy(readings.setId);
      const judged = await letdown.rungsJudged();
      const cups = await db
        .select({ jobId: batches.jobId, n: sql<number>`count(*)::int` })
        .from(batches)
        .where(isNull(batches.removedAt))
        .groupBy(batches.jobId);
      return listed.map((job) => {
        const own = sets.get(job.id) ?? [];
        const target = own.find((s) => s.kind === 'target');
        const read = own.filter((s) => s.kind === 'rung').map((s) => s.rungCoats);
        return {
          ...job,
          targetAngles: angles.find((a) => a.setId === target?.id)?.n ?? 0,
          rungsRead: new Set([...read, ...(judged.get(job.id) ?? [])]).size,
          batches: cups.find((c) => c.jobId === job.id)?.n ?? 0,
        };
      });
    },

    cardsByJob: async () => new Map((await db.select().from(cards)).map((row) => [row.jobId, toCard(row)])),

    listRemoved: async () =>
      jobRows.many(await db.select().from(jobs).where(isNotNull(jobs.removedAt)).orderBy(desc(jobs.removedAt))),

    damagedJobs: async () => jobRows.damaged(await db.select().from(jobs)),

    createJob: (job, invented = false) =>
      db.transaction(async (tx) => {
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, job.id));
        if (existing) {
          const same =
            existing.piece === job.piece && existing.matching === job.matching && existing.systemId === job.systemId;
          if (!same) throw new ApiError('conflict');
          return jobRows.one(existing);
        }
        await checkMaterials(tx, job.systemId);
        const [row] = await tx
          .insert(jobs)
          .values({ ...job, invented })
          .returning();
        return jobRows.one(row!);
      }),

    readJob: async (id) => {
      const job = jobRows.one(await findJob(db, id));
      const [card] = await db.select().from(cards).where(eq(cards.jobId, id));
      const rows = await db
        .select()
        .from(readingSets)
        .where(and(eq(readingSets.jobId, id), isNull(readingSets.removedAt)))
        .orderBy(desc(readingSets.sequence));
      const sets = await loadSets(db, inForce(rows));
      const targetHistory = await loadSets(
        db,
        rows.filter((r) => r.kind === 'target' && r.objectId === null).slice(1, 1 + MOST_HISTORY),
      );
      return {
        job,
        target: sets.find((s) => s.kind === 'target' && s.objectId === null) ?? null,
        objectTargets: sets.filter((s) => s.kind === 'target' && s.objectId !== null),
        card: card ? toCard(card) : null,
        rungs: sets.filter((s) => s.kind === 'rung').sort((a, b) => a.rungCoats! - b.rungCoats!),
        targetHistory,
        chips: sets.filter((s) => s.kind === 'chip'),
        spots: sets.filter((s) => s.kind === 'spot'),
        events: await log.list(id),
        ...(await letdown.detail(job, card ?? null)),
      };
    },

    changeJob: (id, { version, removed, ...asked }) =>
      db.transaction(async (tx) => {
        const job = await findJob(tx, id);
        // Opened again it is not done any more.
        const change = asked.status === 'open' ? { ...asked, done: null } : asked;
        await checkMaterials(tx, job.systemId, change.choice?.groundId);
        await checkStacks(tx, change.stacks ?? []);
        if (change.mixing) await checkMixing(tx, change.mixing, job.mixing);
        checkFinishes(change.stacks ?? job.stacks, change.areas ?? job.areas);
        const out = removed === undefined ? {} : { removedAt: removed ? new Date() : null };
        const together = keepTogether(job, change);
        const [row] = await tx
          .update(jobs)
          .set({ ...change, ...together, ...out, version: version + 1, updatedAt: new Date() })
          .where(and(eq(jobs.id, id), eq(jobs.version, version)))
          .returning();
        if (!row) throw new ApiError('stale');
        return jobRows.one(row);
      }),

    copyJob: (from, id, piece) =>
      db.transaction(async (tx) => {
        const source = await findJob(tx, from);
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, id));
        if (existing) return jobRows.one(existing);
        const [row] = await tx
          .insert(jobs)
          .values({
            ...without(source, 'createdAt', 'updatedAt'),
            ...{ id, piece, status: 'open', done: null, removedAt: null, invented: false, version: 1 },
          })
          .returning();
        const sets = await tx
          .select()
          .from(readingSets)
          .where(
            and(
              eq(readingSets.jobId, from),
              isNull(readingSets.removedAt),
              inArray(readingSets.kind, ['target', 'rung', 'chip']),
            ),
          )
          .orderBy(asc(readingSets.sequence));
        for (const set of sets) {
          const setId = randomUUID();
          await tx.insert(readingSets).values({ ...without(set, 'sequence'), id: setId, jobId: id });
          const own = await tx.select().from(readings).where(eq(readings.setId, set.id));
          if (own.length) await tx.insert(readings).values(own.map((r) => ({ ...r, setId })));
        }
        const [card] = await tx.select().from(cards).where(eq(cards.jobId, from));
        if (card) await tx.insert(cards).values({ ...card, id: randomUUID(), jobId: id, version: 1 });
        await letdown.copyVerdicts(tx, from, id);
        return jobRows.one(row!);
      }),

    forgetRemoved: async (before) =>
      (await db.delete(jobs).where(lt(jobs.removedAt, before)).returning({ id: jobs.id })).length,

    addReadings: (jobId, set) =>
      db.transaction(async (tx) => {
        await findJob(tx, jobId);
        const [existing] = await tx.select().from(readingSets).where(eq(readingSets.id, set.id));
        if (existing) {
          if (existing.jobId !== jobId || existing.kind !== set.kind) throw new ApiError('conflict');
          return (await loadSets(tx, [existing]))[0]!;
        }
        await tx.insert(readingSets).values({
          id: set.id,
          jobId,
          kind: set.kind,
          rungCoats: set.rungCoats,
          source: set.source,
          label: set.label,
          objectId: set.objectId,
          state: set.state,
          doubt: set.doubt,
          takenAt: new Date(set.takenAt),
        });
        await tx.insert(readings).values(set.readings.map((r, place) => ({ setId: set.id, place, ...r })));
        await tx.update(jobs).set({ updatedAt: new Date() }).where(eq(jobs.id, jobId));
        return set;
      }),

    removeReadings: (setId, removed) =>
      db.transaction(async (tx) => {
        const [set] = await tx.select().from(readingSets).where(eq(readingSets.id, setId));
        if (!set) throw new ApiError('notFound');
        // What it replaced goes with it, or an older mistake would be in force again.
        const same = and(
          eq(readingSets.jobId, set.jobId),
          eq(readingSets.kind, set.kind),
          eq(readingSets.label, set.label),
          set.rungCoats === null ? isNull(readingSets.rungCoats) : eq(readingSets.rungCoats, set.rungCoats),
          set.objectId === null ? isNull(readingSets.objectId) : eq(readingSets.objectId, set.objectId),
          lte(readingSets.sequence, set.sequence),
        );
        const state = removed
          ? isNull(readingSets.removedAt)
          : set.removedAt
            ? eq(readingSets.removedAt, set.removedAt)
            : isNotNull(readingSets.removedAt);
        await tx
          .update(readingSets)
          .set({ removedAt: removed ? new Date() : null, updatedAt: new Date() })
          .where(and(same, state));
        await tx.update(jobs).set({ updatedAt: new Date() }).where(eq(jobs.id, set.jobId));
      }),

    putCard: (jobId, { version, ...card }) =>
      db.transaction(async (tx) => {
        await findJob(tx, jobId);
        const [existing] = await tx.select().from(cards).where(eq(cards.jobId, jobId));
        if (!existing) {
          if (version !== 0) throw new ApiError('stale');
          const [row] = await tx
            .insert(cards)
            .values({ ...card, jobId })
            .returning();
          return toCard(row!);
        }
        const [row] = await tx
          .update(cards)
          .set({
            rungs: card.rungs,
            gun: card.gun,
            pressureBar: card.pressureBar,
            onStand: card.onStand,
            settings: card.settings,
            version: version + 1,
            updatedAt: new Date(),
          })
          .where(and(eq(cards.jobId, jobId), eq(cards.version, version)))
          .returning();
        if (!row) throw new ApiError('stale');
        return toCard(row);
      }),
  };
}

/** Every area's finish is among those of the job. @throws ApiError at the areas that one would leave without */
function checkFinishes(
  stacks: readonly PieceStack[] | null | undefined,
  areas: readonly Area[] | null | undefined,
): void {
  const known = new Set((stacks ?? []).map((s) => s.id));
  const bare = (areas ?? []).filter((a) => a.finishId !== null && !known.has(a.finishId));
  if (bare.length)
    throw new ApiError('badRequest', {
      stacks: `${bare.map((a) => a.name).join(' and ')} ${bare.length > 1 ? 'get' : 'gets'} that finish: give ${bare.length > 1 ? 'them' : 'it'} another under Pieces first.`,
    });
}

/**
 * The pick and the layers of a job say the same: a new pick goes into the first stack, and layers that lay the job's mix over
 * a ground set the pick.
 */
function keepTogether(
  job: JobRow,
  change: { choice?: Choice; stacks?: Job['stacks'] },
): { choice?: Choice; stacks?: readonly PieceStack[] } {
  if (change.stacks) {
    const recipe = recipeOf(change.stacks[0]!.layers, job.systemId);
    return recipe && job.choice && recipe.coats <= 12 ? { choice: recipe } : {};
  }
  if (!change.choice || !job.stacks) return {};
  const [first, ...others] = job.stacks;
  return { stacks: [{ ...first!, layers: withRecipe(first!.layers, job.systemId, change.choice) }, ...others] };
}

function inForceByJob(rows: readonly SetRow[], pick: (rows: readonly SetRow[]) => SetRow[]): Map<string, SetRow[]> {
  const byJob = new Map<string, SetRow[]>();
  for (const row of rows) byJob.set(row.jobId, [...(byJob.get(row.jobId) ?? []), row]);
  return new Map([...byJob].map(([id, own]) => [id, pick(own)]));
}
