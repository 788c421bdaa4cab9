import {
  PAGE_SIZE,
  type Area,
  type Damaged,
  type Job,
  type JobDetail,
  type JobObjectRow,
  type JobQuery,
  type JobSummary,
  type Mixing,
  type NewJob,
  type SprayPlan,
} from '@steady-gleam/contracts';
import { materialsOf, recipeOf, withRecipe, type PieceStack, type Recipe } from '@steady-gleam/core/finishes';
import type { Done } from '@steady-gleam/core/jobs';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { and, asc, desc, eq, inArray, isNotNull, isNull, lt, ne, sql, type SQL } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, without, type TellDamage } from '../../db/rows';
import { cards as cardRows, finishes, jobEvents, jobs, materials, type FinishUse } from '../../db/schema';
import { ApiError } from '../../errors';
import type { CardsRepo } from '../cards/repo';
import { pinned } from '../finishes/pin';
import { anywhere, refuseTryOut, wordsOf, type FinishesRepo } from '../finishes/repo';
import { mixOfLayers, type FinishRow } from '../finishes/rows';
import type { LimitsRepo } from '../limits/repo';
import type { LogRepo } from '../log/repo';
import { knownMaterial } from '../materials/repo';
import type { PhotosRepo } from '../photos/repo';
import { setsInForce, type ReadingsRepo } from '../readings/repo';
import type { VerdictsRepo } from '../verdicts/repo';
import { checkMixing } from './checkMixing';
import type { StackColours } from './stackColours';
import { finishNames, stacksOf, toJob, type JobRow, type JobRows } from './rows';

/** Earlier readings of a target that are shown. */
const MOST_HISTORY = 10;

type Stacks = readonly (PieceStack & { readonly finishId?: string | null | undefined })[];

/** What may be changed of a job, and of the finish it is about. */
export interface JobChange {
  readonly version: number;
  readonly piece?: string | undefined;
  readonly status?: Job['status'] | undefined;
  readonly removed?: boolean | undefined;
  readonly filmLimitUm?: number | null | undefined;
  readonly objects?: JobObjectRow[] | undefined;
  readonly areas?: Area[] | undefined;
  readonly mixing?: Mixing | undefined;
  readonly plan?: SprayPlan | undefined;
  readonly done?: Done | null | undefined;
  /** The finish that the following are of; the job's first when left out. */
  readonly finishId?: string | undefined;
  readonly matching?: string | undefined;
  readonly pick?: Recipe | undefined;
  readonly mixId?: string | undefined;
  /** Of all its finishes; null lets them follow from the pick again. */
  readonly stacks?: Stacks | null | undefined;
}

/** A job as the list has it, but for where it is in the booth. */
export type Listed = Omit<JobSummary, Standing>;
/** Where it is in the booth, and how its film looks. */
export type Standing = 'run' | 'film' | 'colours';
/** Cups mixed, by job. */
type CupsOf = (jobIds: readonly string[]) => Promise<ReadonlyMap<string, number>>;

/** A page of a list, and how many there are. */
interface Listing<T> {
  readonly rows: T[];
  readonly total: number;
  /** Of each state in all. */
  readonly states: { readonly open: number; readonly finished: number; readonly away: number };
}

interface Others {
  readonly finishes: FinishesRepo;
  readonly readings: ReadingsRepo;
  readonly verdicts: VerdictsRepo;
  readonly photos: PhotosRepo;
  readonly cards: CardsRepo;
  readonly log: LogRepo;
  readonly limits: LimitsRepo;
  readonly colours: StackColours;
}

