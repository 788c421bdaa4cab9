import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { finishes, jobs, type FinishUse } from '../../db/schema';

/** Uses with the version each finish has now: what was sprayed of it. */
export async function pinned(tx: Db, uses: readonly FinishUse[]): Promise<readonly FinishUse[]> {
  const ids = uses.map((u) => u.finishId);
  const found = await tx
    .select({ id: finishes.id, version: finishes.version })
    .from(finishes)
    .where(inArray(finishes.id, ids));
  const versions = new Map(found.map((f) => [f.id, f.version]));
  return uses.map((u) => ({ ...u, version: versions.get(u.finishId)! }));
}

/** Keeps which versions of its finishes a job sprays, when the first coat is on. */
export async function pinFinishes(tx: Db, jobId: string): Promise<void> {
  const [job] = await tx.select({ finishes: jobs.finishes }).from(jobs).where(eq(jobs.id, jobId));
  if (!job || job.finishes.every((u) => u.version !== undefined)) return;
  const now = await pinned(tx, job.finishes);
  const uses = job.finishes.map((u, i) => (u.version === undefined ? now[i]! : u));
  await tx.update(jobs).set({ finishes: uses }).where(eq(jobs.id, jobId));
}
