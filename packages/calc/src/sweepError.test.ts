import { expect, it } from '@jest/globals';
import { sweepErrors } from './sweepError';

it('tells random films at any strength within 0.15 dE00 of the whole sum', () => {
  const off = sweepErrors(20261128, 1000).sort((a, b) => a - b);
  expect(off.at(-1)).toBeLessThan(0.15);
  expect(off[500]).toBeLessThan(0.02);
});
