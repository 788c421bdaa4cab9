import { array, boolean, number, object, string, type InferType } from 'yup';
import { fileEndpoint, pathOf } from './endpoint';

const id = string().uuid().required();

/** Largest file of finishes that is opened, bytes; a zip counts as it is unpacked too. */
export const FINISH_FILE_MAX_BYTES = 24 * 1024 * 1024;
/** So many finishes are saved into one zip, or opened from one. */
export const FINISH_FILES_AT_ONCE = 1000;

const askedSchema = object({
  /** As the file names it: what the answer is filed under. */
  id: string().required(),
  name: string().required(),
  what: string()
    .oneOf(['ground', 'system', 'gun'] as const)
    .required(),
  /** The file brings it, so it can be taken onto this shop's shelf. */
  comes: boolean().required(),
  /** Something else stands here under its id. */
  other: boolean().required(),
}).noUnknown();
export type AskedOfFile = InferType<typeof askedSchema>;

/** What is in a file of finishes, and what has to be answered before they can go into the bank. */
export const lookedSchema = object({
  finishes: array(
    object({
      id,
      name: string().required(),
      file: string().defined(),
      cards: number().integer().required(),
      rungs: number().integer().required(),
      photos: number().integer().required(),
      /** One with this id is in the bank already. */
      here: boolean().required(),
      asked: array(askedSchema.required()).required(),
    }).required(),
  ).required(),
  /** Files that can't be opened, with what is wrong at which field. */
  refused: array(
    object({
      file: string().defined(),
      faults: array(object({ field: string().defined(), message: string().required() }).required()).required(),
    }).required(),
  ).required(),
}).noUnknown();
export type LookedIntoFile = InferType<typeof lookedSchema>;

/** `take`: onto the shelf as the file brings it. `none`: a gun is not the shop's. Else the id of one of the shop's own. */
export const answersSchema = object({
  materials: object().default({}),
  guns: object().default({}),
  /** Of finishes that are here already: `copy` opens it beside, `skip` leaves it out. */
  here: object().default({}),
}).noUnknown();
export interface FileAnswers {
  readonly materials: Readonly<Record<string, string>>;
  readonly guns: Readonly<Record<string, string>>;
  readonly here: Readonly<Record<string, 'copy' | 'skip'>>;
}

const FILE_TYPES = ['application/octet-stream', 'application/zip'] as const;

export const finishFilesApi = {
  save: fileEndpoint({ method: 'GET', path: '/api/finishes/:id/finish.json', types: ['application/json'] }),
  /** Several, by `ids` in the query, or every one of the bank. */
  saveZip: fileEndpoint({ method: 'GET', path: '/api/bank/finishes.zip', types: ['application/zip'] }),
  /** Looks into a file, one finish or a zip of them, and stores nothing. Answers with what {@link lookedSchema} says. */
  look: fileEndpoint({
    method: 'POST',
    path: '/api/bank/file/look',
    types: FILE_TYPES,
    maxBytes: FINISH_FILE_MAX_BYTES,
  }),
  /** Puts what is in a file into the bank, all of it or nothing. `answers` in the query, as JSON. */
  open: fileEndpoint({ method: 'POST', path: '/api/bank/file', types: FILE_TYPES, maxBytes: FINISH_FILE_MAX_BYTES }),
} as const;

export const openedSchema = object({
  finishes: array(object({ id, name: string().required() }).required()).required(),
}).noUnknown();

export const finishFilePath = (finishId: string): string => pathOf(finishFilesApi.save.path, { id: finishId });
export const finishZipPath = (ids: readonly string[]): string =>
  `${finishFilesApi.saveZip.path}?${new URLSearchParams({ ids: ids.join(',') }).toString()}`;
export const openFilePath = (answers: FileAnswers): string =>
  `${finishFilesApi.open.path}?${new URLSearchParams({ answers: JSON.stringify(answers) }).toString()}`;
