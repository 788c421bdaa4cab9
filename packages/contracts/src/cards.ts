import { HAND_PARAMETERS, USUAL_CUTS, type HandParameter } from '@steady-gleam/core/letdown';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { trimmed, version, versionOrNew } from './figures';

const id = string().uuid().required();
const text = (max: number) => trimmed().max(max, `Keep it under ${max} letters.`);
const rungCoats = number()
  .typeError('Coats must be a number.')
  .min(0.5, 'A rung has half a coat or more.')
  .max(12, 'A rung has 12 coats at most.')
  .required();

const NO_SETTINGS = {
  ...{ sealer: '', groundCoats: '', reducer: '', patches: false, sameInstrument: true },
  ...{ eyeLittle: USUAL_CUTS.little, eyeClear: USUAL_CUTS.clear },
  ...{ distanceCm: null, tipMm: null, overlap: null, turns: null, temperatureC: null },
};

/** A let-down card: what is sprayed on it, and with what. */
export const cardSchema = object({
  id,
  rungs: array(rungCoats)
    .required()
    .min(1, 'Plan at least one rung.')
    .max(8, 'Eight rungs fit on a card.')
    .test('unique', 'Each rung needs its own coat count.', (list) => new Set(list).size === (list ?? []).length),
  gun: text(60).required('Say which gun, so that the card can be trusted next time.'),
  /** The gun of the shop it is; null for one that is not on the shelf. */
  gunId: string().uuid().nullable().default(null),
  pressureBar: number()
    .typeError('Pressure must be a number.')
    .min(0.3, 'At least 0.3 bar.')
    .max(6, 'At most 6 bar.')
    .required('Enter the pressure at the gun.'),
  onStand: boolean().required(),
  /** What else has to be the same on the job; kept on the label. */
  settings: object({
    sealer: text(60).default(''),
    groundCoats: text(40).default(''),
    reducer: text(60).default(''),
    distanceCm: number()
      .typeError('Distance must be a number.')
      .min(5, 'At least 5 cm.')
      .max(60, 'At most 60 cm.')
      .nullable()
      .default(null),
    tipMm: number()
      .typeError('The tip must be a number.')
      .min(0.2, 'A tip is at least 0.2 mm.')
      .max(4, 'A tip is at most 4 mm.')
      .nullable()
      .default(null),
    /** Fraction. */
    overlap: number()
      .typeError('The overlap must be a number.')
      .min(0.1, 'At least 10 %.')
      .max(0.9, 'At most 90 %.')
      .nullable()
      .default(null),
    turns: number()
      .typeError('The turns must be a number.')
      .min(0.25, 'At least a quarter turn.')
      .max(8, 'At most 8 turns.')
      .nullable()
      .default(null),
    temperatureC: number()
      .typeError('Temperature must be a number.')
      .min(0, 'At least 0 °C.')
      .max(50, 'At most 50 °C.')
      .nullable()
      .default(null),
    patches: boolean().default(false),
    /** Target and card are read with one instrument. */
    sameInstrument: boolean().default(true),
    /** Differences at which this painter's eye says "a little" and "clearly", dE00. */
    eyeLittle: number()
      .typeError('A difference must be a number.')
      .min(0.3, 'At least 0.3 dE00.')
      .max(4, 'At most 4 dE00.')
      .default(USUAL_CUTS.little),
    eyeClear: number()
      .typeError('A difference must be a number.')
      .min(1, 'At least 1 dE00.')
      .max(10, 'At most 10 dE00.')
      .default(USUAL_CUTS.clear)
      .test('above', '“Clearly” starts above “a little”.', function above(clear) {
        const { eyeLittle } = this.parent as { eyeLittle?: unknown };
        return typeof eyeLittle !== 'number' || clear === undefined || clear > eyeLittle;
      }),
  })
    .noUnknown()
    .default(NO_SETTINGS),
}).noUnknown();
export type Card = InferType<typeof cardSchema>;

export const putCardSchema = cardSchema.shape({ version: versionOrNew });

export const storedCardSchema = cardSchema.shape({
  version,
  /** Coats after which the job is looked at first, as the card last said; null while it has not spoken. */
  firstStop: number().min(0).max(14).nullable().default(null).defined(),
});
export type StoredCard = InferType<typeof storedCardSchema>;

/** A card that is not in force: it keeps its rungs, readings and verdicts, and can be put back. */
export const earlierCardSchema = object({
  id,
  rungs: array(number().required()).required(),
  /** Rungs that were read, by instrument or by eye. */
  rungsRead: number().integer().required(),
  gun: string().required(),
  pressureBar: number().required(),
  retiredAt: string().datetime().required(),
}).noUnknown();
export type EarlierCard = InferType<typeof earlierCardSchema>;

const members = object(
  Object.fromEntries(HAND_PARAMETERS.map((m) => [m, number().optional()])) as Record<
    HandParameter,
    ReturnType<typeof number>
  >,
).noUnknown();

/** What a card said of a hand, kept for the next card with the same gun and style. */
export const knownHandSchema = object({ mean: members.required(), sd: members.required() }).noUnknown();

export const putHandSchema = knownHandSchema.shape({
  style: string().max(20).required(),
  mixId: string().max(60).required(),
  firstStop: number().min(0).max(14).nullable().default(null),
});

/** A hand that another card of the same gun, style and family showed, and which card. */
const earlierHandSchema = knownHandSchema.shape({
  cardId: id,
  finishId: id,
  finishName: string().required(),
  at: string().datetime().required(),
});
export const earlierHandsSchema = array(earlierHandSchema.required()).required();
export type EarlierHand = InferType<typeof earlierHandSchema>;

export const LABEL_SIZES = ['card', 'a6'] as const;
export type LabelSize = (typeof LABEL_SIZES)[number];

/** The cards of a finish: any number of them, one in force. */
export const cardsApi = {
  put: endpoint({ method: 'PUT', path: '/api/finishes/:id/card', body: putCardSchema, reply: storedCardSchema }),
  putHand: endpoint({ method: 'PUT', path: '/api/finishes/:id/card/hand', body: putHandSchema, reply: object({}) }),
  /** The card in force, with its readings, verdicts and log, goes to the earlier ones; a new one can be begun. */
  retire: endpoint({
    method: 'POST',
    path: '/api/finishes/:id/card/retire',
    body: object({ version }).noUnknown(),
    reply: earlierCardSchema,
  }),
  /** An earlier card is in force again; the one that was takes its place. */
  recall: endpoint({ method: 'PUT', path: '/api/cards/:id/in-force', body: null, reply: storedCardSchema }),
  /** Whether other cards are told of the hand it showed. */
  setHand: endpoint({
    method: 'PUT',
    path: '/api/cards/:id/hand',
    body: object({ teaches: boolean().required() }).noUnknown(),
    reply: object({}),
  }),
  label: fileEndpoint({ method: 'GET', path: '/api/jobs/:id/card/label.pdf', types: ['application/pdf'] }),
} as const;

export const labelPath = (jobId: string, size: LabelSize, units: string, zone: string): string =>
  `${pathOf(cardsApi.label.path, { id: jobId })}?${new URLSearchParams({ size, units, zone }).toString()}`;
