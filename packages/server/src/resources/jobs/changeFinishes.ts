import {
  type Area,
  type Job,
  type JobObjectRow,
  type Mixing,
  type NewJob,
  type SprayPlan,
} from '@steady-gleam/contracts';
import { recipeOf, withRecipe, type PieceStack, type Recipe } from '@steady-gleam/core/finishes';
import type { Done } from '@steady-gleam/core/jobs';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../../db/open';
import { cards as cardRows, finishes, jobEvents, type FinishUse } from '../../db/schema';
import { ApiError } from '../../errors';
import { refuseTryOut, type FinishesRepo } from '../finishes/repo';
import { type FinishRow } from '../finishes/rows';
import { type ReadingsRepo } from '../readings/repo';
import { type JobRows } from './rows';
import { checkMix, checkStacks, newFinish, sameLayers, mixChange, checkGround, familyOf } from './checks';

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

/** What a change of a job's finishes is written to. */
interface Kept {
  readonly finishes: FinishesRepo;
  readonly readings: ReadingsRepo;
}

/** A finish of a job's own: like another, with its card, for another count or another reading. @returns its id */
export async function ownOf(
  tx: Db,
  { finishes: finishesRepo, readings }: Kept,
  used: FinishRow,
  { piece, coats, target }: NewJob,
): Promise<string> {
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
export async function changeFinishes(
  tx: Db,
  finishesRepo: FinishesRepo,
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
  if (sprayed.length) refuse('Coats of its own mix were told. Begin a job with the new one.');
  if (card.length) refuse('Its card was begun with its own mix. Put the card aside, or begin a job with the new one.');
}
