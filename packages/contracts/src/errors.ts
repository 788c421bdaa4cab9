/** Every error the API answers with: its HTTP status and the sentence for people when there is nothing more exact. */
export const ERROR_CATALOGUE = {
  badRequest: { status: 400, message: 'Something in this entry needs changing; see the marked fields.' },
  locked: { status: 401, message: 'This device is not signed in. Enter the shop’s passcode.' },
  wrongCode: { status: 401, message: 'This is not the shop’s passcode.' },
  lookOnly: {
    status: 403,
    message: 'This device may look only. Sign in with the shop’s passcode to change something.',
  },
  foreign: {
    status: 403,
    message: 'This came from another page than the shop’s own, or by a name that is not this machine’s.',
  },
  notFound: { status: 404, message: 'This is not here any more. Go back to the jobs and look again.' },
  stale: {
    status: 409,
    message: 'This was changed elsewhere in the meantime. Reload to see the change, then enter yours again.',
  },
  conflict: { status: 409, message: 'An entry with this id already holds something else.' },
  inUse: { status: 409, message: 'This is in use and was kept.' },
  tooLarge: { status: 413, message: 'This is more than can be taken at once; the limit is 1 MB.' },
  /** What core can't work with: its own sentence stands in the place of this one. */
  notWorkable: { status: 422, message: 'This can’t be worked out from what is entered.' },
  damaged: {
    status: 500,
    message:
      'What is stored here can’t be read any more. Nothing was changed; the log of the program names what is wrong.',
  },
  tooMany: { status: 429, message: 'Too many requests at once. Wait a minute and try again.' },
  busy: {
    status: 503,
    message: 'The shop’s data does not answer just now. Nothing was stored; try again in a moment.',
  },
  internal: { status: 500, message: 'The program made a mistake. Nothing was stored; try again.' },
} as const;

export type ErrorCode = keyof typeof ERROR_CATALOGUE;

/** The one error shape. `fields` maps a field path to its sentence. */
export interface ApiErrorBody {
  readonly code: ErrorCode;
  readonly message: string;
  readonly fields?: Record<string, string>;
}
