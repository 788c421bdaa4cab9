import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { jobSheetPath } from '@steady-gleam/contracts';
import { lazy, Suspense, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ownZone } from '../../shared/clock';
import { isPicked } from '../../shared/jobModel';
import { Notice } from '../../shared/Notice';
import { useUnits } from '../../shared/units';
import { CoatsPanel } from './CoatsPanel';
import { OrderPanel } from './OrderPanel';
import { PassPanel } from './PassPanel';
import { TimePanel } from './TimePanel';
import { useJobWork } from '../../shared/useJobWork';
import { AreasPanel } from './AreasPanel';
import { usePlan } from './usePlan';

const BlendPanel = lazy(async () => ({ default: (await import('./BlendPanel')).BlendPanel }));

const PARTS = {
  areas: 'Areas',
  order: 'Order',
  coats: 'Coats',
  passes: 'Passes',
  blend: 'Blend',
  time: 'Timeline',
} as const;
type Part = keyof typeof PARTS;

/** From the recipe to the gun: coats by area, order in the booth, how each is laid, stripes, blend and times. */
export function PlanPage() {
  const { detail, plan, set, error } = usePlan();
  const work = useJobWork(detail, plan);
  const units = useUnits();
  const [params, setParams] = useSearchParams();
  const part: Part = (Object.keys(PARTS) as Part[]).find((p) => p === params.get('show')) ?? 'areas';
  if (work.loading) return <Notice title="Opening the plan …" />;
  if (work.error) return <Notice title="The plan could not be opened." text={work.error.message} />;
  const tabs: ReactNode = (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mb: 1.25 }}>
        <ToggleButtonGroup
          exclusive
          value={part}
          aria-label="Part of the plan"
          onChange={(_, v: Part | null) => v && setParams({ show: v }, { replace: true })}
        >
          {Object.entries(PARTS).map(([id, name]) => (
            <ToggleButton key={id} value={id} sx={{ px: 1.75 }}>
              {name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1 }}>
          {isPicked(detail.job) ? (
            <Button
              component="a"
              href={jobSheetPath(detail.job.id, units.system, ownZone(), 'plan')}
              target="_blank"
              variant="outlined"
            >
              Job sheet
            </Button>
          ) : (
            <Button variant="outlined" disabled title="Pick ground and coats first; the sheet follows from them.">
              Job sheet: pick first
            </Button>
          )}
          {detail.events.some((e) => e.kind === 'sprayed') ? (
            <Button
              component="a"
              href={jobSheetPath(detail.job.id, units.system, ownZone(), 'done')}
              target="_blank"
              variant="outlined"
            >
              Sheet as done
            </Button>
          ) : null}
          <Button component={Link} to={`/jobs/${detail.job.id}/booth`} variant="contained">
            To the booth
          </Button>
        </Box>
      </Box>
      {error ? (
        <Typography role="alert" sx={{ color: 'error.main', mb: 1 }}>
          {error.message}
        </Typography>
      ) : null}
    </>
  );
  const shared = { detail, plan, set, work, tabs };
  if (part === 'coats') return <CoatsPanel {...shared} />;
  if (part === 'passes') return <PassPanel {...shared} />;
  if (part === 'time') return <TimePanel {...shared} />;
  if (part === 'blend')
    return (
      <Suspense fallback={<Notice title="Opening the blend …" />}>
        <BlendPanel {...shared} />
      </Suspense>
    );
  if (part === 'order') return <OrderPanel {...shared} />;
  return <AreasPanel {...shared} />;
}
