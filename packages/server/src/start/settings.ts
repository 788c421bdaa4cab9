import { isIP } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { StartError } from '../db/startFaults';

const here = dirname(fileURLToPath(import.meta.url));
/** Folder of the project: of the built program (packages/server/dist) and of its source alike. */
export const ROOT = resolve(here, here.endsWith('dist') ? '../../..' : '../../../..');
export const MIGRATIONS = join(ROOT, 'packages/server/migrations');
export const WEB = join(ROOT, 'packages/web/dist');

/** What a start is told by its environment and its words; see the README and docs/shop.md. */
export interface Settings {
  readonly port: number;
  readonly host: string;
  /** Whether other devices of the shop may come in. */
  readonly isShop: boolean;
  /** Whether it was opened to the network by an address alone. */
  readonly byHost: boolean;
  readonly data: string;
  readonly databaseUrl: string | undefined;
  readonly isDemo: boolean;
  readonly makesCopies: boolean;
  readonly requestsAMinute: number;
  readonly passcode: string | undefined;
  /** Names this machine is called by beside its own. */
  readonly names: readonly string[];
  readonly tls: 'own' | 'none' | { readonly cert: string; readonly key: string };
  readonly trustProxy: string | undefined;
  /** A folder whose files of readings are offered. */
  readonly inbox: string | undefined;
}

export const isLoopback = (host: string): boolean => /^(localhost|127(\.\d+){3}|\[?::1\]?)$/i.test(host);

function wholeOf(name: string, text: string | undefined, otherwise: number, most: number): number {
  if (text === undefined || text === '') return otherwise;
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0 || value > most)
    throw new StartError(`${name}=${text} is no whole number up to ${most}. Leave it out, or put one in.`);
  return value;
}

/** @throws StartError for what can't be meant */
export function settingsOf(env: NodeJS.ProcessEnv, words: readonly string[]): Settings {
  const said = (name: string): string | undefined => env[name]?.trim() || undefined;
  const hostSaid = said('HOST');
  const asked = words.includes('--shop') || ['1', 'true', 'on', 'yes'].includes(said('STEADY_GLEAM_SHOP') ?? '');
  const byHost = !asked && hostSaid !== undefined && !isLoopback(hostSaid);
  const isShop = asked || byHost;
  if (hostSaid !== undefined && !isIP(hostSaid) && !/^[a-z0-9.-]+$/i.test(hostSaid))
    throw new StartError(`HOST=${hostSaid} is no address of this machine.`);
  const [cert, key] = [said('TLS_CERT'), said('TLS_KEY')];
  if ((cert === undefined) !== (key === undefined))
    throw new StartError('TLS_CERT and TLS_KEY go together: the certificate’s file, and that of its key.');
  const proxy = said('TRUST_PROXY');
  const passcode = said('STEADY_GLEAM_PASSCODE');
  if (passcode !== undefined && (passcode.length < 6 || passcode.length > 200))
    throw new StartError('STEADY_GLEAM_PASSCODE has six signs or more, and 200 at most.');
  return {
    port: wholeOf('PORT', env['PORT'], 4680, 65_535),
    host: hostSaid ?? (isShop ? '0.0.0.0' : '127.0.0.1'),
    ...{ isShop, byHost, passcode },
    data: resolve(said('STEADY_GLEAM_DATA') ?? join(ROOT, '.data')),
    databaseUrl: said('DATABASE_URL'),
    isDemo: said('STEADY_GLEAM_DEMO') !== 'off',
    makesCopies: said('STEADY_GLEAM_COPIES') !== 'off',
    requestsAMinute: wholeOf('REQUESTS_A_MINUTE', env['REQUESTS_A_MINUTE'], 1200, 10_000_000),
    names: (said('STEADY_GLEAM_NAMES') ?? '').split(/[\s,]+/).filter(Boolean),
    tls: cert && key ? { cert, key } : proxy !== undefined || said('STEADY_GLEAM_TLS') === 'off' ? 'none' : 'own',
    trustProxy: proxy,
    inbox: said('STEADY_GLEAM_INBOX'),
  };
}

/** The word behind a flag: `--to FILE`, `--to=FILE`. */
export function wordAfter(words: readonly string[], flag: string): string | undefined {
  const at = words.findIndex((w) => w === flag || w.startsWith(`${flag}=`));
  if (at < 0) return undefined;
  return words[at]!.includes('=') ? words[at]!.slice(flag.length + 1) : words[at + 1];
}
