import { array, number, object, string, type InferType } from 'yup';
import { EYE_VIEWS, HAND_MEMBERS, VERDICTS, type EyeView, type HandMember, type Verdict } from '@steady-gleam/core';
import { endpoint } from './endpoint';

const id = string().uuid().required();

/** How a rung looks beside the target; client-made id, append-only. A null verdict takes one back. */
export const verdictEventSchema = object({
  id,
  /** Coats of the rung. */
  coats: number()
    .typeError('Coats must be a number.')
    .min(0.25, 'Something must have been sprayed.')
    .max(20, 'At most 20 coats.')
    .required(),
  view: string()
    .oneOf<EyeView>([...EYE_VIEWS])
    .required(),
  verdict: string()
    .nullable()
    .defined()
    .oneOf<Verdict | null>([...VERDICTS, null]),
  takenAt: string().datetime().required(),
}).noUnknown();
export type VerdictEvent = InferType<typeof verdictEventSchema>;

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
/** Largest photo taken, bytes; the browser makes it smaller before it is sent. */
export const PHOTO_MAX_BYTES = 10 * 1024 * 1024;

export const photoSchema = object({
  id,
  kind: string()
    .oneOf(['target', 'rung', 'job'] as const)
    .required(),
  coats: number().min(0).max(20).nullable().defined(),
  takenAt: string().datetime().required(),
}).noUnknown();
export type Photo = InferType<typeof photoSchema>;

const members = object(
  Object.fromEntries(HAND_MEMBERS.map((m) => [m, number().optional()])) as Record<
    HandMember,
    ReturnType<typeof number>
  >,
).noUnknown();

/** What a card said of a hand, kept for the next card with the same gun and style. */
export const knownHandSchema = object({ mean: members.required(), sd: members.required() }).noUnknown();

export const putHandSchema = knownHandSchema.shape({
  style: string().max(20).required(),
  systemId: string().max(60).required(),
});

export const LABEL_SIZES = ['card', 'a6'] as const;
export type LabelSize = (typeof LABEL_SIZES)[number];

export const letdownApi = {
  addVerdict: endpoint({
    method: 'POST',
    path: '/api/jobs/:id/verdicts',
    body: verdictEventSchema,
    reply: verdictEventSchema,
  }),
  putHand: endpoint({ method: 'PUT', path: '/api/jobs/:id/card/hand', body: putHandSchema, reply: object({}) }),
  removePhoto: endpoint({ method: 'DELETE', path: '/api/photos/:id', body: null, reply: object({}) }),
} as const;

/** Where a photo is sent (its bytes as the body) and fetched, and where a label is. */
export const photoPath = (jobId: string, photo: Photo): string =>
  `/api/jobs/${jobId}/photos?${new URLSearchParams({ id: photo.id, kind: photo.kind, takenAt: photo.takenAt, ...(photo.coats === null ? {} : { coats: String(photo.coats) }) }).toString()}`;
export const labelPath = (jobId: string, size: LabelSize, units: string, zone: string): string =>
  `/api/jobs/${jobId}/card/label.pdf?${new URLSearchParams({ size, units, zone }).toString()}`;

export const earlierHandsSchema = array(knownHandSchema.required()).required();
