import { desc, eq, gt, lt, ne } from 'drizzle-orm';
import { createHash, randomBytes, randomUUID, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import type { Db } from '../../db/open';
import { sessions, settings } from '../../db/schema';

/** Days a device stays signed in. */
export const SESSION_DAYS = 30;
/** A session is looked up again after so long; one ended elsewhere is over by then, ms. */
const REMEMBERED_MS = 5_000;
/** When a device was seen is written no oftener than this, ms. */
const SEEN_MS = 10 * 60_000;

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number }, Buffer>(scrypt);
/** scrypt with the parameters common for interactive sign-in (RFC 7914, section 2): 16 MB, some 50 ms. */
const COST = { N: 2 ** 14, r: 8, p: 1 };

/** A code as it is kept. */
interface KeptCode {
  readonly salt: string;
  readonly key: string;
}

async function keptOf(code: string): Promise<KeptCode> {
  const salt = randomBytes(16);
  return { salt: salt.toString('hex'), key: (await derive(code, salt, 32, COST)).toString('hex') };
}

async function isCode(code: string, kept: KeptCode): Promise<boolean> {
  return timingSafeEqual(await derive(code, Buffer.from(kept.salt, 'hex'), 32, COST), Buffer.from(kept.key, 'hex'));
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** A device that is signed in. */
export interface Session {
  readonly id: string;
  readonly lookOnly: boolean;
}

const CODES = ['passcode', 'lookCode'] as const;
export type CodeName = (typeof CODES)[number];

/** Codes of the shop's door and the devices that are in. */
export function createDoorRepo(db: Db) {
  const remembered = new Map<string, { readonly session: Session | null; readonly until: number }>();
  const setting = async (name: string): Promise<unknown> =>
    (await db.select({ value: settings.value }).from(settings).where(eq(settings.name, name)))[0]?.value ?? null;
  const set = async (name: string, value: unknown): Promise<void> => {
    await db
      .insert(settings)
      .values({ name, value })
      .onConflictDoUpdate({ target: settings.name, set: { value, updatedAt: new Date() } });
  };
  const codes = async (): Promise<Record<CodeName, KeptCode | null>> => {
    const [passcode, lookCode] = (await Promise.all(CODES.map(setting))) as (KeptCode | null)[];
    return { passcode: passcode ?? null, lookCode: lookCode ?? null };
  };
  return {
    setting,
    set,

    /** Which codes are set. */
    codesSet: async (): Promise<Record<CodeName, boolean>> => {
      const { passcode, lookCode } = await codes();
      return { passcode: passcode !== null, lookCode: lookCode !== null };
    },

    /** @param code null takes the code away */
    setCode: async (name: CodeName, code: string | null): Promise<void> => {
      if (code !== null) await set(name, await keptOf(code));
      else await db.delete(settings).where(eq(settings.name, name));
    },

    /** What a code opens; null for a wrong one. Every code is tried, so that the time says nothing. */
    opens: async (code: string): Promise<'all' | 'look' | null> => {
      const { passcode, lookCode } = await codes();
      const nothing = { salt: '00'.repeat(16), key: '00'.repeat(32) };
      const [all, look] = await Promise.all([isCode(code, passcode ?? nothing), isCode(code, lookCode ?? nothing)]);
      if (all && passcode) return 'all';
      return look && lookCode ? 'look' : null;
    },

    /** Lets a device in. @returns what its cookie says; only its hash is kept */
    signIn: async (lookOnly: boolean, device: string): Promise<string> => {
      const token = randomBytes(32).toString('base64url');
      const expiresAt = new Date(Date.now() + SESSION_DAYS * 86_400_000);
      await db.delete(sessions).where(lt(sessions.expiresAt, new Date()));
      await db.insert(sessions).values({ id: randomUUID(), tokenHash: hashOf(token), lookOnly, device, expiresAt });
      return token;
    },

    session: async (token: string): Promise<Session | null> => {
      const hash = hashOf(token);
      const known = remembered.get(hash);
      if (known && known.until > Date.now()) return known.session;
      const [row] = await db.select().from(sessions).where(eq(sessions.tokenHash, hash));
      const session = row && row.expiresAt.getTime() > Date.now() ? { id: row.id, lookOnly: row.lookOnly } : null;
      if (remembered.size > 1000) remembered.clear();
      remembered.set(hash, { session, until: Date.now() + REMEMBERED_MS });
      if (session && Date.now() - row!.seenAt.getTime() > SEEN_MS)
        await db.update(sessions).set({ seenAt: new Date() }).where(eq(sessions.id, session.id));
      return session;
    },

    /** Devices that are in, the one seen last first. */
    devices: () =>
      db
        .select({
          id: sessions.id,
          device: sessions.device,
          lookOnly: sessions.lookOnly,
          seenAt: sessions.seenAt,
          createdAt: sessions.createdAt,
        })
        .from(sessions)
        .where(gt(sessions.expiresAt, new Date()))
        .orderBy(desc(sessions.seenAt))
        .limit(100),

    /** Ends every session but one. */
    endOthers: async (id: string | null): Promise<void> => {
      await (id === null ? db.delete(sessions) : db.delete(sessions).where(ne(sessions.id, id)));
      remembered.clear();
    },

    /** Ends one session, or all of them. */
    end: async (id: string | null): Promise<void> => {
      await (id === null ? db.delete(sessions) : db.delete(sessions).where(eq(sessions.id, id)));
      remembered.clear();
    },
  };
}

export type DoorRepo = ReturnType<typeof createDoorRepo>;
