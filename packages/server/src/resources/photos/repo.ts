import { photoSchema, type Photo } from '@steady-gleam/contracts';
import { and, asc, desc, eq, inArray, isNull, or } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { photos } from '../../db/schema';
import { ApiError } from '../../errors';
import { checkOwner, type Owner } from '../readings/repo';

/** Photos of targets, rungs and jobs. */
export function createPhotosRepo(db: Db) {
  return {
    /** Of a job and of one of its finishes, without their bytes; nothing of earlier cards. */
    list: async (jobId: string, finishId: string): Promise<Photo[]> => {
      const rows = await db
        .select({ id: photos.id, kind: photos.kind, coats: photos.coats, takenAt: photos.takenAt })
        .from(photos)
        .where(and(or(eq(photos.jobId, jobId), eq(photos.finishId, finishId)), isNull(photos.cardId)))
        .orderBy(asc(photos.takenAt));
      return rows.map((p) => photoSchema.validateSync({ ...p, takenAt: p.takenAt.toISOString() }));
    },

    /** Of a finish alone: of its target and the card in force, or of an earlier card. */
    ofFinish: async (finishId: string, cardId: string | null): Promise<Photo[]> => {
      const rows = await db
        .select({ id: photos.id, kind: photos.kind, coats: photos.coats, takenAt: photos.takenAt })
        .from(photos)
        .where(and(eq(photos.finishId, finishId), cardId === null ? isNull(photos.cardId) : eq(photos.cardId, cardId)))
        .orderBy(asc(photos.takenAt));
      return rows.map((p) => photoSchema.validateSync({ ...p, takenAt: p.takenAt.toISOString() }));
    },

    /** The newest photo of each of some finishes. */
    newestOf: async (finishIds: readonly string[]): Promise<ReadonlyMap<string, string>> => {
      if (!finishIds.length) return new Map();
      const rows = await db
        .selectDistinctOn([photos.finishId], { id: photos.id, finishId: photos.finishId })
        .from(photos)
        .where(and(inArray(photos.finishId, [...finishIds]), isNull(photos.cardId)))
        .orderBy(photos.finishId, desc(photos.takenAt));
      return new Map(rows.map((r) => [r.finishId!, r.id]));
    },

    add: (owner: Owner, photo: Photo, type: string, bytes: Uint8Array): Promise<Photo> =>
      db.transaction(async (tx) => {
        if ((photo.kind === 'job') !== 'jobId' in owner)
          throw new ApiError('badRequest', { kind: 'A photo of a target or a rung belongs to its finish.' });
        await checkOwner(tx, owner);
        const [existing] = await tx
          .select({ jobId: photos.jobId, finishId: photos.finishId })
          .from(photos)
          .where(eq(photos.id, photo.id));
        const its = 'jobId' in owner ? existing?.jobId === owner.jobId : existing?.finishId === owner.finishId;
        if (existing && !its) throw new ApiError('conflict');
        if (!existing)
          await tx.insert(photos).values({ ...photo, ...owner, type, bytes, takenAt: new Date(photo.takenAt) });
        return photo;
      }),

    read: async (id: string): Promise<{ type: string; bytes: Uint8Array }> => {
      const [row] = await db.select({ type: photos.type, bytes: photos.bytes }).from(photos).where(eq(photos.id, id));
      if (!row) throw new ApiError('notFound');
      return row;
    },

    remove: async (id: string): Promise<void> => {
      const gone = await db.delete(photos).where(eq(photos.id, id)).returning({ id: photos.id });
      if (!gone.length) throw new ApiError('notFound');
    },
  };
}

export type PhotosRepo = ReturnType<typeof createPhotosRepo>;
