import { bankApi, sessionApi } from '@steady-gleam/contracts';
import type { Request, RequestHandler, Response } from 'express';
import { createHash, timingSafeEqual } from 'node:crypto';
import { isIP } from 'node:net';
import { ApiError } from '../errors';
import { SESSION_DAYS, type DoorRepo, type Session } from '../resources/door/repo';
import { createTries } from '../shop/tries';
import { isLoopback } from '../start/settings';
import { readBody } from './bodies';

/** The name of the cookie by which a device is known. */
export const COOKIE = 'steady-gleam';

/** How the program stands to the network. */
export interface Door {
  readonly isShop: boolean;
  /** Whether devices come by HTTPS, from here or from a proxy. */
  readonly isSecure: boolean;
  /** Names this machine answers to; those of its own alone where the program is not open to the shop. */
  readonly names: () => readonly string[];
  /** Behind a proxy that was named: it says which name was asked for. */
  readonly isBehindProxy: boolean;
  /** Opens the door until a passcode is set; null where one was set at the start. */
  readonly firstCode: string | null;
}

/** A program for this machine alone. */
export const OWN_MACHINE: Door = {
  isShop: false,
  isSecure: false,
  names: () => ['localhost'],
  isBehindProxy: false,
  firstCode: null,
};

const nameOf = (host: string): string => {
  try {
    return new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, '').toLowerCase();
  } catch {
    return '';
  }
};

/**
 * Takes requests by this machine's own names and addresses only, and writes only from its own pages: a page of somebody else can
 * neither post here nor come in under a name of its own that it lets point here.
 */
export function ownPagesOnly(door: Door): RequestHandler {
  return (req, _res, next) => {
    const asked = req.headers.host;
    const name = nameOf(asked ?? '');
    const isAddress = isIP(name) !== 0;
    const isOwn =
      isLoopback(name) ||
      (door.isShop && (isAddress || door.names().some((n) => n.toLowerCase() === name) || door.isBehindProxy));
    if (!isOwn) throw new ApiError('foreign');
    if (['GET', 'HEAD', 'OPTIONS'].includes(req.method)) return next();
    const { origin } = req.headers;
    if (req.headers['sec-fetch-site'] === 'cross-site') throw new ApiError('foreign');
    if (origin !== undefined) {
      const own = [asked, door.isBehindProxy ? (req.headers['x-forwarded-host'] as string | undefined) : undefined];
      if (
        !own.some(
          (host) => host !== undefined && /^https?:\/\//.test(origin) && origin.replace(/^https?:\/\//, '') === host,
        )
      )
        throw new ApiError('foreign');
    }
    next();
  };
}

function tokenOf(req: Request): string | null {
  for (const part of (req.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === COOKIE && value) return value;
  }
  return null;
}

/** The session of a request that came through the door. */
export const sessionOf = (res: Response): Session | null => (res.locals['session'] as Session | undefined) ?? null;

/** Questions that are posted because they are long, and change nothing. */
const ONLY_ASKS: readonly string[] = [bankApi.nearest.path];

const deviceOf = (req: Request): string => {
  const agent = String(req.headers['user-agent'] ?? '');
  const system = /iPad|iPhone|Android|Windows|Mac OS X|CrOS|Linux/.exec(agent)?.[0] ?? 'A device';
  const browser = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1]?.replace('Edg', 'Edge') ?? '';
  return `${system.replace('Mac OS X', 'Mac').replace('CrOS', 'Chromebook')}${browser ? `, ${browser}` : ''}, ${req.ip ?? ''}`;
};

/** Signing in and out, and the lock on everything behind it. */
export function doorRoutes(door: Door, repo: DoorRepo) {
  const tries = createTries();
  const cookie = {
    httpOnly: true,
    sameSite: 'strict' as const,
    secure: door.isSecure,
    path: '/',
    maxAge: SESSION_DAYS * 86_400_000,
  };
  const state = async (lookOnly: boolean) => ({
    isShop: door.isShop,
    can: lookOnly ? ('look' as const) : ('all' as const),
    isPasscodeSet: !door.isShop || (await repo.codesSet()).passcode,
  });
  const digest = (text: string) => createHash('sha256').update(text).digest();
  const opens = async (code: string): Promise<'all' | 'look' | null> => {
    const kept = await repo.opens(code);
    if (kept !== null || door.firstCode === null) return kept;
    const isFirst = timingSafeEqual(digest(code.trim()), digest(door.firstCode));
    // It is of no use any more as soon as a passcode is set.
    return isFirst && !(await repo.codesSet()).passcode ? 'all' : null;
  };
  const signIn: RequestHandler = async (req, res) => {
    const { passcode } = await readBody(sessionApi.open.body, req.body);
    if (!door.isShop) return void res.json(await state(false));
    const address = req.ip ?? '';
    const wait = tries.begin(address);
    if (wait > 0) throw new ApiError('tooMany', undefined, `Too many wrong codes. Wait ${wait} s and try again.`, wait);
    const opened = await opens(passcode);
    if (opened === null) throw new ApiError('wrongCode', { passcode: 'This is not the shop’s passcode.' });
    tries.right(address);
    res.cookie(COOKIE, await repo.signIn(opened === 'look', deviceOf(req)), cookie);
    res.json(await state(opened === 'look'));
  };
  const lock: RequestHandler = async (req, res, next) => {
    if (!door.isShop) return next();
    const token = tokenOf(req);
    const session = token === null ? null : await repo.session(token);
    if (!session) throw new ApiError('locked');
    const asks = ['GET', 'HEAD'].includes(req.method) || ONLY_ASKS.includes(req.baseUrl + req.path);
    const leaves = req.method === sessionApi.close.method && req.baseUrl + req.path === sessionApi.close.path;
    if (session.lookOnly && !asks && !leaves) throw new ApiError('lookOnly');
    res.locals['session'] = session;
    next();
  };
  const read: RequestHandler = async (_req, res) => void res.json(await state(sessionOf(res)?.lookOnly ?? false));
  const signOut: RequestHandler = async (_req, res) => {
    const session = sessionOf(res);
    if (session) await repo.end(session.id);
    res.clearCookie(COOKIE, { ...cookie, maxAge: undefined });
    res.json({});
  };
  return { signIn, lock, read, signOut };
}