export function createJobsRepo(db: Db, others: Others, tell: TellDamage = UNTOLD) {
  const { finishes: finishesRepo, readings, verdicts, photos, cards, log, limits, colours } = others;
  const jobRows = rowReader(
    'job',
    toJob,
    ({ job }) => ({ id: job.id, name: job.piece }),
    tell,
    // Of all the finishes at hand its own alone.
    ({ job, about, finishes: all }) => JSON.stringify([about, job, job.finishes.map((u) => all.get(u.finishId))]),
  );
  const findJob = async (handle: Db, id: string): Promise<JobRow> => {
    const [row] = await handle.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new ApiError('notFound');
    return row;
  };
  /** Jobs with the finishes they use. */
  const withFinishes = async (handle: Db, rows: readonly JobRow[]): Promise<JobRows[]> => {
    const ids = [...new Set(rows.flatMap((j) => j.finishes.map((u) => u.finishId)))];
    const found = ids.length ? await handle.select().from(finishes).where(inArray(finishes.id, ids)) : [];
    const byId = new Map(found.map((f) => [f.id, f]));
    return rows.map((job) => ({ job, finishes: byId }));
  };
  const readRows = async (handle: Db, id: string): Promise<JobRows> =>
    (await withFinishes(handle, [await findJob(handle, id)]))[0]!;

  const summaries = async (listed: readonly Job[], cups: CupsOf): Promise<Listed[]> => {
    const ids = listed.map((j) => j.finishId);
    const [sets, judged, mixed] = await Promise.all([
      readings.inForceOf(ids),
      verdicts.rungsJudged(ids),
      cups(listed.map((j) => j.id)),
    ]);
    return listed.map((job) => {
      const own = sets.get(job.finishId) ?? [];
      const read = own.filter((s) => s.kind === 'rung').map((s) => s.rungCoats);
      return {
        ...job,
        targetAngles: own.find((s) => s.kind === 'target')?.angles ?? 0,
        rungsRead: new Set([...read, ...(judged.get(job.finishId) ?? [])]).size,
        batches: mixed.get(job.id) ?? 0,
      };
    });
  };

  return {
    count: async (): Promise<number> => (await db.select({ n: sql<number>`count(*)::int` }).from(jobs))[0]!.n,

    /** A page of what answers to a query; where they are in the booth is not among it. Those that were taken out are in no list. */
    list: async (q: JobQuery, cups: CupsOf): Promise<Listing<Listed>> => {
      const ofFinish = (said: SQL) =>
        sql`exists (select 1 from ${finishes} where ${jobs.finishes} @> jsonb_build_array(jsonb_build_object('finishId', ${finishes.id})) and ${said})`;
      const answers = wordsOf(q.words).map((word) => {
        const like = anywhere(word);
        const said = sql`(${finishes.name} ilike ${like} or ${finishes.matching} ilike ${like} or ${finishes.codes}::text ilike ${like} or ${finishes.family} ilike ${like})`;
        return sql`(${jobs.piece} ilike ${like} or to_char(${jobs.updatedAt}, 'YYYY-MM-DD') like ${like} or ${ofFinish(said)})`;
      });
      const inList = and(
        isNull(jobs.removedAt),
        q.status === 'listed' ? ne(jobs.status, 'away') : eq(jobs.status, q.status),
        q.family ? ofFinish(sql`${finishes.family} = ${q.family}`) : undefined,
        ...answers,
      );
      // What is being sprayed can't wait; what is finished can.
      const rank = sql`case when ${jobs.status} = 'finished' then 2 when ${jobs.begun} then 0 else 1 end`;
      const order = {
        next: [asc(rank), desc(jobs.updatedAt), asc(jobs.id)],
        latest: [desc(jobs.updatedAt), asc(jobs.id)],
        name: [asc(sql`lower(${jobs.piece})`), asc(jobs.id)],
      }[q.sort];
      const rows = await db
        .select()
        .from(jobs)
        .where(inList)
        .orderBy(...order)
        .limit(PAGE_SIZE)
        .offset(q.page * PAGE_SIZE);
      const [counted] = await db
        .select({ n: sql<number>`count(*)::int` })
        .from(jobs)
        .where(inList);
      const counts = await db
        .select({ status: jobs.status, n: sql<number>`count(*)::int` })
        .from(jobs)
        .where(isNull(jobs.removedAt))
        .groupBy(jobs.status);
      const of = (status: string) => counts.find((c) => c.status === status)?.n ?? 0;
      return {
        total: counted!.n,
        states: { open: of('open'), finished: of('finished'), away: of('away') },
        rows: await summaries(jobRows.many(await withFinishes(db, rows)), cups),
      };
    },

    /** One as the list has it. */
    listed: async (id: string, cups: CupsOf): Promise<Listed> =>
      (await summaries([jobRows.one(await readRows(db, id))], cups))[0]!,

    listRemoved: async (): Promise<Job[]> => {
      const rows = await db.select().from(jobs).where(isNotNull(jobs.removedAt)).orderBy(desc(jobs.removedAt));
      return jobRows.many(await withFinishes(db, rows));
    },

    damaged: async (): Promise<Damaged[]> => jobRows.damaged(await withFinishes(db, await db.select().from(jobs))),

    /** A job about a finish that is there, or about a new one. */
    create: (job: NewJob, invented = false): Promise<Job> =>
      db.transaction(async (tx) => {
        const { id, piece, matching, family, mixId } = job;
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, id));
        if (existing) {
          const there = jobRows.one(await readRows(tx, id));
          const isOwn = job.coats !== null || job.target !== null;
          const same = job.finishId
            ? isOwn || there.finishId === job.finishId
            : there.matching === matching && there.mixId === mixId;
          if (there.piece !== piece || !same) throw new ApiError('conflict');
          return there;
        }
        let { finishId } = job;
        if (finishId) {
          const used = await finishesRepo.find(tx, finishId);
          refuseTryOut(used);
          if (used.mixId === null)
            throw new ApiError('badRequest', { finishId: 'This finish lays no mix; choose another.' });
          if (job.coats !== null || job.target) finishId = await ownOf(tx, used, job);
        } else {
          await checkMix(tx, mixId);
          finishId = randomUUID();
          await tx
            .insert(finishes)
            .values({ id: finishId, name: (matching || piece).slice(0, 80), matching, family, mixId, invented });
        }
        await tx
          .insert(jobs)
          .values({ id, piece, finishes: [{ key: 'main', name: 'whole piece', finishId }], invented });
        return jobRows.one(await readRows(tx, id));
      }),

    /** @param about one of the job's finishes; its first when left out */
    read: async (id: string, about?: string): Promise<JobDetail> => {
      const rows = await readRows(db, id);
      if (about !== undefined && !rows.job.finishes.some((u) => u.finishId === about)) throw new ApiError('notFound');
      const first = jobRows.one(rows);
      const job = about === undefined ? first : jobRows.one({ ...rows, about });
      const { finishId } = job;
      const ofFinish = await readings.rowsOf(db, { finishId });
      const ofJob = await readings.rowsOf(db, { jobId: id });
      const sets = await readings.load(db, setsInForce([...ofFinish, ...ofJob]));
      const earlierTargets = ofFinish.filter((r) => r.kind === 'target').slice(1, 1 + MOST_HISTORY);
      const card = await cards.inForce(finishId);
      const finish = finishesRepo.toFinish(rows.finishes.get(finishId)!);
      const earlierCards = (await cards.earlierOf([finishId])).get(finishId) ?? [];
      return {
        job,
        finish: { ...finish, jobs: await finishesRepo.users(db, finishId), cards: earlierCards },
        finishes: finishNames(rows),
        target: sets.find((s) => s.kind === 'target' && s.objectId === null) ?? null,
        // Objects are looked at for the finish the job is about.
        objectTargets: sets.filter((s) => s.kind === 'target' && s.objectId !== null && finishId === first.finishId),
        card,
        rungs: sets.filter((s) => s.kind === 'rung').sort((a, b) => a.rungCoats! - b.rungCoats!),
        targetHistory: await readings.load(db, earlierTargets),
        chips: sets.filter((s) => s.kind === 'chip'),
        spots: sets.filter((s) => s.kind === 'spot'),
        verdicts: await verdicts.list(finishId),
        photos: await photos.list(id, finishId),
        events: await log.list({ jobId: id }),
        familyLimits: await limits.of(job.family),
        colours: await colours.ofJob(first),
        earlier: card && job.pick ? await cards.handsLike(card, job.pick.style, job.family) : [],
      };
    },

    change: (id: string, { version, removed, ...asked }: JobChange): Promise<Job> =>
      db.transaction(async (tx) => {
        const rows = await readRows(tx, id);
        if (rows.job.version !== version) throw new ApiError('stale');
        const { finishId, matching, pick, mixId, stacks, ...change } = asked;
        if (change.mixing) await checkMixing(tx, change.mixing, rows.job.mixing);
        // Under its own copy the finish has another id.
        const keyOf = rows.job.finishes.find((u) => u.finishId === finishId)?.key;
        const uses = await changeFinishes(tx, rows, { finishId, matching, pick, mixId, stacks });
        checkAreas(stacks === undefined ? (stacksOf(rows) ?? []) : (stacks ?? []), change.areas ?? rows.job.areas);
        const changed = await tx
          .update(jobs)
          .set({
            ...change,
            // Opened again it is not done any more.
            ...(change.status === 'open' ? { done: null } : {}),
            ...(removed === undefined ? {} : { removedAt: removed ? new Date() : null }),
            finishes: change.status === 'finished' ? await pinned(tx, uses) : uses,
            version: version + 1,
            updatedAt: new Date(),
          })
          .where(and(eq(jobs.id, id), eq(jobs.version, version)))
          .returning({ id: jobs.id });
        if (!changed.length) throw new ApiError('stale');
        if (stacks !== undefined) await finishesRepo.sweep(tx);
        return jobRows.one({
          ...(await readRows(tx, id)),
          about: finishId && uses.find((u) => u.key === keyOf)?.finishId,
        });
      }),

    /** A job like another: its finishes, objects with their targets, areas and plan; nothing of its log. */
    copy: (from: string, id: string, piece: string): Promise<Job> =>
      db.transaction(async (tx) => {
        const source = await findJob(tx, from);
        refuseTryOut({ tryOut: source.tryOut !== null, name: source.piece });
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, id));
        if (!existing) {
          const uses = source.finishes.map(({ key, name, finishId }) => ({ key, name, finishId }));
          const fresh = {
            id,
            piece,
            finishes: uses,
            status: 'open',
            done: null,
            removedAt: null,
            invented: false,
            version: 1,
          };
          await tx.insert(jobs).values({ ...without(source, 'createdAt', 'updatedAt'), ...fresh });
          await readings.copy(tx, { jobId: from }, { jobId: id });
        }
        return jobRows.one(await readRows(tx, id));
      }),

    /** Deletes for good what was taken out before a moment; the finishes stay. @returns how many jobs */
    forgetRemoved: async (before: Date): Promise<number> => {
      const gone = await db.delete(jobs).where(lt(jobs.removedAt, before)).returning({ id: jobs.id });
      if (gone.length) await finishesRepo.sweep(db);
      return gone.length;
    },
  };

  /** A finish of a job's own: like another, with its card, for another count or another reading. @returns its id */
  async function ownOf(tx: Db, used: FinishRow, { piece, coats, target }: NewJob): Promise<string> {
    if (target && (target.kind !== 'target' || target.objectId !== null))
      throw new ApiError('badRequest', { target: 'Only a reading of what has to be matched can be given here.' });
    if (coats !== null && !used.pick)
      throw new ApiError('badRequest', { coats: 'Nothing is picked for this finish yet, so it has no count.' });
    const id = await finishesRepo.copy(tx, used.id);
    const pick = used.pick && coats !== null ? { ...used.pick, coats } : used.pick;
    const layers = pick && used.layers ? withRecipe(used.layers, used.mixId!, pick) : used.layers;
    await tx
      .update(finishes)
      .set({
        name: `${used.name}, ${piece}`.slice(0, 80),
        codes: used.codes,
        pick,
        layers,
        ...(target ? { matching: piece } : {}),
      })
      .where(eq(finishes.id, id));
    if (target) await readings.store(tx, { finishId: id }, target);
    return id;
  }

  /**
   * Changes what a job's finishes are. One that other jobs use too is never changed under them: this job gets its own of it,
   * with everything that was read and sprayed for it.
   * @returns the finishes the job uses from now on
   */
  async function changeFinishes(
    tx: Db,
    rows: JobRows,
    { finishId, matching, pick, mixId, stacks }: Pick<JobChange, 'finishId' | 'matching' | 'pick' | 'mixId' | 'stacks'>,
  ): Promise<readonly FinishUse[]> {
    let uses = rows.job.finishes;
    if (finishId !== undefined && !uses.some((u) => u.finishId === finishId))
      throw new ApiError('badRequest', { finishId: 'This finish is not one of the job’s any more.' });
    const write = async (id: string, change: Partial<FinishRow>): Promise<void> => {
      const shared = (await finishesRepo.users(tx, id)).some((j) => j.id !== rows.job.id);
      const own = shared ? await finishesRepo.copy(tx, id) : id;
      uses = uses.map((u) => (u.finishId === id ? { ...u, finishId: own } : u));
      await finishesRepo.keepVersion(tx, own, change);
      await tx
        .update(finishes)
        .set({ ...change, version: sql`${finishes.version} + 1`, updatedAt: new Date() })
        .where(eq(finishes.id, own));
    };
    if (stacks === null) {
      await write(uses[0]!.finishId, { layers: null });
      uses = uses.slice(0, 1);
    } else if (stacks !== undefined) {
      await checkStacks(tx, stacks);
      if (rows.job.tryOut && stacks.length > 1)
        throw new ApiError('badRequest', { stacks: 'A try-out has one finish; begin another one for another.' });
      const before = uses;
      uses = [];
      for (const [i, s] of stacks.entries()) {
        const known = before.find((u) => u.key === s.id) ?? (i === 0 ? before[0] : undefined);
        const at = known?.finishId ?? s.finishId ?? (await newFinish(tx, s, rows.job.invented));
        uses = [...uses, { ...(known?.finishId === at ? known : {}), key: s.id, name: s.name, finishId: at }];
        const there = await finishesRepo.find(tx, at);
        if (!rows.job.tryOut) refuseTryOut(there);
        if (sameLayers(there.layers, s.layers)) continue;
        const recipe = there.mixId === null ? null : recipeOf(s.layers, there.mixId);
        const picked = recipe && there.pick && recipe.coats <= 12 ? { pick: recipe } : {};
        // The first finish is about the mix the job was begun with; the others follow their layers.
        const mix = i === 0 ? {} : await mixChange(tx, there, s.layers);
        await write(at, { layers: s.layers, ...picked, ...mix });
      }
    }
    // What was just written may be a copy of its own by now.
    const key = rows.job.finishes.find((u) => u.finishId === finishId)?.key;
    const about = (uses.find((u) => u.key === key) ?? uses[0]!).finishId;
    const there = await finishesRepo.find(tx, about);
    if (mixId !== undefined && mixId !== there.mixId) {
      await checkNewMix(tx, rows, there, mixId);
      if (!pick)
        throw new ApiError('badRequest', { pick: 'Say over which ground the new mix is laid, and in how many coats.' });
      await checkGround(tx, pick.groundId);
      const layers = there.layers?.map((l) => (l.materialId === there.mixId ? { ...l, materialId: mixId } : l));
      const laid = layers ? { layers: withRecipe(layers, mixId, pick) } : {};
      await write(about, { mixId, pick, ...(matching === undefined ? {} : { matching }), ...laid });
      return uses;
    }
    const said = (matching ?? there.matching) !== there.matching || (pick && !isDeepStrictEqual(pick, there.pick));
    if (said) {
      if (pick) await checkGround(tx, pick.groundId);
      const layers = pick && there.layers && there.mixId ? { layers: withRecipe(there.layers, there.mixId, pick) } : {};
      await write(about, { ...(matching === undefined ? {} : { matching }), ...(pick ? { pick, ...layers } : {}) });
    }
    return uses;
  }

  /** A finish takes another mix while nothing of its own was sprayed: not on a card, not on the job. */
  async function checkNewMix(tx: Db, { job }: JobRows, there: FinishRow, mixId: string): Promise<void> {
    const refuse = (mixId: string): never => {
      throw new ApiError('badRequest', { mixId });
    };
    await checkMix(tx, mixId);
    if (job.tryOut) refuse('A try-out keeps its mix; begin another one for another.');
    if ((await familyOf(tx, mixId)) !== there.family) refuse('This mix is of another family than the finish.');
    const card = await tx
      .select({ id: cardRows.id })
      .from(cardRows)
      .where(and(eq(cardRows.finishId, there.id), isNull(cardRows.retiredAt)));
    const sprayed = await tx
      .select({ id: jobEvents.id })
      .from(jobEvents)
      .where(and(eq(jobEvents.jobId, job.id), eq(jobEvents.kind, 'sprayed')))
      .limit(1);
    if (card.length || sprayed.length)
      refuse('Something of its own mix was sprayed already. Begin a job with the new one.');
  }
}
export type JobsRepo = ReturnType<typeof createJobsRepo>;

