import { Box, Button, ButtonBase, Typography, useTheme } from '@mui/material';
import { objectsOf, type JobObjectRow } from '@steady-gleam/contracts';
import { cupsOf, type JobLayer, type JobPlan, type SprayArea } from '@steady-gleam/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { useUnits } from '../../shared/units';
import { useChangeJob } from '../../shared/useJob';
import { CardCoats } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';
import { CellEditor } from './CellEditor';
import { lookAfter, tableCell, withEdit, type TableCell } from './cellModel';
import { ObjectLine } from './ObjectLine';
import type { PlanPanelProps } from './PlanPage';
import { SetUpPanel } from './SetUpPanel';

/** What a layer is called over its column. */
function layerName(plan: JobPlan, layer: JobLayer): string {
  const coat = plan.cells.find((c) => c.layerId === layer.id)?.coat;
  return `${coat?.name ?? layer.kind}${layer.style === 'control' ? ', control' : ''}`;
}

/** Effect coats of the job's own mix on each object, by the plan. */
function countsOf(plan: JobPlan, systemId: string): { readonly name: string; readonly coats: number }[] {
  const ids = plan.layers
    .filter((l) => l.kind === 'effect' && l.materialId === systemId && l.style !== 'control')
    .map((l) => l.id);
  return plan.objects.map((o) => ({
    name: o.name,
    coats: Math.max(
      0,
      ...plan.areas
        .filter((a) => a.objectId === o.id)
        .map((a) =>
          plan.cells.filter((c) => c.areaId === a.id && ids.includes(c.layerId)).reduce((s, c) => s + c.coats, 0),
        ),
    ),
  }));
}

function sayPlan(plan: JobPlan, systemId: string): string {
  const counts = countsOf(plan, systemId).filter((c) => c.coats > 0);
  const differ = new Set(counts.map((c) => c.coats)).size > 1;
  if (differ)
    return `${counts.map((c, i) => `${c.name} gets ${sayCoats(c.coats)}${i ? '' : ' effect coats'}`).join(', ')}, from one cup.`;
  const effect = counts[0] ? countCoats(counts[0].coats) : 'No coat';
  const all = plan.objects.length > 1 ? `on all ${plan.objects.length}` : '';
  return `${effect} of the effect ${all ? `${all}, ` : ''}in ${plan.rows.length} coats all told.`;
}

