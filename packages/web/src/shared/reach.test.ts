import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { onReach, reachNow, toldAway, toldThere, type Reach } from './reach';

beforeEach(() => toldThere(false, null, ''));

describe('the way to the server', () => {
  it('is as the last call found it', () => {
    toldAway();
    expect(reachNow().isAway).toBe(true);
    toldThere(null, null, '');
    expect(reachNow()).toEqual({ isAway: false, isLocked: false, newBuild: null });
  });

  it('an answer that says nothing of the door leaves it as it was', () => {
    toldThere(true, null, '');
    toldThere(null, null, '');
    expect(reachNow().isLocked).toBe(true);
    toldThere(false, null, '');
    expect(reachNow().isLocked).toBe(false);
  });

  it('another build is told of; the same, an unknown one or that of a page that was not built is not', () => {
    const seen = (build: string | null, own: string) => (toldThere(null, build, own), reachNow().newBuild);
    expect(seen('b2', 'b1')).toBe('b2');
    expect(seen('b1', 'b1')).toBeNull();
    expect(seen(null, 'b1')).toBeNull();
    expect(seen('b2', '')).toBeNull();
  });

  it('tells those who listen what changed and what it was, once, and nobody who left', () => {
    const heard = jest.fn<(now: Reach, before: Reach) => void>();
    const leave = onReach(heard);
    toldAway();
    toldAway();
    expect(heard).toHaveBeenCalledTimes(1);
    expect(heard.mock.calls[0]!.map((r) => r.isAway)).toEqual([true, false]);
    leave();
    toldThere(null, null, '');
    expect(heard).toHaveBeenCalledTimes(1);
  });
});