const sameLayers = (a: PieceStack['layers'] | null, b: PieceStack['layers']): boolean =>
  a !== null && JSON.stringify(a) === JSON.stringify(b);

async function familyOf(tx: Db, mixId: string | null): Promise<string | null> {
  if (mixId === null) return null;
  const known = REFERENCE_LIBRARY.systems.find((m) => m.id === mixId);
  if (known) return known.family;
  const own = await tx.select({ id: materials.id, material: materials.material }).from(materials);
  const found = own.find((m) => m.id === mixId)?.material;
  return found?.kind === 'system' ? found.family : null;
}

async function newFinish(tx: Db, stack: PieceStack, invented: boolean): Promise<string> {
  const id = randomUUID();
  const mixId = mixOfLayers(stack.layers);
  await tx.insert(finishes).values({
    id,
    name: stack.name,
    matching: '',
    family: await familyOf(tx, mixId),
    mixId,
    layers: stack.layers,
    invented,
  });
  return id;
}

/** The mix of a finish follows its layers. */
async function mixChange(tx: Db, there: FinishRow, layers: PieceStack['layers']): Promise<Partial<FinishRow>> {
  const mixId = mixOfLayers(layers);
  return mixId === there.mixId ? {} : { mixId, family: await familyOf(tx, mixId) };
}

