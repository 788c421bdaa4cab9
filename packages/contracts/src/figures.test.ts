import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { number, object } from 'yup';
import { pathOf } from './endpoint';
import { ERROR_CATALOGUE } from './errors';
import { figure, keyed, maybeFigure, moment, MOST_INTEGER, named, trimmed, version, versionOrNew } from './figures';
import { said } from './testdata/said';

const film = figure('The film', 1, 500, ' µm');

describe('a figure within bounds', () => {
  it('is taken just as it is between them, ends and all', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 500, noNaN: true }), (v) => {
        expect(film.validateSync(v)).toBe(v);
      }),
    );
    expect([said(film, 1), said(film, 500)]).toEqual([{}, {}]);
  });

  it('beyond them says which, with its unit; what is none or missing says so', () => {
    expect(said(film, 0.9)).toEqual({ '': 'The film can’t be below 1 µm.' });
    expect(said(film, 501)).toEqual({ '': 'The film can’t be above 500 µm.' });
    expect(said(film, 'thin')).toEqual({ '': 'The film must be a number.' });
    expect(said(film, NaN)).toEqual({ '': 'The film must be a number.' });
    expect(said(film, undefined)).toEqual({ '': 'The film is missing.' });
    expect(Object.keys(said(film, null))).toEqual(['']);
  });

  it('that may be left empty is null then, never nought', () => {
    const recoat = maybeFigure('The recoat window', 5, 100, ' min');
    expect(recoat.validateSync(null)).toBeNull();
    expect(said(recoat, 4)).toEqual({ '': 'The recoat window can’t be below 5 min.' });
    expect(said(recoat, 'soon')).toEqual({ '': 'The recoat window must be a number, or empty.' });
    expect(said(recoat, undefined)).not.toEqual({});
  });
});

describe('texts', () => {
  it('lose the blanks around them, and are never made of what is none', () => {
    expect(trimmed().validateSync('  Lagoon  pearl ')).toBe('Lagoon  pearl');
    expect(trimmed().isValidSync(['x'])).toBe(false);
  });

  it('that name something have to be there and fit', () => {
    expect(said(named(), '   ')).toEqual({ '': 'Give it a name.' });
    expect(said(named(), 'x'.repeat(50))).toEqual({});
    expect(said(named(), 'x'.repeat(51))).toEqual({ '': 'Keep the name under 50 letters.' });
  });
});

describe('moments', () => {
  it('are ones that there are', () => {
    for (const good of ['2026-11-20T09:00:00.000Z', '2024-02-29T23:59:59Z']) expect(said(moment(), good)).toEqual({});
    for (const bad of [
      '2026-02-31T09:00:00.000Z',
      '2025-02-29T00:00:00Z',
      '1850-01-01T00:00:00Z',
      '+099999-01-01T00:00:00Z',
      'today',
      '2026-11-20',
    ])
      expect(said(moment().required(), bad)).not.toEqual({});
  });

  it('of every day from 1900 to 2199 are taken', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date(Date.UTC(1900, 0, 2)), max: new Date(Date.UTC(2199, 11, 30)), noInvalidDate: true }),
        (at) => {
          expect(said(moment(), at.toISOString())).toEqual({});
        },
      ),
    );
  });
});

describe('versions', () => {
  it('are whole numbers a row keeps; nought only for something new', () => {
    expect([said(version, 1), said(version, MOST_INTEGER), said(versionOrNew, 0)]).toEqual([{}, {}, {}]);
    for (const v of [0, -1, 1.5, MOST_INTEGER + 1, '1x', null]) expect(said(version, v)).not.toEqual({});
    expect(said(versionOrNew, -1)).not.toEqual({});
  });
});

describe('objects by ids', () => {
  it('are all of one kind, whatever their keys', () => {
    const films = keyed(object({ um: number().required() }).noUnknown());
    expect(films.validateSync({ a: { um: 9 }, 'b/1': { um: 12 } })).toEqual({ a: { um: 9 }, 'b/1': { um: 12 } });
    expect(films.validateSync({})).toEqual({});
    expect(said(films, { a: { um: 9 }, b: { um: 'x' } })).toMatchObject({ 'b.um': expect.any(String) });
    expect(said(films, { a: { um: 9, more: 1 } })).not.toEqual({});
  });
});

describe('paths and errors', () => {
  it('what stands in a path is one part of it, whatever it holds', () => {
    expect(pathOf('/api/jobs/:id/card/:n', { id: 'a/b?c', n: 'ü' })).toBe('/api/jobs/a%2Fb%3Fc/card/%C3%BC');
    expect(pathOf('/api/jobs')).toBe('/api/jobs');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (id) => {
        const path = pathOf('/api/jobs/:id', { id });
        expect(path.split('/')).toHaveLength(4);
        expect(decodeURIComponent(path.split('/')[3]!)).toBe(id);
      }),
    );
  });

  it('every error has a status of its kind and a sentence for people', () => {
    for (const [code, { status, message }] of Object.entries(ERROR_CATALOGUE)) {
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(600);
      expect(message).toMatch(/^[A-Z].*\.$/);
      expect(message).not.toContain(code);
    }
  });
});
