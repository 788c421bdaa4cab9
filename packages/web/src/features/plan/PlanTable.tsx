import { Box, ButtonBase, Typography, useTheme } from '@mui/material';
import { lookAfter, type CellEdit, type JobLayer, type JobPlan, type SprayArea } from '@steady-gleam/core/jobs';
import { FIGURES } from '../../app/theme';
import { countCoats, sayCoats } from '../../shared/jobModel';
import type { JobWorked } from '../../shared/useJobWork';
import { useUnits, type Units } from '../../shared/units';
import { tableCell, type TableCell } from './cellModel';

/** What a layer is called over its column. */
export function layerName(plan: JobPlan, layer: JobLayer): string {
  const coat = plan.cells.find((c) => c.layerId === layer.id)?.coat;
  return `${coat?.name ?? layer.kind}${layer.style === 'control' ? ', control' : ''}`;
}

/** Areas of an object down, layers across: how many coats, how far, how many are on; a cell is tapped to change it. */
export function PlanTable({
  label,
  areas,
  work,
  edits,
  open,
  onOpen,
}: {
  label: string;
  areas: readonly SprayArea[];
  work: JobWorked;
  edits: readonly CellEdit[];
  /** The cell that is being changed. */
  open: Pick<TableCell, 'areaId' | 'layerId'> | null;
  onOpen: (cell: Pick<TableCell, 'areaId' | 'layerId'> | null) => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const columns = work.plan.layers.filter(
    (l) => work.plan.cells.some((c) => c.layerId === l.id) || edits.some((e) => e.layerId === l.id),
  );
  const cellShown = (area: SprayArea, layer: JobLayer) => {
    const cell = tableCell(work.plan, edits, area.id, layer.id);
    const on =
      work.state.areas.find((s) => s.areaId === area.id)?.layers.find((o) => o.layerId === layer.id)?.coats ?? 0;
    const own = area.finishId === layer.finishId;
    const look = area.on ? null : lookAfterOf(area, layer);
    const isOpen = open?.areaId === area.id && open.layerId === layer.id;
    return (
      // A height, so that what is in it can fill it.
      <td key={layer.id} style={{ padding: 0, height: 1, border: `1px solid ${tones.hairline}` }}>
        {own ? (
          <ButtonBase
            aria-label={called(
              `${layerName(work.plan, layer)} on ${area.name}`,
              cell,
              cell.cells.length ? notesOf(cell, on, look, units) : [],
            )}
            aria-pressed={isOpen}
            onClick={() => onOpen(isOpen ? null : { areaId: area.id, layerId: layer.id })}
            sx={{
              width: '100%',
              height: '100%',
              minHeight: 56,
              px: 1,
              py: 0.75,
              display: 'block',
              textAlign: 'left',
              background: cell.cells.length
                ? cell.reach.kind === 'blend'
                  ? `linear-gradient(90deg, ${tones.raised} 40%, ${tones.page})`
                  : tones.raised
                : tones.panel,
              outline: isOpen ? `3px solid ${tones.pick}` : 'none',
              outlineOffset: -3,
            }}
          >
            <CellText cell={cell} on={on} look={look} />
          </ButtonBase>
        ) : (
          <Box sx={{ minHeight: 56, px: 1, py: 0.75, color: 'text.secondary', fontSize: 14 }}>
            {area.on !== null && layer.kind === 'clear' ? 'with the rest' : '–'}
          </Box>
        )}
      </td>
    );
  };
  function lookAfterOf(area: SprayArea, layer: JobLayer): number | null {
    const counts = work.plan.objects.find((o) => o.id === area.objectId)?.counts ?? [];
    const check = work.plan.checks.find(
      (c) => c.kind === 'look' && c.layerId === layer.id && c.areaIds.includes(area.id),
    );
    return check ? (check.coats ?? lookAfter(counts, layer.finishId, layer.coats)) : null;
  }
  return (
    <table
      aria-label={label}
      style={{ borderCollapse: 'collapse', width: '100%', tableLayout: 'fixed', minWidth: 520 }}
    >
      <TableHead columns={columns} work={work} />
      <tbody>
        {areas.map((a) => (
          <tr key={a.id}>
            <th scope="row" style={{ textAlign: 'left', border: `1px solid ${tones.hairline}`, padding: '6px 8px' }}>
              <Typography variant="h3" component="div">
                {a.name}
              </Typography>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {sayHung(a, work.plan.areas)}
              </Typography>
            </th>
            {columns.map((l) => cellShown(a, l))}
            <td
              style={{
                fontFamily: FIGURES,
                textAlign: 'right',
                border: `1px solid ${tones.hairline}`,
                padding: '0 8px',
              }}
            >
              {units.figure('area', a.areaM2)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const sayHung = (a: SprayArea, areas: readonly SprayArea[]): string =>
  a.on !== null
    ? `masked on ${areas.find((b) => b.id === a.on)?.name ?? ''}`
    : a.loose
      ? 'loose, mounted for the effect'
      : a.first
        ? 'jamb, first'
        : 'on the object';

/** What a cell says below its count: how far, when it is looked at, and how many are on. */
const notesOf = ({ reach, coats }: TableCell, on: number, look: number | null, units: Units): string[] =>
  [
    reach.kind === 'spot' ? `spot, ${units.say('area', reach.m2)}` : '',
    reach.kind === 'blend'
      ? `to ${units.say('distance', reach.endCm)}, fades over ${units.say('distance', reach.fadeCm)}`
      : '',
    look !== null && look < coats ? `look after ${sayCoats(look)}` : '',
    on > 0 ? `${sayCoats(on)} on` : '',
  ].filter(Boolean);

/** A cell by its place and by what stands in it. */
const called = (place: string, cell: TableCell, notes: readonly string[]): string =>
  `${place}: ${[cell.cells.length ? countCoats(cell.coats) : 'none here', ...notes].join(', ')}`;

/** What a cell says: how many coats, how far, how many are on, and when it is looked at. */
function CellText({ cell, on, look }: { cell: TableCell; on: number; look: number | null }) {
  const units = useUnits();
  if (!cell.cells.length) return <Typography sx={{ color: 'text.secondary' }}>none</Typography>;
  const notes = notesOf(cell, on, look, units);
  return (
    <>
      <Typography component="div" sx={{ typography: 'h1', lineHeight: 1.05 }}>
        {sayCoats(cell.coats)}
      </Typography>
      {notes.map((n) => (
        <Typography key={n} variant="body2" component="div">
          {n}
        </Typography>
      ))}
    </>
  );
}

interface TableHeadProps {
  readonly columns: JobLayer[];
  readonly work: JobWorked;
}

/** Layers across, each with its coats. */
function TableHead({ columns, work }: TableHeadProps) {
  const units = useUnits();
  return (
    <thead>
      <tr>
        <th scope="col" style={{ textAlign: 'left', fontWeight: 400, fontSize: 13.5, width: '22%' }}>
          area
        </th>
        {columns.map((l) => (
          <th
            key={l.id}
            scope="col"
            style={{ textAlign: 'left', fontSize: 14, padding: '0 8px 4px', verticalAlign: 'bottom' }}
          >
            {layerName(work.plan, l)}
          </th>
        ))}
        <th scope="col" style={{ textAlign: 'right', fontWeight: 400, fontSize: 13.5, width: 74 }}>
          {units.name('area')}
        </th>
      </tr>
    </thead>
  );
}
