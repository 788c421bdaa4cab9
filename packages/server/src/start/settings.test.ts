import { describe, expect, it } from '@jest/globals';
import { StartError } from '../db/startFaults';
import { isLoopback, settingsOf, wordAfter } from './settings';

const of = (env: NodeJS.ProcessEnv = {}, ...words: string[]) => settingsOf(env, words);

describe('what a start is told', () => {
  it('is open to this machine alone, on the usual port, until it is said otherwise', () => {
    expect(of()).toMatchObject({
      ...{ port: 4680, host: '127.0.0.1', isShop: false, byHost: false, isDemo: true, makesCopies: true, tls: 'own' },
      ...{ passcode: undefined, databaseUrl: undefined, inbox: undefined, names: [] },
    });
  });

  it('opens to the shop by a word, by the environment, or by an address of the network', () => {
    expect(of({}, '--shop')).toMatchObject({ isShop: true, byHost: false, host: '0.0.0.0' });
    for (const yes of ['1', 'true', 'on', 'yes']) expect(of({ STEADY_GLEAM_SHOP: yes }).isShop).toBe(true);
    for (const no of ['0', 'off', '', ' ']) expect(of({ STEADY_GLEAM_SHOP: no }).isShop).toBe(false);
    expect(of({ HOST: '192.168.1.4' })).toMatchObject({ isShop: true, byHost: true, host: '192.168.1.4' });
    expect(of({ HOST: '127.0.0.1' })).toMatchObject({ isShop: false, byHost: false });
    // An address that is asked for beside the word is the word’s.
    expect(of({ HOST: '192.168.1.4' }, '--shop').byHost).toBe(false);
  });

  it('knows its own machine by every name of it', () => {
    for (const own of ['localhost', 'LOCALHOST', '127.0.0.1', '127.9.9.9', '::1', '[::1]'])
      expect(isLoopback(own)).toBe(true);
    for (const other of ['192.168.1.4', 'shop.local', '1127.0.0.1', '127.0.0.1.example', '::2'])
      expect(isLoopback(other)).toBe(false);
  });

  it.each([
    [{ PORT: 'many' }, 'PORT'],
    [{ PORT: '70000' }, '65535'],
    [{ PORT: '80.5' }, 'whole number'],
    [{ HOST: 'a b' }, 'HOST'],
    [{ REQUESTS_A_MINUTE: '-1' }, 'REQUESTS_A_MINUTE'],
    [{ TLS_CERT: '/a.crt' }, 'go together'],
    [{ TLS_KEY: '/a.key' }, 'go together'],
    [{ STEADY_GLEAM_PASSCODE: 'short' }, 'six signs'],
  ])('%j can’t be meant, and is said', (env, word) => {
    expect(() => of(env)).toThrow(StartError);
    expect(() => of(env)).toThrow(word);
  });

  it('takes an empty word as none', () => {
    expect(of({ PORT: '', HOST: ' ', STEADY_GLEAM_DATA: '', DATABASE_URL: ' ', STEADY_GLEAM_INBOX: '' })).toEqual(of());
  });

  it('shows the owner’s certificate, its own, or none behind a server that has one', () => {
    expect(of({ TLS_CERT: '/a.crt', TLS_KEY: '/a.key' }).tls).toEqual({ cert: '/a.crt', key: '/a.key' });
    expect(of({ TRUST_PROXY: 'loopback' })).toMatchObject({ tls: 'none', trustProxy: 'loopback' });
    expect(of({ STEADY_GLEAM_TLS: 'off' }).tls).toBe('none');
  });

  it('takes several names of the machine', () => {
    expect(of({ STEADY_GLEAM_NAMES: 'pier, shop.pier  bench' }).names).toEqual(['pier', 'shop.pier', 'bench']);
  });

  it('finds what stands behind a flag', () => {
    expect(wordAfter(['backup', '--to', 'a.tar.gz'], '--to')).toBe('a.tar.gz');
    expect(wordAfter(['--to=a b.tar.gz'], '--to')).toBe('a b.tar.gz');
    expect(wordAfter(['--to='], '--to')).toBe('');
    expect(wordAfter(['--to'], '--to')).toBeUndefined();
    expect(wordAfter(['--together', 'x'], '--to')).toBeUndefined();
  });
});
