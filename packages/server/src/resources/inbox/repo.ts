import type { OfferedFile } from '@steady-gleam/contracts';
import { averageReadings, importReadings, spotsOf } from '@steady-gleam/core/formats';
import { and, desc, eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { inboxFiles } from '../../db/schema';
import { ApiError } from '../../errors';
import type { CameIn } from '../../inbox/watch';

/** Files that are shown at once; and letters up to which one is looked into as it comes. */
const [MOST_SHOWN, LOOKED_INTO] = [20, 60_000] as const;

/** What stands in a file, where nothing has to be asked for that. */
function lookedInto(file: CameIn): { found: { spots: number; angles: number } | null; fault: string | null } {
  if (file.fault !== null || file.text.length > LOOKED_INTO) return { found: null, fault: file.fault };
  const read = importReadings(file.text, {});
  if (read.ok === 'ask') return { found: null, fault: null };
  if (!read.ok) {
    const [first] = read.problems;
    return {
      found: null,
      fault: `${first?.line ? `Line ${first.line}: ` : ''}${first?.message ?? 'It can’t be read.'}`,
    };
  }
  return {
    found: { spots: spotsOf(read.readings), angles: averageReadings(read.readings).length },
    fault: null,
  };
}

/** Files of readings that came into the watched folder. */
export function createInboxRepo(db: Db) {
  return {
    /** Offers a file, once. One that was offered while more was still to come gives way to the longer one. */
    offer: (file: CameIn): Promise<void> =>
      db.transaction(async (tx) => {
        const { name, hash, text, writtenAt } = file;
        const row = { name, hash, text, writtenAt, ...lookedInto(file) };
        const [shorter] = await tx
          .select({ id: inboxFiles.id })
          .from(inboxFiles)
          .where(
            and(
              eq(inboxFiles.name, name),
              eq(inboxFiles.state, 'offered'),
              sql`${inboxFiles.text} <> '' and ${inboxFiles.text} <> ${text} and starts_with(${text}, ${inboxFiles.text})`,
            ),
          )
          .for('update');
        if (shorter) {
          await tx
            .update(inboxFiles)
            .set({ ...row, updatedAt: new Date() })
            .where(eq(inboxFiles.id, shorter.id));
          return;
        }
        await tx
          .insert(inboxFiles)
          .values({ id: randomUUID(), ...row })
          .onConflictDoNothing();
      }),

    /** Files that wait to be taken, newest first, and how many. */
    offered: async (): Promise<{ files: OfferedFile[]; total: number }> => {
      const waits = eq(inboxFiles.state, 'offered');
      const rows = await db
        .select()
        .from(inboxFiles)
        .where(waits)
        .orderBy(desc(inboxFiles.createdAt), desc(inboxFiles.id))
        .limit(MOST_SHOWN);
      const [counted] = await db
        .select({ n: sql<number>`count(*)::int` })
        .from(inboxFiles)
        .where(waits);
      return {
        total: counted!.n,
        files: rows.map(({ id, name, createdAt, found, fault }) => ({
          ...{ id, name, cameAt: createdAt.toISOString(), fault: fault ?? '' },
          ...{ spots: found?.spots ?? null, angles: found?.angles ?? null },
        })),
      };
    },

    read: async (id: string): Promise<{ name: string; text: string }> => {
      const [row] = await db
        .select({ name: inboxFiles.name, text: inboxFiles.text })
        .from(inboxFiles)
        .where(eq(inboxFiles.id, id));
      if (!row) throw new ApiError('notFound');
      return row;
    },

    /** @throws ApiError for one that was taken */
    put: async (id: string, state: 'aside' | 'offered'): Promise<void> => {
      const [row] = await db
        .update(inboxFiles)
        .set({ state, updatedAt: new Date() })
        .where(and(eq(inboxFiles.id, id), sql`${inboxFiles.state} <> 'taken'`))
        .returning({ id: inboxFiles.id });
      if (!row) throw new ApiError('conflict', undefined, TAKEN);
    },
  };
}

export type InboxRepo = ReturnType<typeof createInboxRepo>;

const TAKEN = 'This file was taken already, here or on another device.';

/** Takes a file with the readings that are stored in the same step. @throws ApiError where it was taken before */
export async function takeFile(tx: Db, id: string): Promise<void> {
  const [row] = await tx
    .update(inboxFiles)
    .set({ state: 'taken', updatedAt: new Date() })
    .where(and(eq(inboxFiles.id, id), sql`${inboxFiles.state} <> 'taken'`))
    .returning({ id: inboxFiles.id });
  if (!row) throw new ApiError('conflict', undefined, TAKEN);
}
