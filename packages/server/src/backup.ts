import { existsSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { resolve } from 'node:path';
import { checkArchive, fileSource, type Checked } from './copies/archive';
import { writeCopy } from './copies/copies';
import { StartError } from './db/startFaults';
import { runCommand, shopOf } from './start/command';
import { copyFromRunning } from './start/control';
import { openShop } from './start/openShop';
import { MIGRATIONS, wordAfter, type Settings } from './start/settings';

/** Writes everything a shop keeps to one file: `--to FILE`, of `--data FOLDER` or of what the environment names. */
async function main(words: readonly string[]): Promise<void> {
  const to = wordAfter(words, '--to');
  if (!to) throw new StartError('Say where the copy goes: npm run backup -- --to FILE');
  const settings = shopOf(words);
  const path = resolve(to);
  if (existsSync(path)) throw new StartError(`${path} is there already. Name another file; nothing is written over.`);
  if (!settings.databaseUrl && !existsSync(settings.data))
    throw new StartError(`There is no data folder ${settings.data}. Name it: --data FOLDER`);
  const { manifest, bytes } = await write(settings, path);
  const rows = manifest.tables.reduce((sum, t) => sum + t.rows, 0);
  console.log(
    `Copied to ${path}: ${rows} rows of ${manifest.tables.length} tables, ${(bytes / 1e6).toFixed(1)} MB, read back and whole.`,
  );
}

/** The program that runs on the folder writes it; a shop that is stopped is opened. Either way it is read back. */
async function write(settings: Settings, path: string): Promise<Checked> {
  const making = `${path}.making`;
  try {
    if (!settings.databaseUrl && (await copyFromRunning(settings.data, making))) {
      const checked = await checkArchive(fileSource(making));
      await rename(making, path);
      return checked;
    }
  } catch (error) {
    await rm(making, { force: true });
    throw error;
  }
  const { open } = await openShop(settings, undefined, () => undefined);
  try {
    return await writeCopy(open, MIGRATIONS, path);
  } finally {
    await open.close();
  }
}

runCommand(main, 'the file');
