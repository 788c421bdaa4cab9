import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { PassThrough, type Readable, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { extract, pack, type Pack } from 'tar-stream';
import { array, number, object, string, ValidationError, type InferType } from 'yup';

/** What a copy of a shop calls itself, and the newest kind of it this program reads. */
export const ARCHIVE = { format: 'copy of a steady gleam shop', version: 1 } as const;
const MANIFEST = 'manifest.json';

const count = number().integer().min(0).required();
const manifestSchema = object({
  format: string().oneOf([ARCHIVE.format]).required(),
  version: number().integer().min(1).required(),
  /** Newest step of its tables. */
  step: string().required(),
  madeAt: string().datetime().required(),
  tables: array(object({ name: string().required(), rows: count }).noUnknown().required()).required(),
  entries: array(
    object({ path: string().required(), bytes: count, sha256: string().length(64).required() })
      .noUnknown()
      .required(),
  ).required(),
}).noUnknown();
/** Last entry of an archive: what else is in it, with checksums. */
export type Manifest = InferType<typeof manifestSchema>;

/** An archive that can't be used: what is the matter, and where. */
export class ArchiveError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'ArchiveError';
  }
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Writes an archive entry by entry, and its manifest at the end. */
export interface ArchiveWriter {
  readonly add: (path: string, bytes: Buffer) => Promise<void>;
  readonly end: (about: Pick<Manifest, 'step' | 'madeAt' | 'tables'>) => Promise<void>;
  /** Gives up: what was written so far is no archive. */
  readonly drop: () => void;
}

export function archiveWriter(to: Writable): ArchiveWriter {
  const tar: Pack = pack();
  const done = pipeline(tar, createGzip({ level: 5 }), to);
  // A fault is met by whoever adds the next entry, or ends.
  done.catch(() => undefined);
  const entries: Manifest['entries'] = [];
  const put = (path: string, bytes: Buffer): Promise<void> =>
    new Promise((ok, failed) => {
      const entry = tar.entry({ name: path, size: bytes.length, mode: 0o600 }, (error) =>
        error ? failed(error) : ok(),
      );
      entry.end(bytes);
    });
  return {
    add: async (path, bytes) => {
      entries.push({ path, bytes: bytes.length, sha256: sha256(bytes) });
      await Promise.race([put(path, bytes), done]);
    },
    end: async (about) => {
      const manifest: Manifest = { format: ARCHIVE.format, version: ARCHIVE.version, ...about, entries };
      await Promise.race([put(MANIFEST, Buffer.from(JSON.stringify(manifest))), done]);
      tar.finalize();
      await done;
    },
    drop: () => tar.destroy(),
  };
}

/** Largest entry that is taken, bytes: far above the largest photo and sheet. */
const MOST_BYTES = 200_000_000;

/** Goes through the entries of an archive in their order. @throws ArchiveError where it is damaged or something else */
export async function readEntries(
  from: () => Readable,
  take: (path: string, bytes: Buffer) => Promise<void> | void,
): Promise<void> {
  const untar = extract();
  const source = from();
  const piped = pipeline(source, createGunzip(), new PassThrough(), untar);
  // Its own end is awaited below; a fault reaches the loop as well.
  piped.catch(() => undefined);
  let last = 'its beginning';
  try {
    for await (const entry of untar) {
      const { name: path, size = 0 } = entry.header;
      if (size > MOST_BYTES) throw new ArchiveError(`${path} in it is larger than anything a shop keeps.`);
      const parts: Buffer[] = [];
      for await (const part of entry) parts.push(part as Buffer);
      last = path;
      await take(path, Buffer.concat(parts));
    }
    await piped;
  } catch (error) {
    source.destroy();
    if (error instanceof ArchiveError) throw error;
    const code = (error as NodeJS.ErrnoException).code ?? '';
    if (code === 'ENOENT') throw new ArchiveError('There is no such file.');
    if (code === 'EISDIR') throw new ArchiveError('This is a folder, not a copy of a shop.');
    if (/^E[A-Z]+$/.test(code)) throw new ArchiveError(`The file can’t be read (${code}).`);
    if (code === 'Z_DATA_ERROR' && last === 'its beginning')
      throw new ArchiveError('This file is not a copy of a shop.');
    if (code.startsWith('Z_') || /tar|header|end of data|premature/i.test(String(error)))
      throw new ArchiveError(`The file is damaged or cut off after ${last}.`);
    throw error;
  }
}

/** Parts of an archive that was checked: nothing of it is used before. */
export interface Checked {
  readonly manifest: Manifest;
  readonly bytes: number;
}

/**
 * Reads an archive through and holds every entry against its manifest. @throws ArchiveError with what is wrong, and where
 */
export async function checkArchive(from: () => Readable): Promise<Checked> {
  const found = new Map<string, { readonly bytes: number; readonly sha256: string }>();
  let text: string | null = null;
  await readEntries(from, (path, bytes) => {
    if (path === MANIFEST) text = bytes.toString('utf8');
    else if (found.has(path)) throw new ArchiveError(`${path} is in it twice.`);
    else found.set(path, { bytes: bytes.length, sha256: sha256(bytes) });
  });
  if (text === null) {
    if (!found.size) throw new ArchiveError('This file is not a copy of a shop.');
    throw new ArchiveError('The file is cut off: the list of what is in it is missing.');
  }
  const manifest = manifestOf(text);
  for (const { path, bytes, sha256: sum } of manifest.entries) {
    const is = found.get(path);
    if (!is) throw new ArchiveError(`${path} is missing in it.`);
    if (is.bytes !== bytes || is.sha256 !== sum)
      throw new ArchiveError(`${path} in it is damaged: its checksum differs.`);
    found.delete(path);
  }
  const [stray] = found.keys();
  if (stray !== undefined) throw new ArchiveError(`${stray} in it is not in its list.`);
  return { manifest, bytes: manifest.entries.reduce((sum, e) => sum + e.bytes, 0) };
}

function manifestOf(text: string): Manifest {
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new ArchiveError('The list of what is in it can’t be read.');
  }
  const version = (said as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > ARCHIVE.version)
    throw new ArchiveError('This copy was made by a newer Steady Gleam. Use the newer one to open it.');
  try {
    return manifestSchema.validateSync(said, { strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new ArchiveError(`The list of what is in it is damaged: ${error.message}`);
  }
}

export const fileSource = (path: string) => (): Readable => createReadStream(path);
