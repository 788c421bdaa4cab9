import { FAMILY_IDS, LAYER_NAMES, STYLES } from '@steady-gleam/core/finishes';
import { EYE_VIEWS, VERDICTS } from '@steady-gleam/core/letdown';

/** The version of the file that is written. */
export const FILE_VERSION = 2;
/** What makes a JSON file one of finishes. */
export const FILE_FORMAT = 'finish of layered paint';

const uuid = { type: 'string', format: 'uuid' };
const text = (maxLength: number) => ({ type: 'string', maxLength });
const moment = { type: 'string', format: 'date-time' };
const orNull = (schema: object) => ({ anyOf: [{ type: 'null' }, schema] });
const record = (properties: object, optional: readonly string[] = []) => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter((k) => !optional.includes(k)),
  properties,
});
const list = (items: object, maxItems: number) => ({ type: 'array', items, maxItems });
const number = (minimum: number, maximum: number) => ({ type: 'number', minimum, maximum });

const recipe = record({
  groundId: text(60),
  coats: number(0.5, 12),
  strength: number(0.3, 3),
  style: { enum: Object.keys(STYLES) },
  controlCoats: number(0, 4),
});

const layer = record({
  id: text(160),
  kind: { enum: Object.keys(LAYER_NAMES) },
  materialId: orNull(text(60)),
  coats: number(0.5, 20),
  style: { enum: Object.keys(STYLES) },
  strength: number(0.3, 3),
  filmUm: number(1, 500),
});

const readingSet = record({
  id: uuid,
  kind: { enum: ['target', 'rung', 'chip'] },
  rungCoats: orNull(number(0, 12)),
  label: text(40),
  state: { enum: ['cleared', 'wet'] },
  doubt: orNull(number(0, 50)),
  source: text(20),
  takenAt: moment,
  readings: {
    description:
      'The readings as an open text of readings: comma-separated, a row a spot and angle. Angles in degrees: incidence of the lamp from the normal, aspecular of the view from the mirror direction. L, a and b are CIELAB, D65 and 10 degrees.',
    ...record({ format: { const: 'csv' }, text: { type: 'string', minLength: 1, maxLength: 1_000_000 } }),
  },
});

/** The schema of a finish's file; it is shipped as docs/finish-file.schema.json. */
export const FINISH_FILE_SCHEMA = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  title: 'A finish: what it matches, what makes it, and the let-down cards that prove it',
  ...record(
    {
      format: { const: FILE_FORMAT },
      version: { const: FILE_VERSION },
      savedAt: moment,
      finish: record({
        id: uuid,
        name: { ...text(80), minLength: 1 },
        codes: {
          ...list({ ...text(24), minLength: 1 }, 12),
          uniqueItems: true,
          description: 'Free text; the shop’s own codes.',
        },
        matching: { ...text(160), description: 'What it has to match; empty for a look that was designed.' },
        family: orNull({ enum: [...FAMILY_IDS] }),
        mixId: orNull(text(60)),
        pick: { ...orNull(recipe), description: 'Ground, coats and how they are laid, as the match map has them.' },
        layers: {
          ...orNull(list(layer, 40)),
          description: 'Layers from substrate to clear; null while they follow from the pick.',
        },
      }),
      materials: {
        ...list(
          {
            type: 'object',
            required: ['kind', 'id', 'name'],
            properties: {
              kind: { enum: ['ground', 'pigment', 'dye', 'carrier', 'system'] },
              id: uuid,
              name: { ...text(40), minLength: 1 },
            },
          },
          200,
        ),
        description: 'The shop’s own materials it is made of, and what those are made of.',
      },
      guns: {
        ...list(
          { type: 'object', required: ['id', 'name'], properties: { id: uuid, name: { ...text(80), minLength: 1 } } },
          40,
        ),
        description: 'Guns its cards were sprayed with.',
      },
      names: {
        type: 'object',
        maxProperties: 200,
        additionalProperties: text(80),
        description: 'What materials are called that are named by their ids only.',
      },
      target: orNull(readingSet),
      chips: list(readingSet, 60),
      cards: list(
        record({
          card: {
            type: 'object',
            required: ['id', 'rungs', 'gun', 'pressureBar', 'onStand'],
            properties: { id: uuid },
          },
          retiredAt: { ...orNull(moment), description: 'Null for the card in force, of which there is one at most.' },
          hand: orNull(
            record({
              style: text(20),
              mean: { type: 'object', additionalProperties: { type: 'number' } },
              sd: { type: 'object', additionalProperties: { type: 'number' } },
            }),
          ),
          firstStop: orNull(number(0, 14)),
          rungs: list(readingSet, 40),
          verdicts: list(
            record({
              id: uuid,
              coats: number(0.25, 20),
              view: { enum: [...EYE_VIEWS] },
              verdict: orNull({ enum: [...VERDICTS] }),
              hue: orNull(text(20)),
              takenAt: moment,
            }),
            400,
          ),
          photos: list(
            record({
              id: uuid,
              kind: { const: 'rung' },
              coats: orNull(number(0, 20)),
              takenAt: moment,
              data: { type: 'string', description: 'JPEG, PNG or WebP, base64.', contentEncoding: 'base64' },
            }),
            40,
          ),
        }),
        40,
      ),
      photos: {
        ...list(
          record({
            id: uuid,
            kind: { const: 'target' },
            coats: { type: 'null' },
            takenAt: moment,
            data: { type: 'string', contentEncoding: 'base64' },
          }),
          40,
        ),
        description: 'Photos of what it has to match.',
      },
    },
    [],
  ),
} as const;
