import { API_DOCS_PATH, openApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import { escaped } from './trustPage';

const STYLE = `body{font:16px/1.5 sans-serif;background:#ababab;color:#161616;margin:0 auto;max-width:64rem;padding:1.5rem}
h1{font-size:26px;margin:0 0 .3rem}h2{font-size:18px;margin:1.6rem 0 .3rem;border-top:1px solid #161616;padding-top:.5rem}
table{border-collapse:collapse;width:100%}td{padding:.25rem .8rem .25rem 0;vertical-align:top}td:first-child{width:4.5rem}
code{font:14px/1.4 monospace}a{color:inherit}`;

interface Operation {
  readonly tags: readonly string[];
  readonly operationId: string;
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: unknown }>> };
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
}

/** The description for people: every operation by resource, what it asks for, and the whole as JSON beside it. */
function page(): string {
  const paths = openApi()['paths'] as Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  const rows = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  const resources = [...new Set(rows.map((r) => r.operation.tags[0]!))];
  const asks = ({ parameters, requestBody }: Operation): string => {
    const query = parameters.filter((p) => p.in === 'query').map((p) => p.name);
    const sent = requestBody ? Object.entries(requestBody.content) : [];
    const fields = sent.flatMap(([type, { schema }]) => {
      const { properties } = schema as { properties?: Record<string, unknown> };
      return properties ? Object.keys(properties) : [type];
    });
    return [...query.map((name) => `?${name}`), ...fields].join(', ');
  };
  const table = (resource: string) =>
    rows
      .filter((r) => r.operation.tags[0] === resource)
      .map(
        ({ method, path, operation }) =>
          `<tr><td><code>${method}</code></td><td><code>${escaped(path)}</code></td><td>${escaped(asks(operation))}</td></tr>`,
      )
      .join('');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>The shop’s API</title><style>${STYLE}</style><h1>The shop’s API</h1>
<p>Made from the descriptions the server checks by. As OpenAPI 3.1: <a href="${API_DOCS_PATH}?as=json">${API_DOCS_PATH}?as=json</a></p>
${resources.map((r) => `<h2>${escaped(r)}</h2><table>${table(r)}</table>`).join('\n')}</html>`;
}

/** Serves the description of the API: a page to browsers, the OpenAPI document to whatever else asks or asks for it. */
export function routeApiDocs(app: Express): void {
  app.get(API_DOCS_PATH, (req, res) => {
    const asPage = req.query['as'] !== 'json' && req.accepts(['json', 'html']) === 'html';
    if (asPage) res.type('html').send(page());
    else res.json(openApi());
  });
}
