import { FINISH_FILE_MAX_BYTES, FINISH_FILES_AT_ONCE } from '@steady-gleam/contracts';
import { fileName } from '@steady-gleam/core/formats';
import { strFromU8, strToU8, unzip, zip, type Unzipped, type Zippable } from 'fflate';
import { promisify } from 'node:util';
import { ApiError } from '../errors';

/** Ends the name of every file of a finish. */
const FILE_END = '.finish.json';

const pack = promisify((files: Zippable, done: (e: Error | null, out?: Uint8Array) => void) =>
  zip(files, { level: 6 }, (e, out) => done(e, out)),
);

/** What the file of a finish is called. */
export const fileNameOf = (name: string): string => `${fileName(name) || 'finish'}${FILE_END}`;

/** Several files as one zip; what is called alike is numbered. */
export async function zipped(files: readonly { readonly name: string; readonly text: string }[]): Promise<Uint8Array> {
  const all: Zippable = {};
  for (const { name, text } of files) {
    let called = fileNameOf(name);
    for (let i = 2; called in all; i++) called = fileNameOf(`${name} ${i}`);
    all[called] = strToU8(text);
  }
  return (await pack(all))!;
}

/** The texts of a file that came in: itself, or what a zip of them holds. @throws ApiError where it is damaged or too large */
export async function textsOf(name: string, bytes: Uint8Array): Promise<{ name: string; text: string }[]> {
  if (!bytes.length) throw new ApiError('badRequest', { file: 'This file is empty.' });
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!isZip) return [{ name, text: strFromU8(bytes) }];
  let size = 0;
  let count = 0;
  let over = false;
  const found = await new Promise<Unzipped>((done, fail) =>
    unzip(
      bytes,
      {
        filter: (entry) => {
          if (!entry.name.toLowerCase().endsWith('.json')) return false;
          size += entry.originalSize;
          count++;
          over ||= size > FINISH_FILE_MAX_BYTES || count > FINISH_FILES_AT_ONCE;
          return !over;
        },
      },
      (error, files) =>
        error ? fail(new ApiError('badRequest', { file: 'This zip is damaged and can’t be opened.' })) : done(files),
    ),
  );
  if (over)
    throw new ApiError('badRequest', {
      file: `This zip holds more than ${FINISH_FILES_AT_ONCE} finishes, or more than ${FINISH_FILE_MAX_BYTES / 1024 / 1024} MB. Open it in parts.`,
    });
  const files = Object.entries(found).map(([entry, content]) => ({ name: entry, text: strFromU8(content) }));
  if (!files.length) throw new ApiError('badRequest', { file: 'There is no file of a finish in this zip.' });
  return files;
}
