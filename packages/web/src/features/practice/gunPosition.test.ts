import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FURTHEST, heldAt, isWay, keyed, NEAREST, steadied, type GunHeld } from './gunPosition';

const place = fc.double({ min: -50, max: 150, noNaN: true });
const gun = (x: number, y: number): GunHeld => ({ x, y, d: 15, on: true });
const moment = fc.double({ min: 0.001, max: 0.1, noNaN: true });

describe('a gun that follows', () => {
  it('steadied comes nearer and never goes past, along or across, and no faster than its most', () => {
    fc.assert(
      fc.property(place, place, place, place, moment, (x, y, toX, toY, s) => {
        const next = steadied(gun(x, y), gun(toX, toY), s, 80);
        expect(Math.abs(toX - next.x)).toBeLessThanOrEqual(Math.abs(toX - x) + 1e-9);
        expect((toX - next.x) * (toX - x)).toBeGreaterThanOrEqual(-1e-9);
        expect((toY - next.y) * (toY - y)).toBeGreaterThanOrEqual(-1e-9);
        expect(Math.abs(next.x - x)).toBeLessThanOrEqual(80 * s + 1e-9);
      }),
    );
  });

  it('steadied keeps the line of a shaking hand: across it moves less than along', () => {
    const next = steadied(gun(0, 0), gun(1, 1), 0.02, 1000);
    expect(next.y).toBeLessThan(next.x);
  });

  it('by its keys goes at its own speed along and a third of it across, both ways at once', () => {
    expect(keyed(gun(10, 10), new Set(['ArrowRight']), 0.5, 60)).toMatchObject({ x: 40, y: 10 });
    expect(keyed(gun(10, 10), new Set(['ArrowLeft', 'ArrowDown']), 0.5, 60)).toMatchObject({ x: -20, y: 20 });
    expect(keyed(gun(10, 10), new Set(['ArrowLeft', 'ArrowRight', 'a']), 0.5, 60)).toMatchObject({ x: 10, y: 10 });
    expect(['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'].every(isWay)).toBe(true);
    expect(['a', ' ', 'Enter', 'toString'].some(isWay)).toBe(false);
  });

  it('is held neither nearer nor further than an arm does', () => {
    expect([1, 15, 90].map(heldAt)).toEqual([NEAREST, 15, FURTHEST]);
  });
});
