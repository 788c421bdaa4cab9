import { number, object, string, type InferType } from 'yup';
import { moment } from './figures';
import { endpoint, fileEndpoint, pathOf } from './endpoint';

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
/** Largest photo taken, bytes; the browser makes it smaller before it is sent. */
export const PHOTO_MAX_BYTES = 10 * 1024 * 1024;

export const photoSchema = object({
  id: string().uuid().required(),
  kind: string()
    .oneOf(['target', 'rung', 'job'] as const)
    .required(),
  coats: number().min(0).max(20).nullable().defined(),
  takenAt: moment().required(),
}).noUnknown();
export type Photo = InferType<typeof photoSchema>;

export const photosApi = {
  /** Of a job: something of its history. */
  addToJob: fileEndpoint({
    method: 'POST',
    path: '/api/jobs/:id/photos',
    types: PHOTO_TYPES,
    maxBytes: PHOTO_MAX_BYTES,
  }),
  /** Of a finish: its target, a rung of its card. */
  addToFinish: fileEndpoint({
    method: 'POST',
    path: '/api/finishes/:id/photos',
    types: PHOTO_TYPES,
    maxBytes: PHOTO_MAX_BYTES,
  }),
  read: fileEndpoint({ method: 'GET', path: '/api/photos/:id', types: PHOTO_TYPES }),
  remove: endpoint({ method: 'DELETE', path: '/api/photos/:id', body: null, reply: object({}) }),
} as const;

/** Where a photo is sent, its bytes as the body. @param owner a job for one of its history, else a finish */
export const photoPath = (owner: string, photo: Photo): string => {
  const { path } = photo.kind === 'job' ? photosApi.addToJob : photosApi.addToFinish;
  const { id, kind, takenAt, coats } = photo;
  const query = { id, kind, takenAt, ...(coats === null ? {} : { coats: String(coats) }) };
  return `${pathOf(path, { id: owner })}?${new URLSearchParams(query).toString()}`;
};
