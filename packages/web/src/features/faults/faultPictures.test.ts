import { describe, expect, it } from '@jest/globals';
import { FAULTS } from '@steady-gleam/core/faults';
import { PICTURED } from './FaultPicture';

describe('pictures of faults', () => {
  it('are drawn for each of the table, and for none that is not in it', () => {
    expect([...PICTURED].sort()).toEqual(FAULTS.map((f) => f.id).sort());
  });
});
