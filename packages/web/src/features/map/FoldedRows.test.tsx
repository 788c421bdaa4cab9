import { describe, expect, it } from '@jest/globals';
import type { MatchMap } from '@steady-gleam/core/matching';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderAt } from '../../testing/page';
import { FoldedRows, useFoldedMap } from './FoldedRows';

const row = (groundId: string, rmsDe: number) => ({
  groundId,
  cells: [{ coats: 3, labs: [], score: { rmsDe, toleranceRatio: rmsDe, differences: [rmsDe] } }],
  stop: { window: null, closes: true, best: { coats: 3, rmsDe, toleranceRatio: rmsDe }, curve: [] },
  forgiveness: 0,
});
const mapOf = (...rows: ReturnType<typeof row>[]): MatchMap => ({
  ...{ counts: [3], rows, best: { groundId: rows[0]!.groundId, coats: 3 }, forgiving: null, cheapest: null },
});
const near = mapOf(row('white', 1), row('aqua-pastel', 2), row('gold', 3), row('black', 30), row('copper', 40));

function Folding({ map, settled = true, keep = null }: { map: MatchMap; settled?: boolean; keep?: string | null }) {
  const { shown, folded, fold } = useFoldedMap(map, settled, keep);
  return (
    <>
      <p data-testid="shown">{shown!.rows.map((r) => r.groundId).join(' ')}</p>
      <FoldedRows folded={folded} grounds={REFERENCE_LIBRARY.grounds} fold={fold} />
    </>
  );
}

const shown = () => screen.getByTestId('shown').textContent;

describe('grounds that are far off the target', () => {
  it('are away until they are asked for', async () => {
    const user = userEvent.setup();
    renderAt('/', <Folding map={near} />);
    expect(shown()).toBe('white aqua-pastel gold');
    await user.click(screen.getByRole('button', { name: 'Show them' }));
    expect(shown()).toBe('white aqua-pastel gold black copper');
    const back = screen.getByRole('button', { name: 'Fold them away' });
    expect(back.getAttribute('aria-expanded')).toBe('true');
    await user.click(back);
    expect(shown()).toBe('white aqua-pastel gold');
  });

  it('stay where the probe is', () => {
    renderAt('/', <Folding map={near} keep="copper" />);
    expect(shown()).toBe('white aqua-pastel gold copper');
  });

  it('say nothing where none is far off', () => {
    renderAt('/', <Folding map={mapOf(row('white', 1), row('black', 5))} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
