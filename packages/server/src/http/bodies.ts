import { oddIn } from '@steady-gleam/contracts';
import type { Request } from 'express';
import { setImmediate as othersTurn } from 'node:timers/promises';
import {
  ArraySchema,
  mixed,
  ObjectSchema,
  ValidationError,
  type AnyObject,
  type AnySchema,
  type InferType,
  type Schema,
} from 'yup';
import { ApiError, fieldsOf, MOST_FIELDS } from '../errors';

/** Values, objects and lists in a body; some 150 ms of checking at the very most. Counted before a body is parsed, and again before it is checked. */
export const MOST_VALUES = 20_000;
/** Lists and objects in one another; what the program sends has under ten. Checking goes down with them, and so would its stack. */
export const DEEPEST = 32;
/** Values of a list checked in one go: then others have their turn; a list of so few is checked with the rest. */
const [AT_ONCE, FEW] = [300, 8] as const;

/** What of a schema is looked at before anything is validated. */
interface Shape {
  readonly type: string;
  readonly fields?: Readonly<Record<string, unknown>>;
  readonly innerType?: unknown;
  readonly tests?: readonly {
    readonly OPTIONS?: { readonly name?: string; readonly params?: { readonly max?: unknown } };
  }[];
}

/**
 * Counts what stands in a JSON text without parsing it: separators and brackets outside of strings, and how deep they go.
 * @throws TooMuch, TooDeep where it is more than a request is taken with
 */
export function countInText(_req: unknown, _res: unknown, text: Buffer): void {
  let values = 1;
  let depth = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const sign = text[i]!;
    if (inString) {
      if (sign === 0x5c) i++;
      else if (sign === 0x22) inString = false;
    } else if (sign === 0x22) inString = true;
    // ,
    else if (sign === 0x2c) values++;
    // [ {
    else if (sign === 0x5b || sign === 0x7b) {
      values++;
      if (++depth > DEEPEST) throw new TooDeep('Nested too deep.');
    }
    // ] }
    else if (sign === 0x5d || sign === 0x7d) depth--;
  }
  if (values > MOST_VALUES) throw new TooMuch(values);
}

/** Said by the parser of bodies; the name is what tells it apart. */
export class TooMuch extends Error {
  readonly type = 'body.too.many';
  constructor(readonly values: number) {
    super('Too many values.');
  }
}

/** Said by the parser of bodies; the name is what tells it apart. */
export class TooDeep extends Error {
  readonly type = 'body.too.deep';
}

/** @throws ApiError where something in a body can't be worked with */
export function checkSigns(body: unknown): void {
  const odd = oddIn(body);
  if (odd !== null) throw new ApiError('badRequest', undefined, odd);
}

/** Lists of a body that are longer than their schema takes, by their path: found before any of it is validated. */
export function tooLong(schema: unknown, body: unknown): Record<string, string> {
  const fields: Record<string, string> = {};
  const waiting: { readonly shape: Shape; readonly value: unknown; readonly path: string }[] = [
    { shape: schema as Shape, value: body, path: '' },
  ];
  while (waiting.length && Object.keys(fields).length < MOST_FIELDS) {
    const { shape, value, path } = waiting.pop()!;
    if (Array.isArray(value) && shape.type === 'array') {
      const most = shape.tests?.find((t) => t.OPTIONS?.name === 'max')?.OPTIONS?.params?.max;
      if (typeof most === 'number' && value.length > most) fields[path] = `At most ${most} are taken here.`;
      else if (shape.innerType)
        for (const [i, own] of value.entries())
          if (typeof own === 'object')
            waiting.push({ shape: shape.innerType as Shape, value: own, path: `${path}[${i}]` });
    } else if (value !== null && typeof value === 'object' && shape.type === 'object')
      for (const [key, own] of Object.entries(value)) {
        const inner = shape.fields?.[key];
        if (inner && typeof own === 'object')
          waiting.push({ shape: inner as Shape, value: own, path: path ? `${path}.${key}` : key });
      }
  }
  return fields;
}

const countOf = (value: unknown): number => {
  let count = 0;
  const waiting: unknown[] = [value];
  while (waiting.length) {
    const one = waiting.pop();
    count++;
    if (one !== null && typeof one === 'object') waiting.push(...(Object.values(one) as unknown[]));
  }
  return count;
};

/**
 * What a body says by its schema. Lists are bounded first; long ones are checked a few at a time, with others having their turn
 * in between, and checking ends with the first faults.
 * @throws ApiError, ValidationError
 */
export async function readBody<S extends Schema>(schema: S, body: unknown): Promise<NonNullable<InferType<S>>> {
  const long = tooLong(schema, body);
  if (Object.keys(long).length) throw new ApiError('badRequest', long);
  let [rest, said]: [Schema, unknown] = [schema, body ?? {}];
  if (schema instanceof ObjectSchema && typeof said === 'object')
    for (const [key, own] of Object.entries(said as object)) {
      const list = (schema as ObjectSchema<AnyObject>).fields[key];
      if (!Array.isArray(own) || own.length <= FEW || !(list instanceof ArraySchema) || !list.innerType) continue;
      const items = await checkInTurns(list.innerType as AnySchema, own, key);
      // What was checked one by one is not checked again with the whole.
      rest = (rest as ObjectSchema<AnyObject>).shape({ [key]: list.of(mixed()) });
      said = { ...(said as object), [key]: items };
    }
  return (await rest.validate(said, { abortEarly: false, stripUnknown: false })) as NonNullable<InferType<S>>;
}

/** @returns the items as the schema makes them */
async function checkInTurns(schema: AnySchema, list: readonly unknown[], key: string): Promise<unknown[]> {
  const fields: Record<string, string> = {};
  const items: unknown[] = [];
  let since = 0;
  for (const [i, own] of list.entries()) {
    try {
      items.push(await schema.validate(own, { abortEarly: false, stripUnknown: false }));
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      for (const [path, told] of Object.entries(fieldsOf(error)))
        fields[`${key}[${i}]${path ? `.${path}` : ''}`] = told;
    }
    if (Object.keys(fields).length >= MOST_FIELDS) break;
    since += countOf(own);
    if (since >= AT_ONCE) {
      since = 0;
      await othersTurn();
    }
  }
  if (Object.keys(fields).length)
    throw new ApiError('badRequest', Object.fromEntries(Object.entries(fields).slice(0, MOST_FIELDS)));
  return items;
}

/** The part of a request a body or a query stands in. */
export const saidIn = (method: string, req: Request): unknown => (method === 'GET' ? req.query : req.body) ?? {};
