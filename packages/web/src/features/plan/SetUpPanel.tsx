import { Box, Button, Typography, useTheme } from '@mui/material';
import { START_MIXING, type SprayPlan } from '@steady-gleam/contracts';
import { planAgainstCard } from '@steady-gleam/core/jobs';
import { setUpOf, type CoatEdit, type SetUpDifference, type SetUpFigure } from '@steady-gleam/core/spraying';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { useChangeJob, type PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';
import { useUnits, type Units } from '../../shared/units';

/** What a figure of a set-up is called, and how it is said in a shop. */
const FIGURE: Record<
  SetUpFigure,
  { readonly name: string; readonly say: (v: number, units: Pick<Units, 'say'>) => string }
> = {
  distanceCm: { name: 'distance', say: (v, units) => units.say('distance', v) },
  pressureBar: { name: 'pressure', say: (v, units) => units.say('pressure', v) },
  tipMm: { name: 'tip', say: (v) => `a ${v.toFixed(1)} mm tip` },
  overlap: { name: 'overlap', say: (v) => `${Math.round(v * 100)} % overlap` },
  turns: { name: 'needle', say: (v) => `${Number(v.toFixed(2))} turns` },
};

/** A difference in a sentence: what the card had, what the plan has, and what that lays. */
export function sayDifference(d: SetUpDifference, units: Pick<Units, 'say'>): string {
  const { what } = d;
  const say = (v: number | string): string =>
    typeof v === 'string' || what === 'gun' ? String(v) : FIGURE[what].say(v, units);
  const percent = d.lays === null ? 0 : Math.round((d.lays - 1) * 100);
  const lays = percent === 0 ? '' : ` A coat lays about ${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'}:`;
  return `The card was laid ${what === 'distanceCm' ? 'from' : 'with'} ${say(d.card)}, the plan has ${say(d.plan)}.${lays} ${lays ? 'the' : 'The'} count may not hold.`;
}

/** The edits without what was changed of a setting on the coats of a mix: the card's holds again. */
export function backToCard(
  edits: SprayPlan['edits'],
  key: SetUpFigure,
  coatIds: readonly string[],
): SprayPlan['edits'] {
  return Object.fromEntries(
    Object.entries(edits).flatMap(([id, edit]): [string, CoatEdit][] => {
      if (!coatIds.includes(id)) return [[id, edit]];
      const rest = Object.fromEntries(Object.entries(edit).filter(([k]) => k !== key)) as CoatEdit;
      return Object.keys(rest).length ? [[id, rest]] : [];
    }),
  );
}

/** The card's set-up, which is the plan's until the painter changes it; where they differ both are said, and the way back. */
export function SetUpPanel({
  detail,
  plan,
  set,
  work,
}: {
  detail: PageDetail;
  plan: SprayPlan;
  set: (more: Partial<SprayPlan>) => void;
  work: JobWorked;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job, card } = detail;
  const change = useChangeJob(job.id);
  const rows = work.plan.rows.filter(
    ({ coat, cells }) =>
      coat.counted &&
      coat.kind === 'effect' &&
      work.plan.layers.some((l) => l.id === cells[0]!.layerId && l.materialId === job.mixId),
  );
  const full = rows.find((r) => r.coat.style !== 'control' && r.coat.style !== 'half')?.coat;
  const half = rows.find((r) => r.coat.style === 'half')?.coat;
  if (!full) return null;
  const differ = card ? planAgainstCard(setUpOf(card), work.plan, job.mixId) : [];
  const cardGun = card && work.guns.find((g) => g.name === card.gun);
  const takeBack = (what: SetUpDifference['what']) => {
    if (what !== 'gun')
      set({
        edits: backToCard(
          plan.edits,
          what,
          rows.map((r) => r.coat.id),
        ),
      });
    else if (cardGun)
      change.mutate({ version: job.version, mixing: { ...(job.mixing ?? START_MIXING), gunId: cardGun.id } });
  };
  const line = (name: string, value: string) => (
    <Box
      key={name}
      sx={{ display: 'flex', justifyContent: 'space-between', borderBottom: `1px solid ${tones.hairline}`, py: 0.5 }}
    >
      <span>{name}</span>
      <Box sx={{ fontFamily: FIGURES }}>{value}</Box>
    </Box>
  );
  return (
    <Box component="section" aria-label="Set-up of the effect coats">
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {card && !differ.length ? 'As the card was sprayed' : 'How the effect is laid'}
      </Typography>
      {line('gun', work.gun.name)}
      {line('distance', units.say('distance', full.distanceCm))}
      {line('pressure', units.say('pressure', full.pressureBar))}
      {line('speed', units.say('speed', full.speedCmS))}
      {half ? line('half coat', units.say('speed', half.speedCmS)) : null}
      {differ.map((d) => (
        <Box key={d.what} role="status" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25, mt: 1 }}>
          <Typography>{sayDifference(d, units)}</Typography>
          {d.what === 'gun' && !cardGun ? null : (
            <Button variant="outlined" fullWidth sx={{ mt: 0.5 }} onClick={() => takeBack(d.what)}>
              Take the card’s {d.what === 'gun' ? 'gun' : FIGURE[d.what].say(d.card as number, units)}
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** On the card's side: where the job's plan lays its coats otherwise than the card, and the way to the plan. */
export function SetUpNotes({ detail, work }: { detail: PageDetail; work: JobWorked }) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job, card } = detail;
  if (!card) return null;
  const differ = planAgainstCard(setUpOf(card), work.plan, job.mixId);
  return differ.map((d) => (
    <Typography key={d.what} role="status" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
      {sayDifference(d, units)}{' '}
      <Link to={`/jobs/${job.id}/plan`} style={{ color: 'inherit' }}>
        Open the plan
      </Link>
    </Typography>
  ));
}
