import { describe, expect, it } from '@jest/globals';
import { array, number, object, string, tuple } from 'yup';
import { APIS, jsonSchemaOf, openApi } from './openApi';
import * as contracts from './index';

const asJson = (schema: Parameters<typeof jsonSchemaOf>[0]) => jsonSchemaOf(schema);

describe('a yup schema as JSON Schema', () => {
  it('keeps types, bounds, choices, what is needed and what may be null', () => {
    const schema = object({
      id: string().uuid().required(),
      coats: number().min(0.5).max(12).nullable().defined(),
      spots: number().integer().required(),
      style: string()
        .oneOf(['wet', 'dry'] as const)
        .required(),
      lab: tuple([number().required(), number().required(), number().required()]),
      rows: array(object({ name: string().max(40).required() }).required())
        .max(8)
        .required(),
      note: string().optional(),
    }).noUnknown();
    expect(asJson(schema.describe())).toEqual({
      type: 'object',
      additionalProperties: false,
      required: ['id', 'coats', 'spots', 'style', 'rows'],
      properties: {
        id: { type: 'string', format: 'uuid' },
        coats: { type: ['number', 'null'], minimum: 0.5, maximum: 12 },
        spots: { type: 'integer' },
        style: { type: 'string', enum: ['wet', 'dry'] },
        lab: {
          type: 'array',
          prefixItems: [{ type: 'number' }, { type: 'number' }, { type: 'number' }],
          minItems: 3,
          maxItems: 3,
        },
        rows: {
          type: 'array',
          maxItems: 8,
          items: { type: 'object', required: ['name'], properties: { name: { type: 'string', maxLength: 40 } } },
        },
        note: { type: 'string' },
      },
    });
  });
});

describe('the description of the API', () => {
  const paths = openApi()['paths'] as Record<
    string,
    Record<string, { operationId: string; parameters: { in: string; name: string }[] }>
  >;
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, o]) => ({ path, method, ...o })),
  );

  it('has every operation of every contract, each once', () => {
    const told = Object.values(APIS).flatMap((api) => Object.values(api));
    expect(operations).toHaveLength(told.length);
    expect(new Set(operations.map((o) => o.operationId)).size).toBe(told.length);
    for (const { method, path } of told)
      expect(paths[path.replace(/:(\w+)/g, '{$1}')]?.[method.toLowerCase()]).toBeDefined();
  });

  it('leaves out no contract that is there', () => {
    const there = Object.entries(contracts).filter(([name]) => /Api$/.test(name) && name !== 'openApi');
    expect(there.length).toBeGreaterThan(15);
    for (const [, api] of there) expect(Object.values(APIS)).toContain(api);
  });

  it('names what stands in each path, and asks of a GET in the query', () => {
    for (const { path, parameters } of operations)
      expect(parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(
        [...path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]),
      );
    const list = paths['/api/jobs']!['get']!;
    expect(list.parameters.map((p) => p.name)).toEqual(expect.arrayContaining(['words', 'page', 'sort', 'status']));
  });
});