async function checkMix(tx: Db, mixId: string): Promise<void> {
  if (!(await knownMaterial(tx, 'system', mixId)))
    throw new ApiError('badRequest', { mixId: 'This mix is not here any more; choose another.' });
}

async function checkGround(tx: Db, groundId: string): Promise<void> {
  if (!(await knownMaterial(tx, 'ground', groundId)))
    throw new ApiError('badRequest', { groundId: 'This ground is not here any more; choose another.' });
}

async function checkStacks(tx: Db, stacks: readonly PieceStack[]): Promise<void> {
  for (const { kind, id } of materialsOf(stacks)) {
    if (!(await knownMaterial(tx, kind, id)))
      throw new ApiError('badRequest', {
        stacks: 'A layer names a material that is not here any more; choose another.',
      });
  }
}

/** Every area's finish is among those of the job. @throws ApiError at the areas that one would leave without */
function checkAreas(stacks: readonly Pick<PieceStack, 'id'>[], areas: readonly Area[] | null | undefined): void {
  const known = new Set(stacks.map((s) => s.id));
  const bare = (areas ?? []).filter((a) => a.finishId !== null && !known.has(a.finishId));
  if (bare.length)
    throw new ApiError('badRequest', {
      stacks: `${bare.map((a) => a.name).join(' and ')} ${bare.length > 1 ? 'get' : 'gets'} that finish: give ${bare.length > 1 ? 'them' : 'it'} another under Pieces first.`,
    });
}
