import { describe, expect, it } from '@jest/globals';
import { sayLab } from './sayLab';

describe('a colour in figures', () => {
  it('is rounded as far as is asked, and a grey has no sign', () => {
    expect(sayLab([53.6, -0.00001, 0.000004])).toBe('L* 54, a* 0, b* 0');
    expect(sayLab([53.6, -0.4, -0.6])).toBe('L* 54, a* 0, b* -1');
    expect(sayLab([61.25, -0.04, 12.5], 1)).toBe('L* 61.3, a* 0.0, b* 12.5');
  });
});
