import { type Finish, type FinishSummary } from '@steady-gleam/contracts';
import { averageReadings } from '@steady-gleam/core/formats';
import type { SQL } from 'drizzle-orm';
import { desc, or, sql } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { jobs } from '../../db/schema';
import type { CardsRepo } from '../cards/repo';
import type { PhotosRepo } from '../photos/repo';
import { type ReadingsRepo } from '../readings/repo';
import type { VerdictsRepo } from '../verdicts/repo';

/** What a finish’s rooms tell of it. */
export interface Others {
  readonly readings: ReadingsRepo;
  readonly verdicts: VerdictsRepo;
  readonly cards: CardsRepo;
  readonly photos: PhotosRepo;
}

/** That a job uses a finish. */
export const usesIt = (id: SQL) =>
  sql`${jobs.finishes} @> jsonb_build_array(jsonb_build_object('finishId', ${id}::text))`;

/** Jobs that use some finishes, those that were taken out too, by finish. */
export async function usersOf(handle: Db, ids: readonly string[]): Promise<ReadonlyMap<string, FinishSummary['jobs']>> {
  const users = new Map<string, FinishSummary['jobs']>(ids.map((id) => [id, []]));
  if (!ids.length) return users;
  const rows = await handle
    .select({
      ...{ id: jobs.id, piece: jobs.piece, status: jobs.status },
      ...{ removedAt: jobs.removedAt, uses: jobs.finishes },
    })
    .from(jobs)
    .where(or(...ids.map((id) => usesIt(sql`${id}`))))
    .orderBy(desc(jobs.updatedAt));
  for (const { removedAt, uses, ...job } of rows)
    for (const use of uses)
      users.get(use.finishId)?.push({ ...job, removed: removedAt !== null, sprayed: use.version ?? null });
  return users;
}

/** What the bank tells of some finishes, in so many questions to the database, however many they are. */
export async function finishSummaries(
  db: Db,
  { readings, verdicts, cards: cardsRepo, photos }: Others,
  of: readonly Finish[],
): Promise<FinishSummary[]> {
  const ids = of.map((f) => f.id);
  const [sets, judged, using, inForce, photo] = await Promise.all([
    readings.inForceOf(ids),
    verdicts.rungsJudged(ids),
    usersOf(db, ids),
    cardsRepo.byFinish(ids),
    photos.newestOf(ids),
  ]);
  const targets = ids.flatMap((id) => sets.get(id)?.find((s) => s.kind === 'target') ?? []);
  const read = new Map((await readings.load(db, targets)).map((set) => [set.id, set.readings]));
  return of.map((finish) => {
    const own = sets.get(finish.id) ?? [];
    const target = own.find((s) => s.kind === 'target');
    const rungs = own.filter((s) => s.kind === 'rung').map((s) => s.rungCoats);
    const jobsOf = using.get(finish.id) ?? [];
    return {
      ...finish,
      jobs: jobsOf,
      strip: averageReadings((target && read.get(target.id)) ?? []).map(({ incidence, aspecular, lab }) => ({
        ...{ incidence, aspecular },
        lab: [lab[0], lab[1], lab[2]],
      })),
      targetAngles: target?.angles ?? 0,
      rungsRead: new Set([...rungs, ...(judged.get(finish.id) ?? [])]).size,
      gun: inForce.get(finish.id)?.gun ?? '',
      proven: jobsOf.filter((j) => j.status === 'finished').length,
      photoId: photo.get(finish.id) ?? null,
    };
  });
}
