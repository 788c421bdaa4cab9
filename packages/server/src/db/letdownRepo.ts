import type { JobDetail, Job, Photo, VerdictEvent } from '@steady-gleam/contracts';
import type { KnownHand } from '@steady-gleam/core';
import { and, asc, desc, eq, isNotNull, ne } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { ApiError } from '../http/apiError';
import type { Db } from './open';
import { without } from './rows';
import { cards, jobs, photos, verdicts } from './schema';

/** Verdicts, photos and hands of let-down cards. */
export interface LetdownRepo {
  readonly detail: (
    job: Job,
    card: { gun: string } | null,
  ) => Promise<Pick<JobDetail, 'verdicts' | 'photos' | 'earlier'>>;
  /** Coats of the rungs that were judged by eye, by job. */
  readonly rungsJudged: () => Promise<ReadonlyMap<string, readonly number[]>>;
  readonly addVerdict: (jobId: string, event: VerdictEvent) => Promise<VerdictEvent>;
  readonly copyVerdicts: (handle: Db, from: string, to: string) => Promise<void>;
  readonly putHand: (jobId: string, hand: KnownHand & { style: string }) => Promise<void>;
  readonly addPhoto: (jobId: string, photo: Photo, type: string, bytes: Uint8Array) => Promise<Photo>;
  readonly readPhoto: (id: string) => Promise<{ type: string; bytes: Uint8Array }>;
  readonly removePhoto: (id: string) => Promise<void>;
}

type VerdictRow = typeof verdicts.$inferSelect;

const toVerdict = (row: VerdictRow): VerdictEvent => ({
  id: row.id,
  coats: row.coats,
  view: row.view as VerdictEvent['view'],
  verdict: row.verdict as VerdictEvent['verdict'],
  takenAt: row.takenAt.toISOString(),
});

/** The newest of each count and view, unless it withdraws what was said. @param rows newest first */
function inForce(rows: readonly VerdictRow[]): VerdictRow[] {
  const seen = new Set<string>();
  return rows.filter((r) => {
    const key = [r.jobId, r.coats, r.view].join('/');
    return seen.has(key) ? false : (seen.add(key), r.verdict !== null);
  });
}

export function createLetdownRepo(db: Db): LetdownRepo {
  const findJob = async (handle: Db, id: string): Promise<void> => {
    const [row] = await handle.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id));
    if (!row) throw new ApiError('notFound');
  };
  return {
    detail: async (job, card) => {
      const rows = await db.select().from(verdicts).where(eq(verdicts.jobId, job.id)).orderBy(desc(verdicts.sequence));
      const pictures = await db
        .select({ id: photos.id, kind: photos.kind, coats: photos.coats, takenAt: photos.takenAt })
        .from(photos)
        .where(eq(photos.jobId, job.id))
        .orderBy(asc(photos.takenAt));
      const style = job.choice?.style;
      const earlier =
        card && style
          ? await db
              .select({ hand: cards.hand })
              .from(cards)
              .where(
                and(
                  eq(cards.gun, card.gun),
                  eq(cards.handStyle, style),
                  ne(cards.jobId, job.id),
                  isNotNull(cards.hand),
                ),
              )
          : [];
      return {
        verdicts: inForce(rows).map(toVerdict),
        photos: pictures.map((p): Photo => ({ ...p, kind: p.kind as Photo['kind'], takenAt: p.takenAt.toISOString() })),
        earlier: earlier.map((e) => e.hand as JobDetail['earlier'][number]),
      };
    },

    rungsJudged: async () => {
      const rows = await db.select().from(verdicts).orderBy(desc(verdicts.sequence));
      const judged = new Map<string, number[]>();
      for (const { jobId, coats } of inForce(rows)) judged.set(jobId, [...(judged.get(jobId) ?? []), coats]);
      return judged;
    },

    addVerdict: (jobId, event) =>
      db.transaction(async (tx) => {
        await findJob(tx, jobId);
        const [existing] = await tx.select().from(verdicts).where(eq(verdicts.id, event.id));
        if (existing) {
          if (existing.jobId !== jobId) throw new ApiError('conflict');
          return toVerdict(existing);
        }
        await tx.insert(verdicts).values({ ...event, jobId, takenAt: new Date(event.takenAt) });
        return event;
      }),

    copyVerdicts: async (handle, from, to) => {
      const rows = await handle.select().from(verdicts).where(eq(verdicts.jobId, from)).orderBy(asc(verdicts.sequence));
      for (const row of rows)
        await handle.insert(verdicts).values({ ...without(row, 'sequence'), id: randomUUID(), jobId: to });
    },

    putHand: async (jobId, { style, mean, sd }) => {
      const changed = await db
        .update(cards)
        .set({ hand: { mean, sd }, handStyle: style })
        .where(eq(cards.jobId, jobId))
        .returning({ id: cards.id });
      if (!changed.length) throw new ApiError('notFound');
    },

    addPhoto: (jobId, photo, type, bytes) =>
      db.transaction(async (tx) => {
        await findJob(tx, jobId);
        const [existing] = await tx.select({ jobId: photos.jobId }).from(photos).where(eq(photos.id, photo.id));
        if (existing && existing.jobId !== jobId) throw new ApiError('conflict');
        if (!existing)
          await tx.insert(photos).values({ ...photo, jobId, type, bytes, takenAt: new Date(photo.takenAt) });
        return photo;
      }),

    readPhoto: async (id) => {
      const [row] = await db.select({ type: photos.type, bytes: photos.bytes }).from(photos).where(eq(photos.id, id));
      if (!row) throw new ApiError('notFound');
      return row;
    },

    removePhoto: async (id) => {
      const gone = await db.delete(photos).where(eq(photos.id, id)).returning({ id: photos.id });
      if (!gone.length) throw new ApiError('notFound');
    },
  };
}

/** The kind of picture or page some bytes are, by their first ones; null for anything else. */
export function fileType(bytes: Uint8Array): string | null {
  const starts = (...head: number[]) => head.every((b, i) => bytes[i] === b);
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0x89, 0x50, 0x4e, 0x47)) return 'image/png';
  if (starts(0x52, 0x49, 0x46, 0x46) && Buffer.from(bytes.subarray(8, 12)).toString('latin1') === 'WEBP')
    return 'image/webp';
  if (starts(0x25, 0x50, 0x44, 0x46, 0x2d)) return 'application/pdf';
  return null;
}
