import { Box, Button, OutlinedInput, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { limitsApi, limitsSchema, type FamilyLimits, type JobDetail } from '@steady-gleam/contracts';
import {
  BLEND_WIDER,
  FAMILIES,
  familyTable,
  limitAt,
  USUAL_LIMIT_SOURCE,
  type MatchLimits,
  type Meeting,
  type FamilyRow,
} from '@steady-gleam/core/finishes';
import { noiseOf, targetNoise } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { call } from '../../shared/apiClient';
import { checkWith } from '../../shared/checkWith';
import { Field } from '../../ui/Field';
import { Table } from '../../ui/Table';
import { numberIn } from '../../shared/numberIn';
import { useChangeJob } from '../../shared/useJob';
import { sayNotProven } from './limitsModel';

/** How far off each angle may be, edge to edge or blended, with where that comes from and the target's own noise beside it. */
export function Limits({
  detail: { job, familyLimits },
  target,
  spots,
  scatter,
}: {
  detail: Pick<JobDetail, 'job' | 'familyLimits'>;
  target: readonly TargetAngle[];
  spots: number;
  /** Of the painter's repeated spots, Lab units; null where none was repeated. */
  scatter: number | null;
}) {
  const change = useChangeJob(job.id);
  const client = useQueryClient();
  const family = FAMILIES[job.family];
  const usual = familyTable(family.limits, familyLimits?.own ?? null);
  const putFamily = useMutation({
    mutationFn: (body: FamilyLimits) => call(limitsApi.putFamily, { body }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>({});
  const [source, setSource] = useState(job.limits?.source ?? '');
  const [fault, setFault] = useState<Readonly<Record<string, string>>>({});
  const meeting = job.limits?.meeting ?? 'edge';
  const edge = (aspecular: number) => limitAt(aspecular, usual, job.limits ? { ...job.limits, meeting: 'edge' } : null);
  const noise = targetNoise({
    angles: target,
    spots,
    sameInstrument: true,
    noise: noiseOf(
      scatter,
      target.map((t) => t.lab[0]),
    ),
  });
  const changed =
    Object.entries(typed).some(([angle, text]) => numberIn(text) !== edge(Number(angle))) ||
    source !== (job.limits?.source ?? '');
  // Limits are by the view; the lamp makes no difference.
  const views = target.filter((t, i) => target.findIndex((o) => o.aspecular === t.aspecular) === i);
  const figures = views.map(({ aspecular }) => ({
    aspecular,
    limit: typed[aspecular] === undefined ? edge(aspecular) : numberIn(typed[aspecular]),
  }));
  /** Checks what is typed and keeps it; what is wrong is said at its field. */
  const keep = (own: readonly { aspecular: number; limit: number }[], send: (own: MatchLimits['own']) => void) => {
    const found = checkWith(limitsSchema, { meeting, own, source }, (path) => {
      const at = /own\[(\d+)\]/.exec(path)?.[1];
      return at === undefined ? 'source' : String(own[Number(at)]!.aspecular);
    });
    setFault(found.ok ? {} : found.faults);
    if (found.ok) send(own);
  };
  const keepForJob = (next: Meeting) =>
    keep(
      figures.filter((o) => o.limit !== usual[o.aspecular]),
      (own) => change.mutate({ version: job.version, limits: { meeting: next, own: [...own], source } }),
    );
  const keepForFamily = () =>
    keep(figures, (own) =>
      putFamily.mutate({ family: job.family, version: familyLimits?.version ?? 0, own: [...own], source }),
    );
  const differs = figures.some((o) => o.limit !== usual[o.aspecular]);
  const unproven = target.length ? sayNotProven(target, noise, spots) : null;
  return (
    <Box component="section" aria-label="Limits" sx={{ mt: 2, maxWidth: 720 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        Limits
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3, alignItems: 'start' }}>
        <LimitRows
          views={views}
          typed={typed}
          edge={edge}
          setTyped={setTyped}
          fault={fault}
          noise={noise}
          target={target}
        />
        <LimitTools
          meeting={meeting}
          change={change}
          keepForJob={keepForJob}
          source={source}
          fault={fault}
          familyLimits={familyLimits}
          setSource={setSource}
          unproven={unproven}
          putFamily={putFamily}
          changed={changed}
          differs={differs}
          keepForFamily={keepForFamily}
          family={family}
        />
      </Box>
    </Box>
  );
}

interface LimitRowsProps {
  readonly views: TargetAngle[];
  readonly typed: Readonly<Record<number, string>>;
  readonly edge: (aspecular: number) => number;
  readonly setTyped: Dispatch<SetStateAction<Readonly<Record<number, string>>>>;
  readonly fault: Readonly<Record<string, string>>;
  readonly noise: number[];
  readonly target: readonly TargetAngle[];
}

/** The limit of every angle, as it is typed. */
function LimitRows({ views, typed, edge, setTyped, fault, noise, target }: LimitRowsProps) {
  return (
    <Table
      label="Limit of every angle"
      dense
      rows={views}
      keyOf={(t) => t.aspecular}
      columns={[
        { head: 'angle', draw: (t) => `${t.aspecular}°` },
        {
          ...{ head: 'edge, dE00', figure: true },
          draw: (t) => (
            <>
              <OutlinedInput
                value={typed[t.aspecular] ?? String(edge(t.aspecular))}
                onChange={(e) => setTyped({ ...typed, [t.aspecular]: e.target.value })}
                error={fault[t.aspecular] !== undefined}
                inputProps={{ 'aria-label': `Limit at ${t.aspecular} degrees`, inputMode: 'decimal' }}
                sx={{ width: 70, '& input': { py: 0.75, px: 1, textAlign: 'right' } }}
              />
              {fault[t.aspecular] ? (
                <Typography variant="body2" role="alert" sx={{ color: 'error.main', whiteSpace: 'normal' }}>
                  {fault[t.aspecular]}
                </Typography>
              ) : null}
            </>
          ),
        },
        { head: 'target’s noise, dE00', figure: true, draw: (t) => `±${noise[target.indexOf(t)]!.toFixed(1)}` },
      ]}
    />
  );
}

interface LimitToolsProps {
  readonly meeting: 'edge' | 'blend';
  readonly change: ReturnType<typeof useChangeJob>;
  readonly keepForJob: (next: Meeting) => void;
  readonly source: string;
  readonly fault: Readonly<Record<string, string>>;
  readonly familyLimits: FamilyLimits | null;
  readonly setSource: Dispatch<SetStateAction<string>>;
  readonly unproven: string | null;
  readonly putFamily: { readonly isPending: boolean; readonly error: Error | null };
  readonly changed: boolean;
  readonly differs: boolean;
  readonly keepForFamily: () => void;
  readonly family: FamilyRow;
}

/** How limits are met, and where they come from. */
function LimitTools({
  meeting,
  change,
  keepForJob,
  source,
  fault,
  familyLimits,
  setSource,
  unproven,
  putFamily,
  changed,
  differs,
  keepForFamily,
  family,
}: LimitToolsProps) {
  const { tones } = useTheme();
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={meeting}
        aria-label="How it meets the rest"
        disabled={change.isPending}
        onChange={(_, v: Meeting | null) => v && keepForJob(v)}
      >
        <ToggleButton value="edge">Edge to edge</ToggleButton>
        <ToggleButton value="blend">Blended, {BLEND_WIDER}×</ToggleButton>
      </ToggleButtonGroup>
      <Field
        label="Where they come from"
        value={source}
        error={fault['source']}
        hint={source ? '' : `Empty: ${familyLimits?.source || USUAL_LIMIT_SOURCE}`}
        onChange={(e) => setSource(e.target.value)}
      />
      {unproven ? <Typography sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>{unproven}</Typography> : null}
      {(change.error ?? putFamily.error) ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {(change.error ?? putFamily.error)!.message}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {changed ? (
          <Button variant="outlined" disabled={change.isPending} onClick={() => keepForJob(meeting)}>
            Keep for this job
          </Button>
        ) : null}
        {differs ? (
          <Button variant="outlined" disabled={putFamily.isPending} onClick={keepForFamily}>
            Keep for every {family.name.toLowerCase()}
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}
