/** Why the program can't start, in words for the one who starts it: what is the matter, and what to do. */
export class StartError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'StartError';
  }
}

/** The data is there but can't be opened: a copy is offered, nothing is changed. */
export class DamagedDataError extends StartError {
  constructor(
    readonly where: string,
    reason: string,
  ) {
    super(`The data in ${where} can’t be opened: ${reason} Nothing of it was thrown away.`);
    this.name = 'DamagedDataError';
  }
}

/** What the embedded engine's own file system calls the faults it meets: numbers of WASI (errno of its preview 1). */
const ENGINE_FAULTS: Readonly<Record<number, string>> = {
  2: 'EACCES',
  29: 'EIO',
  51: 'ENOSPC',
  63: 'EPERM',
  69: 'EROFS',
};

const codeOf = (error: unknown): string => {
  for (const e of [error, (error as { cause?: unknown } | null)?.cause] as {
    code?: unknown;
    name?: unknown;
    errno?: unknown;
  }[]) {
    if (typeof e?.code === 'string') return e.code;
    if (e?.name === 'ErrnoError') return ENGINE_FAULTS[Number(e.errno)] ?? '';
  }
  return '';
};

/** First line of what went wrong, as the end of a sentence; of a refused query what the database says of it. */
export function reasonOf(error: unknown): string {
  const cause = (error as { cause?: unknown } | null)?.cause;
  const innermost = cause instanceof Error ? cause : error;
  const [line = ''] = (innermost instanceof Error ? innermost.message : String(innermost)).split('\n');
  const said = line.trim().slice(0, 160) || 'no reason was given';
  return /[.!?]$/.test(said) ? said : `${said}.`;
}

/** {@link reasonOf} of an engine that could not open its own files. */
export const reasonOfEngine = (error: unknown): string =>
  /^(Aborted|PGlite failed|unreachable|RuntimeError)/.test(reasonOf(error))
    ? 'files of it are missing or damaged.'
    : `files of it are missing or damaged (${reasonOf(error).replace(/\.$/, '')}).`;

/** What the file system says of a folder that can't be used; null for anything else. */
export function ofFileSystem(error: unknown, folder: string): StartError | null {
  const another = 'or start with another folder: STEADY_GLEAM_DATA=/some/folder npm start';
  switch (codeOf(error)) {
    case 'ENOSPC':
    case 'EDQUOT':
      return new StartError(
        `There is no room left on the disk of ${folder}. Make some, then start again. Nothing is lost.`,
      );
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new StartError(
        `The data folder ${folder} can’t be written to. Let the one who starts this write there, ${another}`,
      );
    case 'EEXIST':
    case 'ENOTDIR':
      return new StartError(`${folder} is a file, not a folder. Move it away, ${another}`);
    case 'EIO':
      return new StartError(`The disk of ${folder} answers with errors. Look after the disk first, ${another}`);
    default:
      return null;
  }
}

/** What a PostgreSQL server says, in a sentence; null for anything else. @param at the server, without its password */
export function ofServer(error: unknown, at: string): StartError | null {
  const code = codeOf(error);
  const check = 'Check DATABASE_URL, then start again.';
  if (code === '28P01' || code === '28000')
    return new StartError(`PostgreSQL at ${at} does not let this user in. ${check}`);
  if (code === '3D000')
    return new StartError(`PostgreSQL at ${at} has no such database. Make it first (createdb), or: ${check}`);
  if (code === '53300') return new StartError(`PostgreSQL at ${at} has no connection left. Try again in a moment.`);
  if (code === '42501') return new StartError(`This user may not make tables in the database at ${at}. ${check}`);
  if (code === '55P03' || code === '57014')
    return new StartError(`Another program holds the tables of the database at ${at}. Try again when it is done.`);
  if (/^(ECONN|ENOTFOUND|ETIMEDOUT|EHOST|EAI_|08|57P)/.test(code) || /timeout|terminated/i.test(String(error)))
    return new StartError(`PostgreSQL at ${at} does not answer. Start it, or look at DATABASE_URL, then start again.`);
  return null;
}
