import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobObjectRow } from '@steady-gleam/contracts';
import { cupsOf, type JobPlan, objectsOf } from '@steady-gleam/core/jobs';
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
import { tableCell, withEdit, type TableCell } from './cellModel';
import { ObjectLine } from './ObjectLine';
import type { PlanPanelProps } from './planPanel';
import { layerName, PlanTable } from './PlanTable';
import { SetUpPanel } from './SetUpPanel';

/** Effect coats of the job's own mix on each object, by the plan. */
function countsOf(plan: JobPlan, mixId: string): { readonly name: string; readonly coats: number }[] {
  const ids = plan.layers.filter((l) => l.counted && l.materialId === mixId).map((l) => l.id);
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

function sayPlan(plan: JobPlan, mixId: string): string {
  const counts = countsOf(plan, mixId).filter((c) => c.coats > 0);
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
        {sayPlan(work.plan, job.mixId)}
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
                  planned={countsOf(work.plan, job.mixId)[i]!.coats}
                  onPlan={(coats, look) => setCount(row, finishes[0]!.id, coats, look)}
                />
              ) : null}
              <PlanTable
                label={several ? `Plan of ${object.name}` : 'Plan'}
                areas={own}
                work={work}
                edits={plan.cells}
                open={open}
                onOpen={setOpen}
              />
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
  shake: 'cans shaken',
  hiding: 'lamp after the ground',
  mount: 'loose parts mounted',
  look: 'the look in the effect',
  close: 'jambs closed',
  mask: 'masked',
  unmask: 'unmasked',
  tail: 'tail of the blend',
  lamp: 'lights off before clear',
  flat: 'flakes sanded flat',
  mist: 'the mist coat',
  dry: 'left to dry',
  clean: 'cleaned',
  sand: 'sanded',
  polish: 'polished',
  strip: 'stripped',
  set: 'gun set',
  tint: 'cup tinted',
  standing: 'standing',
  bake: 'bake',
};
