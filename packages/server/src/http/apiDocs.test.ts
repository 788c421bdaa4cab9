import { describe, expect, it } from '@jest/globals';
import { API_DOCS_PATH, openApi } from '@steady-gleam/contracts';
import express from 'express';
import request from 'supertest';
import { routeApiDocs } from './apiDocs';

const app = express();
routeApiDocs(app);

describe('the description of the API', () => {
  it('is a page to a browser, with every path on it', async () => {
    const { text, type } = await request(app).get(API_DOCS_PATH).set('Accept', 'text/html,*/*;q=0.8').expect(200);
    expect(type).toBe('text/html');
    for (const path of Object.keys(openApi()['paths'] as object)) expect(text).toContain(path);
    expect(text).not.toMatch(/undefined|\[object/);
  });

  it('is the OpenAPI document to whatever else asks, and to a browser that asks for it', async () => {
    for (const asked of [
      request(app).get(API_DOCS_PATH),
      request(app).get(`${API_DOCS_PATH}?as=json`).set('Accept', 'text/html'),
    ]) {
      const { body, type } = await asked.expect(200);
      expect(type).toBe('application/json');
      expect((body as { openapi: string }).openapi).toBe('3.1.0');
      expect(body).toEqual(JSON.parse(JSON.stringify(openApi())));
    }
  });
});
