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
import { call } from '../../shared/apiClient';
import { checkWith } from '../../shared/checkWith';
import { Field } from '../../ui/Field';
import { Table } from '../../ui/Table';
import { useTypedForm, type TypedForm } from '../../ui/useTypedForm';
import { numberIn } from '../../shared/numberIn';
import { useChangeJob } from '../../shared/useJob';
import { fieldAt, sayNotProven } from './limitsModel';

interface TypedLimits {
  readonly source: string;
  /** By `fieldAt`, dE00. */
  readonly limits: Readonly<Record<string, string>>;
}
type KeptLimits = Pick<MatchLimits, 'own'> & { readonly source: string };

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
  // Limits are by the view; the lamp makes no difference.
  const views = target.filter((t, i) => target.findIndex((o) => o.aspecular === t.aspecular) === i);
  const ownIn = ({ limits }: TypedLimits) =>
    views.map(({ aspecular }) => ({ aspecular, limit: numberIn(limits[fieldAt(aspecular)]) }));
  const keepForJob = ({ own, source }: KeptLimits, next: Meeting) =>
    change.mutateAsync({
      version: job.version,
      limits: { meeting: next, own: own.filter((o) => o.limit !== usual[o.aspecular]), source },
    });
  const form = useTypedForm<TypedLimits, KeptLimits>({
    start: {
      source: job.limits?.source ?? '',
      limits: Object.fromEntries(views.map(({ aspecular: at }) => [fieldAt(at), String(edge(at))])),
    },
    meant: (typed) => [typed.source.trim(), ownIn(typed)],
    check: (typed) => {
      const own = ownIn(typed);
      return checkWith(limitsSchema, { meeting, own, source: typed.source }, (path) => {
        const at = /own\[(\d+)\]/.exec(path)?.[1];
        return at === undefined ? 'source' : `limits.${fieldAt(own[Number(at)]!.aspecular)}`;
      });
    },
    keep: (limits) => keepForJob(limits, meeting),
  });
  const keepForFamily = ({ own, source }: KeptLimits) =>
    putFamily.mutateAsync({ family: job.family, version: familyLimits?.version ?? 0, own: [...own], source });
  return (
    <Box component="section" aria-label="Limits" sx={{ mt: 2, maxWidth: 720 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        Limits
      </Typography>
      <Box
        component="form"
        noValidate
        onSubmit={form.onSubmit}
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3, alignItems: 'start' }}
      >
        <LimitRows views={views} form={form} noise={noise} target={target} />
        <LimitTools
          meeting={meeting}
          form={form}
          onMeeting={(next) => form.keepBy((limits) => keepForJob(limits, next))}
          onFamily={
            ownIn(form.values).some((o) => o.limit !== usual[o.aspecular]) ? form.keepBy(keepForFamily) : undefined
          }
          usualSource={familyLimits?.source || USUAL_LIMIT_SOURCE}
          unproven={target.length ? sayNotProven(target, noise, spots) : null}
          family={family}
        />
      </Box>
    </Box>
  );
}

interface LimitRowsProps {
  readonly views: TargetAngle[];
  readonly form: TypedForm<TypedLimits>;
  readonly noise: number[];
  readonly target: readonly TargetAngle[];
}

/** The limit of every angle, as it is typed. */
function LimitRows({ views, form, noise, target }: LimitRowsProps) {
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
          draw: (t) => {
            const { value, onChange, error } = form.text(`limits.${fieldAt(t.aspecular)}`);
            return (
              <>
                <OutlinedInput
                  value={value}
                  onChange={onChange}
                  error={error !== undefined}
                  inputProps={{ 'aria-label': `Limit at ${t.aspecular} degrees`, inputMode: 'decimal' }}
                  sx={{ width: 70, '& input': { py: 0.75, px: 1, textAlign: 'right' } }}
                />
                {error ? (
                  <Typography variant="body2" role="alert" sx={{ color: 'error.main', whiteSpace: 'normal' }}>
                    {error}
                  </Typography>
                ) : null}
              </>
            );
          },
        },
        { head: 'target’s noise, dE00', figure: true, draw: (t) => `±${noise[target.indexOf(t)]!.toFixed(1)}` },
      ]}
    />
  );
}

type Keeps = ReturnType<TypedForm<TypedLimits>['keepBy']>;

interface LimitToolsProps {
  readonly meeting: Meeting;
  readonly form: TypedForm<TypedLimits>;
  readonly onMeeting: (next: Meeting) => Keeps;
  /** Keeps them for the whole family; undefined where they are the family's. */
  readonly onFamily: Keeps | undefined;
  readonly usualSource: string;
  readonly unproven: string | null;
  readonly family: FamilyRow;
}

/** How limits are met, and where they come from. */
function LimitTools({ meeting, form, onMeeting, onFamily, usualSource, unproven, family }: LimitToolsProps) {
  const { tones } = useTheme();
  const source = form.text('source');
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={meeting}
        aria-label="How it meets the rest"
        disabled={form.busy}
        onChange={(e, next: Meeting | null) => next && onMeeting(next)(e)}
      >
        <ToggleButton value="edge">Edge to edge</ToggleButton>
        <ToggleButton value="blend">Blended, {BLEND_WIDER}×</ToggleButton>
      </ToggleButtonGroup>
      <Field label="Where they come from" hint={source.value ? '' : `Empty: ${usualSource}`} {...source} />
      {unproven ? <Typography sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>{unproven}</Typography> : null}
      {form.failure ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {form.failure}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {form.changed ? (
          <Button type="submit" variant="outlined" disabled={form.busy}>
            Keep for this job
          </Button>
        ) : null}
        {onFamily ? (
          <Button variant="outlined" disabled={form.busy} onClick={onFamily}>
            Keep for every {family.name.toLowerCase()}
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}
