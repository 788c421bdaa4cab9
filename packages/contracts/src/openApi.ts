import type {
  Schema,
  SchemaDescription,
  SchemaFieldDescription,
  SchemaInnerTypeDescription,
  SchemaObjectDescription,
} from 'yup';
import { bankApi } from './bank';
import { batchesApi } from './batches';
import { cardsApi } from './cards';
import { damagedApi } from './damaged';
import { sessionApi, shopPlaceApi } from './door';
import type { Endpoint, FileEndpoint } from './endpoint';
import { ERROR_CATALOGUE } from './errors';
import { finishesApi } from './finishes';
import { finishFilesApi } from './finishFiles';
import { gunsApi } from './guns';
import { inboxApi } from './inbox';
import { jobsApi } from './jobs';
import { limitsApi } from './limits';
import { logApi } from './log';
import { materialsApi } from './materials';
import { photosApi } from './photos';
import { productsApi } from './products';
import { readingsApi } from './readings';
import { tryOutApi } from './tryOut';
import { verdictsApi } from './verdicts';

/** Every operation of the API, by resource and name. */
export const APIS: Readonly<Record<string, Readonly<Record<string, Operation>>>> = {
  ...{ session: sessionApi, shop: shopPlaceApi, jobs: jobsApi, finishes: finishesApi, finishFiles: finishFilesApi },
  ...{ bank: bankApi, cards: cardsApi, readings: readingsApi, verdicts: verdictsApi, photos: photosApi, log: logApi },
  ...{ batches: batchesApi, materials: materialsApi, products: productsApi, guns: gunsApi, limits: limitsApi },
  ...{ inbox: inboxApi, tryOut: tryOutApi, damaged: damagedApi },
};
type Operation = Endpoint<Schema | null, Schema> | FileEndpoint;

/** Where the description is read. */
export const API_DOCS_PATH = '/api/docs';

type Json = Readonly<Record<string, unknown>>;
type Described = SchemaFieldDescription;

const isObject = (d: Described): d is SchemaObjectDescription => 'fields' in d;
const isList = (d: Described): d is SchemaInnerTypeDescription => 'innerType' in d;
const isPlain = (d: Described): d is SchemaDescription => 'tests' in d;

/** What yup calls a bound, and what JSON Schema does. */
const BOUNDS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  string: { min: 'minLength', max: 'maxLength', length: 'maxLength' },
  number: { min: 'minimum', max: 'maximum' },
  array: { min: 'minItems', max: 'maxItems' },
};
const FORMATS: Readonly<Record<string, string>> = { uuid: 'uuid', datetime: 'date-time', email: 'email' };

/** A yup schema's description as JSON Schema (2020-12). What depends on the value that comes is left open: any value. */
export function jsonSchemaOf(described: Described): Json {
  if (!isPlain(described)) return {};
  const { type, tests, oneOf, nullable } = described;
  const out: Record<string, unknown> = {};
  const known = ['string', 'number', 'boolean', 'object', 'array'].includes(type);
  const isWhole = tests.some((t) => t.name === 'integer');
  if (type === 'date') Object.assign(out, { type: 'string', format: 'date-time' });
  else if (type === 'tuple') out['type'] = 'array';
  else if (known) out['type'] = isWhole ? 'integer' : type;
  if (oneOf.length) out['enum'] = nullable ? [...oneOf, null] : [...oneOf];
  for (const { name, params } of tests) {
    const bound = name && BOUNDS[type]?.[name];
    const figure = name && params?.[name];
    if (bound && (typeof figure === 'number' || typeof figure === 'string')) out[bound] = Number(figure);
    if (name && FORMATS[name]) out['format'] = FORMATS[name];
    if (name === 'noUnknown') out['additionalProperties'] = false;
  }
  if (isObject(described)) {
    const fields = Object.entries(described.fields);
    out['properties'] = Object.fromEntries(fields.map(([key, field]) => [key, jsonSchemaOf(field)]));
    const required = fields.flatMap(([key, field]) => (isPlain(field) && !field.optional ? [key] : []));
    if (required.length) out['required'] = required;
  }
  if (isList(described) && described.innerType) {
    const { innerType } = described;
    if (Array.isArray(innerType)) {
      const places = innerType.map(jsonSchemaOf);
      Object.assign(out, { prefixItems: places, minItems: places.length, maxItems: places.length });
    } else out['items'] = jsonSchemaOf(innerType);
  }
  if (nullable && typeof out['type'] === 'string') out['type'] = [out['type'], 'null'];
  return out;
}

