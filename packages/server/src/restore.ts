import { existsSync, mkdirSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { sql } from 'drizzle-orm';
import { checkArchive, fileSource } from './copies/archive';
import { writeCopy, nameFor, copiesFolder } from './copies/copies';
import { restore } from './copies/restore';
import { lockFolder } from './db/folderLock';
import { rowsOf } from './db/migrations';
import { DATABASE, openEmbedded } from './db/open';
import { openServer } from './db/postgres';
import { StartError } from './db/startFaults';
import { runCommand, shopOf } from './start/command';
import { MIGRATIONS, wordAfter, type Settings } from './start/settings';

/** Brings a shop back from one file: `--from FILE`, into `--data FOLDER` or what the environment names. */
async function main(words: readonly string[]): Promise<void> {
  const said = wordAfter(words, '--from');
  if (!said) throw new StartError('Say which copy: npm run restore -- --from FILE');
  const from = resolve(said);
  const settings = shopOf(words);
  // Looked through before anything is touched.
  const { manifest } = await checkArchive(fileSource(from));
  const isSure = words.includes('--yes');
  const aside = settings.databaseUrl
    ? await intoServer(settings, from, isSure)
    : await intoFolder(settings, from, isSure);
  const rows = manifest.tables.reduce((sum, t) => sum + t.rows, 0);
  console.log(`The shop is as it was on ${manifest.madeAt.slice(0, 16).replace('T', ' ')} UTC: ${rows} rows.`);
  if (aside) console.log(`What was there before is kept: ${aside}`);
}

/** @throws StartError where the answer is no, or there is nobody to ask */
async function askSure(what: string, isSure: boolean): Promise<void> {
  if (isSure) return;
  const how = 'Say --yes to put the copy in its place (what is there is kept aside), or name another place.';
  if (!process.stdin.isTTY) throw new StartError(`${what} ${how}`);
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question(`${what} Put the copy in its place, and keep what is there aside? (yes/no) `);
  ask.close();
  if (!/^y(es)?$/i.test(answer.trim())) throw new StartError('Nothing was changed.');
}

const stamp = (): string => new Date().toISOString().slice(0, 19).replaceAll(':', '-');

/** The copy is opened under another name and gets its own when it is whole. @returns where what was there is kept */
async function intoFolder({ data }: Settings, from: string, isSure: boolean): Promise<string | null> {
  const release = await lockFolder(data);
  const making = join(data, `restoring-${stamp()}`);
  try {
    const own = join(data, DATABASE);
    const isTaken = existsSync(own);
    if (isTaken) await askSure(`There is a shop’s data in ${data} already.`, isSure);
    const open = await openEmbedded(MIGRATIONS, making);
    try {
      await restore(open.db, MIGRATIONS, fileSource(from));
    } finally {
      await open.close();
    }
    const aside = isTaken ? join(data, `${DATABASE}.before-${stamp()}`) : null;
    if (aside) await rename(own, aside);
    await rename(join(making, DATABASE), own);
    return aside;
  } finally {
    await rm(making, { recursive: true, force: true });
    await release();
  }
}

/** @returns the copy of what was there before */
async function intoServer(settings: Settings, from: string, isSure: boolean): Promise<string | null> {
  const open = await openServer(MIGRATIONS, settings.databaseUrl!);
  try {
    const [there] = await rowsOf<{ n: number }>(
      open.db,
      sql`select (select count(*) from jobs)::int + (select count(*) from finishes)::int as n`,
    );
    let aside: string | null = null;
    if (there!.n > 0) {
      await askSure('There is a shop’s data in this database already.', isSure);
      mkdirSync(copiesFolder(settings.data), { recursive: true, mode: 0o700 });
      aside = join(copiesFolder(settings.data), nameFor(new Date(), 'before-going-back'));
      await writeCopy(open, MIGRATIONS, aside);
    }
    await restore(open.db, MIGRATIONS, fileSource(from));
    return aside;
  } finally {
    await open.close();
  }
}

runCommand(main, 'the data folder');
