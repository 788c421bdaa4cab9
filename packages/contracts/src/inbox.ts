import { array, boolean, number, object, string, type InferType } from 'yup';
import { endpoint } from './endpoint';
import { moment } from './figures';

/** A file of readings that came in and waits to be taken. */
const offeredSchema = object({
  id: string().uuid().required(),
  name: string().required(),
  cameAt: moment().required(),
  /** Null where they are not known before the file is looked into. */
  spots: number().integer().nullable().defined(),
  angles: number().integer().nullable().defined(),
  /** Why nothing of it can be taken; empty where something can. */
  fault: string().defined(),
}).noUnknown();
export type OfferedFile = InferType<typeof offeredSchema>;

/** The watched folder: what was put there, and what is not there to its end. */
const inboxSchema = object({
  /** Where it is, its name alone where the shop is open to its network; null where none is watched. */
  folder: string().nullable().defined(),
  watched: boolean().required(),
  /** What is wrong with the folder itself; empty where nothing is. */
  fault: string().defined(),
  /** Newest first. */
  files: array(offeredSchema.required()).required(),
  /** How many wait in all. */
  total: number().integer().required(),
  unfinished: array(object({ name: string().required(), said: string().required() }).noUnknown().required()).required(),
}).noUnknown();
export type Inbox = InferType<typeof inboxSchema>;

export const inboxApi = {
  list: endpoint({ method: 'GET', path: '/api/inbox', body: null, reply: inboxSchema }),
  read: endpoint({
    method: 'GET',
    path: '/api/inbox/:id',
    body: null,
    reply: object({ name: string().required(), text: string().defined() }).noUnknown(),
  }),
  /** Lays a file aside, or offers it again. What was taken with readings stays taken. */
  put: endpoint({
    method: 'PUT',
    path: '/api/inbox/:id',
    body: object({
      state: string()
        .oneOf(['aside', 'offered'] as const)
        .required(),
    }).noUnknown(),
    reply: object({}),
  }),
} as const;