const isFile = (o: Operation): o is FileEndpoint => 'types' in o;
const paramsOf = (path: string): string[] => [...path.matchAll(/:(\w+)/g)].map((m) => m[1]!);
const content = (type: string, schema: Json): Json => ({ content: { [type]: { schema } } });

function operationOf(resource: string, name: string, o: Operation): Json {
  const inPath = paramsOf(o.path).map((p) => ({ in: 'path', name: p, required: true, schema: { type: 'string' } }));
  const body = isFile(o) || !o.body ? null : jsonSchemaOf(o.body.describe());
  const asked = body && o.method === 'GET' ? ((body['properties'] ?? {}) as Record<string, Json>) : {};
  const must = (body?.['required'] ?? []) as readonly string[];
  const inQuery = Object.entries(asked).map(([key, schema]) => ({
    ...{ in: 'query', name: key, required: must.includes(key), schema },
  }));
  const sent = isFile(o)
    ? o.method === 'GET'
      ? {}
      : {
          requestBody: {
            required: true,
            content: Object.fromEntries(
              o.types.map((type) => [type, { schema: { type: 'string', format: 'binary' } }]),
            ),
            ...(o.maxBytes ? { description: `At most ${o.maxBytes} bytes.` } : {}),
          },
        }
    : body && o.method !== 'GET'
      ? { requestBody: { required: true, ...content('application/json', body) } }
      : {};
  const answer = isFile(o)
    ? o.method === 'GET'
      ? content(o.types[0] ?? 'application/octet-stream', { type: 'string', format: 'binary' })
      : content('application/json', {})
    : content('application/json', jsonSchemaOf(o.reply.describe()));
  return {
    ...{ tags: [resource], operationId: `${resource}.${name}` },
    parameters: [...inPath, ...inQuery],
    ...sent,
    responses: {
      200: { description: 'Done.', ...answer },
      default: { $ref: '#/components/responses/Refused' },
    },
  };
}

let made: Json | null = null;

/** The whole API as an OpenAPI 3.1 document, made of the very descriptions that the server checks by and the pages call by. */
export const openApi = (): Json => (made ??= makeOpenApi());

function makeOpenApi(): Json {
  const paths: Record<string, Record<string, Json>> = {};
  for (const [resource, operations] of Object.entries(APIS))
    for (const [name, o] of Object.entries(operations)) {
      const path = o.path.replace(/:(\w+)/g, '{$1}');
      (paths[path] ??= {})[o.method.toLowerCase()] = operationOf(resource, name, o);
    }
  return {
    openapi: '3.1.0',
    info: {
      title: 'The shop’s API',
      version: '1',
      description:
        'Jobs, finishes, cards, readings, the shop’s shelf and the log of what was sprayed. Figures are metric; colours are CIELAB, D65 and 10 degrees. Ids are made by who creates; what is changed names the version it was read with.',
    },
    paths,
    components: {
      responses: {
        Refused: {
          description: Object.entries(ERROR_CATALOGUE)
            .map(([code, { status, message }]) => `${code} (${status}): ${message}`)
            .join(' '),
          ...content('application/json', { $ref: '#/components/schemas/Refusal' }),
        },
      },
      schemas: {
        Refusal: {
          type: 'object',
          required: ['code', 'message'],
          properties: {
            code: { type: 'string', enum: Object.keys(ERROR_CATALOGUE) },
            message: { type: 'string' },
            fields: { type: 'object', additionalProperties: { type: 'string' } },
          },
        },
      },
    },
  };
}
