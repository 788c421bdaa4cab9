import { describe, expect, it } from '@jest/globals';
import type { FileEndpoint } from '@steady-gleam/contracts';
import express from 'express';
import fc from 'fast-check';
import request from 'supertest';
import { wordsOf, anywhere } from '../resources/finishes/search';
import { bytesOf, fileType, paperFor, sendPdf, takesBytes } from './files';
import { escaped, plainly, trustPage } from './trustPage';

const headOf = (...bytes: number[]) => Uint8Array.from([...bytes, ...new Array<number>(20).fill(0)]);

describe('what some bytes are', () => {
  it('is told by their first ones', () => {
    expect(fileType(headOf(0xff, 0xd8, 0xff, 0xe0))).toBe('image/jpeg');
    expect(fileType(headOf(0x89, 0x50, 0x4e, 0x47))).toBe('image/png');
    expect(fileType(Buffer.from('RIFF\u0001\u0002\u0003\u0004WEBPVP8 '))).toBe('image/webp');
    expect(fileType(Buffer.from('%PDF-1.7\n'))).toBe('application/pdf');
  });

  it('is nothing where they are something else, half of it, or none', () => {
    expect(fileType(Buffer.from('RIFF\u0001\u0002\u0003\u0004WAVE'))).toBeNull();
    expect(fileType(Buffer.from('<svg xmlns="x" onload="alert(1)"/>'))).toBeNull();
    expect(fileType(Uint8Array.from([0xff, 0xd8]))).toBeNull();
    expect(fileType(new Uint8Array())).toBeNull();
    fc.assert(fc.property(fc.uint8Array({ maxLength: 3 }), (bytes) => fileType(bytes) === null || bytes[0] === 0xff));
  });
});

const PHOTO: FileEndpoint = { method: 'PUT', path: '/photo', types: ['image/png'], maxBytes: 10 };

describe('papers and files over http', () => {
  const app = express();
  app.locals['address'] = 'https://pier.local:4680';
  app.get('/paper', (req, res) => void res.json(paperFor(req, '/jobs/7')));
  app.get('/pdf', (_, res) => sendPdf(res, Buffer.from('%PDF-1.7'), 'shell 7.pdf'));
  app.put('/photo', takesBytes(PHOTO), (req, res) => {
    res.json({ bytes: bytesOf(req).length });
  });

  it('lead back to the address other devices open, where they were printed at the server itself', async () => {
    const { body } = await request(app)
      .get('/paper?units=us&zone=Europe/Paris')
      .set('Host', '127.0.0.1:4680')
      .expect(200);
    expect(body).toEqual({ zone: 'Europe/Paris', units: 'us', address: 'https://pier.local:4680/jobs/7' });
    const from = await request(app).get('/paper?units=old&zone=Nowhere').set('Host', 'shop.pier:80').expect(200);
    expect(from.body).toEqual({ zone: 'UTC', units: 'metric', address: 'http://shop.pier:80/jobs/7' });
  });

  it('open in the browser under their name', async () => {
    const { headers } = await request(app).get('/pdf').expect(200);
    expect(headers['content-type']).toBe('application/pdf');
    expect(headers['content-disposition']).toBe('inline; filename="shell 7.pdf"');
  });

  it('are taken as bytes of their kind, up to what is taken', async () => {
    const put = (type: string, size: number) =>
      request(app).put('/photo').set('Content-Type', type).send(Buffer.alloc(size, 1));
    expect((await put('image/png', 8).expect(200)).body).toEqual({ bytes: 8 });
    // Another kind is no body at all.
    expect((await put('text/html', 8).expect(200)).body).toEqual({ bytes: 0 });
    await put('image/png', 11).expect(413);
  });
});

describe('what is answered without https', () => {
  const asked = (authority: string | null) => {
    const app = express();
    app.use(plainly((host) => `https://${(host ?? 'pier').replace(/:\d+$/, '')}:4680`, authority));
    return request(app);
  };

  it('is the page of trust, the certificate, and the way to https; nothing of the shop', async () => {
    const page = await asked('PEM').get('/').set('Host', 'pier.local').expect(200);
    expect(page.text).toContain('href="https://pier.local:4680"');
    expect(page.text).toContain('Fetch the certificate');
    expect(page.headers['content-security-policy']).toContain("default-src 'none'");
    const cert = await asked('PEM').get('/authority.crt').expect(200);
    expect(cert.headers['content-type']).toBe('application/x-x509-ca-cert');
    const api = await asked('PEM').get('/api/jobs').set('Host', 'pier.local').expect(426);
    expect(api.body).toMatchObject({ code: 'foreign' });
    const other = await asked('PEM').get('/jobs/7?x=1').set('Host', 'pier.local').expect(302);
    expect(other.headers['location']).toBe('https://pier.local:4680/jobs/7?x=1');
  });

  it('never leads to another place, however the path is written', async () => {
    for (const path of ['//evil.example/x', '/\\evil.example', '/%2F%2Fevil.example']) {
      const { headers } = await asked(null).get(path).set('Host', 'pier.local').expect(302);
      expect(new URL(headers['location']!).host).toBe('pier.local:4680');
    }
  });

  it('offers no certificate where the owner has put one in', async () => {
    expect(trustPage('https://a', false)).not.toContain('Fetch the certificate');
    await asked(null).get('/authority.crt').expect(302);
  });

  it('has nothing in it that its reader could take for more than text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(escaped(text)).not.toMatch(/[<>"']/);
        const back = escaped(text).replace(/&#(\d+);/g, (_, n: string) => String.fromCharCode(Number(n)));
        expect(back).toBe(text);
      }),
    );
    expect(trustPage('https://a/"><script>', true)).not.toContain('<script>');
  });
});

describe('words of a search', () => {
  it('are each there once; signs of patterns are signs', () => {
    expect(wordsOf('  lagoon  pearl lagoon ')).toEqual(['lagoon', 'pearl']);
    expect(wordsOf(' ')).toEqual([]);
    expect(anywhere('100%_a\\b')).toBe('%100\\%\\_a\\\\b%');
  });
});
