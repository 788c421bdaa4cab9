import { wholeness } from '@steady-gleam/core/formats';
import { watch } from 'chokidar';
import { createHash } from 'node:crypto';
import { mkdirSync, type Stats } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { basename, extname } from 'node:path';

/** A file that is there to its end. */
export interface CameIn {
  readonly name: string;
  /** SHA-256 of its bytes. */
  readonly hash: string;
  /** Empty where it can't be read as text. */
  readonly text: string;
  /** Why nothing of it can be taken; null where something can. */
  readonly fault: string | null;
  readonly writtenAt: Date;
}

/** What is written to it, and no longer waited for in silence. */
export interface Unfinished {
  readonly name: string;
  readonly said: string;
}

export interface Inbox {
  readonly folder: string;
  /** What is wrong with the folder; empty where nothing is. */
  readonly fault: () => string;
  readonly unfinished: () => readonly Unfinished[];
  readonly close: () => Promise<void>;
}

export interface Waits {
  /** How often the folder is looked at, ms: a folder of the network tells nobody. */
  readonly every: number;
  /** Nothing was written to a file for so long before it is read, ms. */
  readonly rests: number;
  /** As long for one that nothing says the end of; and for a table whose last line does not end, ms. */
  readonly maybe: number;
  readonly half: number;
  /** One that is not there to its end after so long is told of, ms. */
  readonly tells: number;
}

const WAITS: Waits = { every: 500, rests: 1000, maybe: 3000, half: 10_000, tells: 60_000 };

const KINDS = ['.csv', '.txt', '.cgats', '.it8', '.cxf', '.xml'];
/** Bytes. */
const MOST = 1_048_576;

/** A file that may still be written to; times by a clock that never jumps, ms. */
interface Waiting {
  readonly name: string;
  readonly since: number;
  timer: ReturnType<typeof setTimeout> | null;
  /** Size and time of writing as they were last seen, and since when they are the same. */
  seen: string;
  same: number;
  /** Something was written to it since it was last looked at. */
  changed: boolean;
}

/**
 * Watches a folder for files of readings. Each is handed on once it is there to its end; half of one never is. Nothing in the folder
 * is changed.
 * @param take keeps a file; what it throws is tried again
 */
export function watchInbox(
  folder: string,
  take: (file: CameIn) => Promise<void>,
  tell: (error: unknown) => void,
  waits: Waits = WAITS,
): Inbox {
  let fault = '';
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    fault = `The watched folder ${folder} can’t be opened: ${(error as Error).message}.`;
  }
  const waiting = new Map<string, Waiting>();
  let closed = false;
  const done = (path: string) => {
    const own = waiting.get(path);
    if (own?.timer) clearTimeout(own.timer);
    waiting.delete(path);
  };
  const again = (path: string, own: Waiting) => {
    if (closed) return;
    own.timer = setTimeout(() => void look(path), waits.rests / 2);
    own.timer.unref();
  };
  const look = async (path: string): Promise<void> => {
    const own = waiting.get(path);
    if (!own || closed) return;
    try {
      own.changed = false;
      const now = await stat(path);
      const seen = `${now.size}/${now.mtimeMs}`;
      if (seen !== own.seen) Object.assign(own, { seen, same: performance.now() });
      const came = await readWhole(path, now, performance.now() - own.same, waits);
      if (waiting.get(path) !== own) return;
      if (came === null) {
        again(path, own);
        return;
      }
      await take(came);
      if (waiting.get(path) !== own) return;
      if (own.changed) again(path, own);
      else done(path);
    } catch (error) {
      // Taken away again, or not to be read, or the database is away: it is looked at again.
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') done(path);
      else {
        tell(error);
        again(path, own);
      }
    }
  };
  const changed = (path: string) => {
    if (!KINDS.includes(extname(path).toLowerCase()) || basename(path).startsWith('.')) return;
    const known = waiting.get(path);
    if (known) {
      // It is looked at again anyway, also where it is just being taken.
      known.changed = true;
      return;
    }
    const now = performance.now();
    waiting.set(path, { name: basename(path), since: now, timer: null, seen: '', same: now, changed: false });
    void look(path);
  };
  const watcher = watch(folder, {
    depth: 0,
    ignorePermissionErrors: true,
    usePolling: true,
    interval: waits.every,
  });
  watcher.on('add', changed);
  watcher.on('change', changed);
  watcher.on('unlink', done);
  watcher.on('error', (error) => {
    fault = `The watched folder ${folder} can’t be watched: ${error instanceof Error ? error.message : String(error)}.`;
    tell(error);
  });
  return {
    folder,
    fault: () => fault,
    unfinished: () =>
      [...waiting.values()].flatMap(({ name, since }) => {
        const ms = performance.now() - since;
        return ms < waits.tells
          ? []
          : [
              {
                name,
                said: `${name} has been written to for ${Math.round(ms / 60_000)} min and is not there to its end. Save it again from the instrument’s program; nothing of it is taken.`,
              },
            ];
      }),
    close: async () => {
      closed = true;
      for (const path of [...waiting.keys()]) done(path);
      await watcher.close();
    },
  };
}

/** A file, once nothing is written to it any more; null while something may be. @param same for how long nothing was, ms */
async function readWhole(path: string, now: Stats, same: number, waits: Waits): Promise<CameIn | null> {
  const name = basename(path);
  if (same < waits.rests) return null;
  const of = (hash: string, text: string, fault: string | null): CameIn => ({
    ...{ name, hash, text, fault, writtenAt: now.mtime },
  });
  if (now.size > MOST)
    return of(`${now.size}/${now.mtimeMs}`, '', 'It is over 1 MB. A file of readings is a few lines.');
  const bytes = await readFile(path);
  const after = await stat(path);
  if (after.size !== now.size || after.mtimeMs !== now.mtimeMs || bytes.length !== now.size) return null;
  const hash = createHash('sha256').update(bytes).digest('hex');
  const text = textOf(bytes);
  if (text === null)
    return same < waits.maybe ? null : of(hash, '', 'It is not text. Save the readings as CSV, CGATS or XML.');
  const whole = wholeness(text);
  const wait =
    whole === 'whole' ? waits.rests : whole === 'maybe' ? waits.maybe : isTable(text) ? waits.half : Infinity;
  return same >= wait ? of(hash, text, null) : null;
}

const isTable = (text: string): boolean => {
  const first = text.trimStart();
  return first !== '' && !first.startsWith('<') && !/^(BEGIN_DATA|NUMBER_OF_SETS)/m.test(first);
};

/** UTF-8 or UTF-16 as its mark says; null where it is no text. */
function textOf(bytes: Buffer): string | null {
  const utf16 = bytes[0] === 0xff && bytes[1] === 0xfe;
  try {
    const text = new TextDecoder(utf16 ? 'utf-16le' : 'utf-8', { fatal: true }).decode(bytes);
    return text.includes('\0') ? null : text;
  } catch {
    return null;
  }
}
