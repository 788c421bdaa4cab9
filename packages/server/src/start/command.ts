import { ArchiveError } from '../copies/archive';
import { FolderInUseError } from '../db/folderLock';
import { ofFileSystem, StartError } from '../db/startFaults';
import { settingsOf, wordAfter, type Settings } from './settings';

/** What of a command went wrong, as its caller reads it. @param what the file system may refuse */
function say(error: unknown, what: string): unknown {
  const isKnown = error instanceof StartError || error instanceof FolderInUseError || error instanceof ArchiveError;
  return isKnown ? error.message : (ofFileSystem(error, what)?.message ?? error);
}

/** Runs a command to its end: 0 when all is well, else its fault in a sentence and 1. */
export function runCommand(work: (words: readonly string[]) => Promise<void>, what: string): void {
  // What is written here is the shop's: nobody else on this machine reads it.
  process.umask(0o077);
  work(process.argv.slice(2)).then(
    () => process.exit(0),
    (error: unknown) => {
      console.error(say(error, what));
      process.exit(1);
    },
  );
}

/** The shop a command is about: of `--data FOLDER`, else what the environment names. */
export function shopOf(words: readonly string[]): Settings {
  const data = wordAfter(words, '--data');
  return settingsOf({ ...process.env, ...(data ? { STEADY_GLEAM_DATA: data, DATABASE_URL: '' } : {}) }, []);
}
