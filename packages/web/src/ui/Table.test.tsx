import { describe, expect, it } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { renderAt } from '../testing/page';
import { faultsOf } from '../testing/program';
import { Table, type Column } from './Table';

interface Cup {
  readonly name: string;
  readonly ml: number;
}
const CUPS: readonly Cup[] = [
  { name: 'sealer', ml: 300 },
  { name: 'lagoon pearl', ml: 1050 },
];
const COLUMNS: readonly Column<Cup>[] = [
  { head: 'cup', draw: (c) => c.name },
  { head: 'ml', figure: true, draw: (c) => String(c.ml), style: (c) => ({ fontWeight: c.ml > 1000 ? 700 : 400 }) },
  { head: 'nth', figure: true, draw: (_, at) => String(at + 1) },
];
const cellsOf = (row: HTMLElement) => within(row).getAllByRole('cell');

describe('a table', () => {
  it('has a name, heads that are heads, and a row for each thing in its order', async () => {
    const { container } = renderAt('/', <Table label="Cups" columns={COLUMNS} rows={CUPS} keyOf={(c) => c.name} />);
    const table = screen.getByRole('table', { name: 'Cups' });
    expect(
      within(table)
        .getAllByRole('columnheader')
        .map((h) => h.textContent),
    ).toEqual(['cup', 'ml', 'nth']);
    const rows = within(table).getAllByRole('row').slice(1);
    expect(rows.map((r) => cellsOf(r).map((c) => c.textContent))).toEqual([
      ['sealer', '300', '1'],
      ['lagoon pearl', '1050', '2'],
    ]);
    expect(await faultsOf(container)).toEqual([]);
  });

  it('sets figures right on one line and texts left; a cell’s own style goes before', () => {
    renderAt('/', <Table label="Cups" columns={COLUMNS} rows={CUPS} keyOf={(c) => c.name} />);
    const [name, ml] = cellsOf(screen.getAllByRole('row')[2]!) as [HTMLElement, HTMLElement];
    expect(name.style).toMatchObject({ textAlign: 'left', whiteSpace: '' });
    expect(ml.style).toMatchObject({ textAlign: 'right', whiteSpace: 'nowrap', fontWeight: '700' });
    expect(cellsOf(screen.getAllByRole('row')[1]!)[1]!.style.fontWeight).toBe('400');
  });

  it('opens what belongs to a row below it, over the whole width', () => {
    renderAt(
      '/',
      <Table
        label="Cups"
        columns={COLUMNS}
        rows={CUPS}
        keyOf={(c) => c.name}
        below={(c) => (c.ml < 500 ? <p>small</p> : null)}
      />,
    );
    const rows = screen.getAllByRole('row');
    expect(rows).toHaveLength(4);
    expect(rows[2]!.textContent).toBe('small');
    expect(cellsOf(rows[2]!)[0]!.getAttribute('colspan')).toBe('3');
  });

  it('a column without a name has none, for screen readers neither', async () => {
    const change: Column<Cup> = { id: 'change', head: '', draw: (c) => <button>Change {c.name}</button> };
    const columns = [...COLUMNS, change];
    const { container } = renderAt('/', <Table label="Cups" columns={columns} rows={CUPS} keyOf={(c) => c.name} />);
    expect(screen.getAllByRole('columnheader')).toHaveLength(3);
    expect(cellsOf(screen.getAllByRole('row')[1]!)).toHaveLength(4);
    expect(await faultsOf(container)).toEqual([]);
  });

  it('stands with its heads where there is nothing yet', () => {
    renderAt('/', <Table label="Cups" columns={COLUMNS} rows={[]} keyOf={(c) => c.name} />);
    expect(screen.getAllByRole('row')).toHaveLength(1);
  });
});
