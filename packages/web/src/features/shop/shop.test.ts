import { describe, expect, it } from '@jest/globals';
import type { ShopPlace } from '@steady-gleam/contracts';
import { sayStanding } from '../../shared/standing';
import { sayBytes, sayKept, sayShop, sayWhy } from './shopModel';

const NOW = Date.parse('2026-11-28T12:00:00Z');
const place = (over: Partial<ShopPlace> = {}): ShopPlace => ({
  ...{ isShop: true, addresses: [], qr: '', lacks: '', isSecure: true, version: '1', build: '', database: 'embedded' },
  ...{
    folder: null,
    freeBytes: 5e9,
    dataBytes: 1e6,
    copyFault: null,
    devices: [],
    isPasscodeSet: true,
    isLookCodeSet: false,
  },
  copies: [{ name: 'shop-2026-11-28T02-10-00Z.tar.gz', madeAt: '2026-11-28T02:10:00.000Z', bytes: 3.1e6 }],
  ...over,
});
const say = (p: ShopPlace) => sayShop(p, NOW, (at) => new Date(at).toISOString().slice(11, 16));

describe('the shop in a sentence', () => {
  it('leads with what is wrong, the worst first', () => {
    expect(say(place())).toBe('0 devices are signed in. Last good copy 02:10, 3.1 MB.');
    expect(say(place({ isPasscodeSet: false }))).toMatch(/^Set the shop’s own passcode/);
    expect(say(place({ isPasscodeSet: false, freeBytes: 1e8 }))).toBe('Only 100.0 MB are left on the shop’s disk.');
    expect(say(place({ freeBytes: 1e8, copyFault: 'no room.' }))).toBe('The last copy could not be made: no room.');
    expect(say(place({ copies: [] }))).toMatch(/^No copy was made yet/);
    expect(say(place({ copies: [{ name: 'x', madeAt: '2026-11-20T02:10:00.000Z', bytes: 1 }] }))).toMatch(
      /more than two days old/,
    );
    expect(say(place({ isShop: false }))).toMatch(/^The program is this machine’s own/);
  });

  it('says sizes and what a copy was made for', () => {
    expect([1, 12_652, 3.1e6, 4e9].map(sayBytes)).toEqual(['1 kB', '13 kB', '3.1 MB', '4.0 GB']);
    const why = (tail: string) => sayWhy({ name: `shop-2026-11-28T02-10-00Z${tail}.tar.gz` });
    expect([why(''), why('-brought'), why('-before-going-back'), why('-before-0019-begun')]).toEqual([
      '',
      'brought from elsewhere',
      'before a copy was put in its place',
      'before a new version',
    ]);
  });

  it('tells four states of a device apart', () => {
    const at = (isAway: boolean, waiting: number, setAside = 0) => sayStanding({ isAway, waiting, setAside });
    expect(at(false, 0)).toEqual([]);
    expect(at(true, 0)).toEqual(['Server away']);
    expect(at(true, 3)).toEqual(['Server away', 'Kept here: 3']);
    expect(at(false, 2, 1)).toEqual(['Sending: 2', 'Refused: 1']);
    expect(sayKept(0, 0, false)).toBe('Everything told on this device is with the server.');
    expect(sayKept(2, 1, true)).toBe(
      '2 entries wait here until the server is back. One entry was refused and counts for nothing.',
    );
  });
});
