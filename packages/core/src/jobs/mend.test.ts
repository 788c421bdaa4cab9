import { describe, expect, it } from '@jest/globals';
import { STARTING_GUNS } from '../products/guns';
import { plainPlan } from '../testdata/jobs';
import { eventOf } from './events';
import { withMend } from './mend';
import type { MendStep } from './mendSteps';
import type { JobPlan } from './planTypes';

type Coat = Extract<MendStep, { is: 'coat' }>;
const coat = (layerId: string, more: Partial<Coat> = {}): Coat => ({
  ...{ is: 'coat', layerId, style: 'wet', share: 1, reach: { kind: 'all' }, letDown: false, anew: false },
  ...more,
});

/** Cells of a mend behind the last effect coat of the one area. */
function mended(plan: JobPlan, ...steps: MendStep[]) {
  const last = plan.cells.findLast((c) => c.layerId === 'effect')!;
  const event = eventOf({
    ...{ id: 'm', at: 1, kind: 'mend', cells: [{ coatId: last.coatId, areaId: last.areaId }] },
    mend: { way: 'faded', spot: 'left', off: 'short', views: [], steps },
  });
  const { cells } = withMend(plan, plan, event, () => false);
  return { last, cells, own: cells.filter((c) => c.coatId.startsWith('mend/')) };
}

describe('a mend of a run', () => {
  it('lies on what it mends, and what was to lie there lies on it', () => {
    const plan = plainPlan();
    const { last, cells, own } = mended(plan, coat('effect'), coat('clear'));
    expect(own.map((c) => c.under.map((u) => u.coatId))).toEqual([[last.coatId], [own[0]!.coatId]]);
    const over = plan.cells.filter((c) => c.under.some((u) => u.coatId === last.coatId));
    expect(over.length).toBeGreaterThan(0);
    for (const { coatId } of over)
      expect(cells.find((c) => c.coatId === coatId)!.under.map((u) => u.coatId)).toEqual([own[1]!.coatId]);
  });

  it('counts its coats by layer and by how they are laid', () => {
    const { own } = mended(
      plainPlan(),
      ...[coat('effect'), coat('effect', { style: 'light' }), coat('effect', { style: 'light' }), coat('clear')],
    );
    expect(own.map((c) => `${c.coat.style} ${c.coat.number} of ${c.coat.of}`)).toEqual([
      'wet 1 of 1',
      'light 1 of 2',
      'light 2 of 2',
      'wet 1 of 1',
    ]);
  });

  it('a light coat is laid from further away, a can from where a can is held; let down it holds half the solids', () => {
    const [gun, can] = [STARTING_GUNS[0]!, STARTING_GUNS.find((g) => g.kind === 'aerosol')!];
    const light = coat('effect', { style: 'light', letDown: true });
    for (const [plan, further] of [
      [plainPlan({ gun }), 1.4],
      [plainPlan({ gun: can }), 1],
    ] as const) {
      const { last, own } = mended(plan, light, coat('effect'));
      expect(own[0]!.coat.distanceCm).toBe(Math.round(last.coat.distanceCm * further));
      expect(own[1]!.coat.distanceCm).toBe(last.coat.distanceCm);
      expect(own.map((c) => c.coat.volumeSolids)).toEqual([last.coat.volumeSolids / 2, last.coat.volumeSolids]);
    }
  });

  it('leaves out a coat of a layer the job does not have', () => {
    expect(mended(plainPlan(), coat('no such layer'), coat('clear')).own.map((c) => c.layerId)).toEqual(['clear']);
  });
});
