import { describe, expect, it } from '@jest/globals';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { createServer, get } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { settingsOf } from '../start/settings';
import { namesOf, shopCertificate } from './authority';
import { createTries } from './tries';

const DAY = 86_400_000;

describe('the shop’s own authority', () => {
  const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-tls-'));
  const now = Date.now();

  it('vouches for this machine: who trusts it reads without a warning, by name and by address', async () => {
    const { cert, key, authority } = await shopCertificate(folder, ['shop.test', '127.0.0.1'], now);
    const server = createServer({ cert, key }, (_req, res) => res.end('here'));
    await new Promise<void>((ok) => server.listen(0, '127.0.0.1', ok));
    const { port } = server.address() as AddressInfo;
    const ask = (servername: string, ca?: string): Promise<string> =>
      new Promise((done) => {
        get({ host: '127.0.0.1', port, servername, ca, agent: false }, (res) => {
          let said = '';
          res.on('data', (d) => (said += String(d)));
          res.on('end', () => done(said));
        }).on('error', (e: NodeJS.ErrnoException) => done(e.code ?? e.message));
      });
    expect(await ask('shop.test', authority)).toBe('here');
    expect(await ask('evil.test', authority)).toBe('ERR_TLS_CERT_ALTNAME_INVALID');
    expect(await ask('shop.test')).toBe('UNABLE_TO_VERIFY_LEAF_SIGNATURE');
    await new Promise((done) => server.close(done));
    expect(new X509Certificate(authority).ca).toBe(true);
    // Browsers take a certificate that is good for 398 days at most.
    const { validFrom, validTo } = new X509Certificate(cert);
    expect(Date.parse(validTo) - Date.parse(validFrom)).toBeLessThan(398 * DAY);
  });

  it('stays while it lasts; the machine’s certificate is renewed in time and for a new name', async () => {
    const first = await shopCertificate(folder, ['shop.test', '127.0.0.1'], now);
    expect((await shopCertificate(folder, ['shop.test'], now + DAY)).cert).toBe(first.cert);
    const renewed = await shopCertificate(folder, ['shop.test'], now + 360 * DAY);
    expect(renewed.cert).not.toBe(first.cert);
    expect(renewed.authority).toBe(first.authority);
    const other = await shopCertificate(folder, ['shop.test', 'other.test'], now + 360 * DAY);
    expect(namesOf(other.cert)).toContain('other.test');
    const late = await shopCertificate(folder, ['shop.test'], now + 3400 * DAY);
    expect(late.authority).not.toBe(first.authority);
    expect(statSync(join(folder, 'authority.key')).mode & 0o077).toBe(0);
    expect(readFileSync(join(folder, 'authority.key'), 'utf8')).toContain('PRIVATE KEY');
    rmSync(folder, { recursive: true });
  });
});

describe('tries at the door', () => {
  it('wait twice as long after each wrong one, each address by itself, and a right one makes all well', () => {
    let now = 0;
    const tries = createTries(() => now);
    for (let i = 0; i < 5; i++) expect(tries.begin('a')).toBe(0);
    const waits: number[] = [];
    for (let i = 0; i < 5; i++) {
      const wait = tries.begin('a');
      waits.push(wait);
      now += wait * 1000;
      expect(tries.begin('a')).toBe(0);
    }
    expect(waits).toEqual([1, 2, 4, 8, 16]);
    expect(tries.begin('b')).toBe(0);
    now += 3_600_001;
    expect(tries.begin('a')).toBe(0);
    tries.right('a');
    for (let i = 0; i < 5; i++) expect(tries.begin('a')).toBe(0);
  });

  it('from everywhere at once make all wait, and never for long', () => {
    let now = 0;
    const tries = createTries(() => now);
    let most = 0;
    for (let i = 0; i < 400; i++) {
      const wait = tries.begin(`address ${i}`);
      most = Math.max(most, wait);
      now += 200;
    }
    expect(most).toBeGreaterThan(0);
    expect(most).toBeLessThanOrEqual(30);
  });
});

describe('what a start is told', () => {
  it('opens to this machine alone, unless it is said otherwise', () => {
    expect(settingsOf({}, [])).toMatchObject({ host: '127.0.0.1', isShop: false, tls: 'own' });
    expect(settingsOf({}, ['--shop'])).toMatchObject({ host: '0.0.0.0', isShop: true });
    expect(settingsOf({ STEADY_GLEAM_SHOP: '1', HOST: '192.0.2.7' }, [])).toMatchObject({
      host: '192.0.2.7',
      isShop: true,
    });
    // An address of the network alone opens the door to it: then it has a lock.
    expect(settingsOf({ HOST: '0.0.0.0' }, [])).toMatchObject({ isShop: true, byHost: true });
    expect(settingsOf({ HOST: 'localhost' }, [])).toMatchObject({ isShop: false });
    expect(settingsOf({ TRUST_PROXY: '1' }, ['--shop'])).toMatchObject({ tls: 'none', trustProxy: '1' });
  });

  it.each([
    [{ PORT: 'x' }, 'PORT=x'],
    [{ PORT: '70000' }, 'PORT=70000'],
    [{ HOST: 'no host!' }, 'no address'],
    [{ TLS_CERT: '/a' }, 'go together'],
    [{ STEADY_GLEAM_PASSCODE: '123' }, 'six signs'],
  ])('says in a sentence what can’t be meant: %o', (env, said) => {
    expect(() => settingsOf(env as NodeJS.ProcessEnv, [])).toThrow(said);
  });
});