/** The plan as a table: areas down, layers across, counts and reaches in the cells; a cell is changed by tapping it. */
export function AreasPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const count = useCardCount(detail);
  const [open, setOpen] = useState<Pick<TableCell, 'areaId' | 'layerId'> | null>(null);
  const { layers, areas, finishes, objects } = work.plan;
  const columns = layers.filter(
    (l) => work.plan.cells.some((c) => c.layerId === l.id) || plan.cells.some((e) => e.layerId === l.id),
  );
  const kept = objectsOf(job);
  const setCount = (object: JobObjectRow, finishId: string, coats: number, look: number | null) =>
    change.mutate({
      version: job.version,
      objects: kept.map((o) =>
        o.id === object.id
          ? {
              ...o,
              counts: [...o.counts.filter((c) => c.finishId !== finishId), { finishId, coats, lookAfter: look }],
            }
          : o,
      ),
    });
  const openArea = areas.find((a) => a.id === open?.areaId);
  const openLayer = layers.find((l) => l.id === open?.layerId);
  const editOf = (at: Pick<TableCell, 'areaId' | 'layerId'>) =>
    plan.cells.find((e) => e.areaId === at.areaId && e.layerId === at.layerId);
  const cups = cupsOf(work.plan);
  const several = objects.length > 1;
  const cellShown = (area: SprayArea, layer: JobLayer) => {
    const cell = tableCell(work.plan, plan.cells, area.id, layer.id);
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
            aria-label={`${layerName(work.plan, layer)} on ${area.name}: ${cell.cells.length ? countCoats(cell.coats) : 'not here'}`}
            aria-pressed={isOpen}
            onClick={() => setOpen(isOpen ? null : { areaId: area.id, layerId: layer.id })}
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
    const counts = objects.find((o) => o.id === area.objectId)?.counts ?? [];
    const check = work.plan.checks.find(
      (c) => c.kind === 'look' && c.layerId === layer.id && c.areaIds.includes(area.id),
    );
    return check ? (check.coats ?? lookAfter(counts, layer.finishId, layer.coats)) : null;
  }
  return (
    <Bench
      side={
        openArea && openLayer && open ? (
          <CellEditor
            key={`${open.areaId} ${open.layerId}`}
            cell={tableCell(work.plan, plan.cells, open.areaId, open.layerId)}
            edit={editOf(open)}
            area={openArea}
            name={layerName(work.plan, openLayer)}
            onKeep={(edit) => {
              set({ cells: withEdit(plan.cells, open, edit) });
              setOpen(null);
            }}
            onClose={() => setOpen(null)}
          />
        ) : (
          <>
            <SetUpPanel detail={detail} plan={plan} set={set} work={work} />
            <Typography variant="h2" sx={{ mt: 1.5 }}>
              What comes out of each cup
            </Typography>
            {cups.map((c) => (
              <Box
                key={c.id}
                sx={{ display: 'flex', justifyContent: 'space-between', borderBottom: `1px solid ${tones.hairline}` }}
              >
                <span>{c.name}</span>
                <Box sx={{ fontFamily: FIGURES }}>{units.say('area', c.areaM2)}</Box>
              </Box>
            ))}
            <Button component={Link} to={`/jobs/${job.id}/mix?layer=job`} variant="outlined">
              To the mix room
            </Button>
          </>
        )
      }
    >
      <Answer why="A cell: how many coats, and how far. Tap it to change it; every cup, time and paper follows.">
        {sayPlan(work.plan, job.systemId)}
      </Answer>
      {tabs}
      {several ? null : <CardCoats detail={detail} count={count} />}
      {change.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {change.error.message}
        </Typography>
      ) : null}
      <Box sx={{ overflowX: 'auto' }}>
        {objects.map((object, i) => {
          const own = areas.filter((a) => a.objectId === object.id);
          const row = kept.find((o) => o.id === object.id);
          return (
            <Box component="section" key={object.id} aria-label={object.name} sx={{ mb: 1.5 }}>
              {several && row ? (
                <ObjectLine
                  detail={detail}
                  object={row}
                  finish={finishes[0]!}
                  planned={countsOf(work.plan, job.systemId)[i]!.coats}
                  onPlan={(coats, look) => setCount(row, finishes[0]!.id, coats, look)}
                />
              ) : null}
              <table
                aria-label={several ? `Plan of ${object.name}` : 'Plan'}
                style={{ borderCollapse: 'collapse', width: '100%', tableLayout: 'fixed', minWidth: 520 }}
              >
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
                <tbody>
                  {own.map((a) => (
                    <tr key={a.id}>
                      <th
                        scope="row"
                        style={{ textAlign: 'left', border: `1px solid ${tones.hairline}`, padding: '6px 8px' }}
                      >
                        <Typography variant="h3" component="div">
                          {a.name}
                        </Typography>
                        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                          {sayHung(a, areas)}
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
            </Box>
          );
        })}
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Checks stand between the columns: {[...new Set(work.plan.checks.map((c) => CHECK_WORDS[c.kind]))].join(', ')}.{' '}
        <Link to={`/jobs/${job.id}/pieces`} style={{ color: 'inherit' }}>
          Change the areas
        </Link>
      </Typography>
    </Bench>
  );
}

const CHECK_WORDS: Record<JobPlan['checks'][number]['kind'], string> = {
  prep: 'made ready',
  hiding: 'lamp after the ground',
  mount: 'loose parts mounted',
  look: 'the look in the effect',
  close: 'jambs closed',
  mask: 'masked',
  unmask: 'unmasked',
  tail: 'tail of the blend',
  lamp: 'lights off before clear',
  flat: 'flakes sanded flat',
  standing: 'standing',
  bake: 'bake',
};

const sayHung = (a: SprayArea, areas: readonly SprayArea[]): string =>
  a.on !== null
    ? `masked on ${areas.find((b) => b.id === a.on)?.name ?? ''}`
    : a.loose
      ? 'loose, mounted for the effect'
      : a.first
        ? 'jamb, first'
        : 'on the object';

/** What a cell says: how many coats, how far, how many are on, and when it is looked at. */
function CellText({ cell, on, look }: { cell: TableCell; on: number; look: number | null }) {
  const units = useUnits();
  if (!cell.cells.length) return <Typography sx={{ color: 'text.secondary' }}>none</Typography>;
  const { reach } = cell;
  const notes = [
    reach.kind === 'spot' ? `spot, ${units.say('area', reach.m2)}` : '',
    reach.kind === 'blend'
      ? `to ${units.say('distance', reach.endCm)}, fades over ${units.say('distance', reach.fadeCm)}`
      : '',
    look !== null && look < cell.coats ? `look after ${sayCoats(look)}` : '',
    on > 0 ? `${sayCoats(on)} on` : '',
  ].filter(Boolean);
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
