import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { get as getPlainly } from 'node:http';
import { get } from 'node:https';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shopCertificate } from '../shop/authority';
import { onePort, type OnePort } from './onePort';
import { AUTHORITY_PATH, plainly } from './trustPage';

const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-port-'));
const ADDRESS = 'https://shop.test:4680';
let made: OnePort;
let port: number;
let authority: string;

beforeAll(async () => {
  const certificate = await shopCertificate(folder, ['localhost']);
  ({ authority } = certificate);
  made = onePort(
    certificate,
    (_req, res) => res.end('the shop'),
    plainly(() => ADDRESS, authority),
  );
  await new Promise<void>((ok) => made.server.listen(0, '127.0.0.1', ok));
  ({ port } = made.server.address() as AddressInfo);
});
afterAll(() => {
  made.server.close();
  made.https.closeAllConnections();
  made.plain.closeAllConnections();
  rmSync(folder, { recursive: true, force: true });
});

interface Said {
  readonly status: number;
  readonly location: string;
  readonly text: string;
}

const ask = (path: string): Promise<Said> =>
  new Promise((done, failed) => {
    getPlainly({ host: '127.0.0.1', port, path, agent: false }, (res) => {
      let text = '';
      res.on('data', (d) => (text += String(d)));
      res.on('end', () => done({ status: res.statusCode!, location: res.headers.location ?? '', text }));
    }).on('error', failed);
  });

describe('one port', () => {
  it('speaks HTTPS to who does, and tells who comes plainly how to come in', async () => {
    const secure = await new Promise<string>((done, failed) => {
      get({ host: '127.0.0.1', port, servername: 'localhost', ca: authority, agent: false }, (res) => {
        res.on('data', (d) => done(String(d)));
      }).on('error', failed);
    });
    expect(secure).toBe('the shop');
    const page = await ask('/');
    expect(page.status).toBe(200);
    expect(page.text).toContain('Fetch the certificate');
    expect(page.text).toContain(ADDRESS);
    // Nothing of the shop, and no script.
    expect(page.text).not.toMatch(/<script|\/api\/|\/jobs/);
    expect((await ask(AUTHORITY_PATH)).text).toBe(authority);
  });

  it('leads every other path to the same one by HTTPS, and nowhere else', async () => {
    expect(await ask('/jobs/1?x=2')).toMatchObject({ status: 302, location: `${ADDRESS}/jobs/1?x=2` });
    for (const path of ['//evil.test/x', '/\\evil.test', '/@evil.test']) {
      const { location } = await ask(path);
      expect(new URL(location).host).toBe('shop.test:4680');
    }
    expect((await ask('/api/jobs')).status).toBe(426);
  });

  it('outlives who connects and says nothing, or nonsense', async () => {
    for (const bytes of [
      Buffer.alloc(0),
      Buffer.from([22]),
      Buffer.from([22, 3, 1, 0, 5, 9, 9]),
      Buffer.from('\0\0\0'),
    ]) {
      await new Promise<void>((done) => {
        const socket = connect(port, '127.0.0.1', () => {
          socket.write(bytes);
          setTimeout(() => socket.destroy(), 30);
        });
        socket.on('close', () => done());
        socket.on('error', () => undefined);
      });
    }
    expect((await ask('/')).status).toBe(200);
  });
});
