import { Box, Button, Typography, useTheme } from '@mui/material';
import type { SprayPlan } from '@steady-gleam/contracts';
import { setUpDifferences, type CoatEdit, type SetUpDifference } from '@steady-gleam/core';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import type { PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';
import { useUnits, type Units } from '../../shared/units';

/** A difference in a sentence: what the card had, what the plan has, and what that lays. */
export function sayDifference(d: SetUpDifference, units: Pick<Units, 'say'>): string {
  const say = (v: number | string): string =>
    typeof v === 'string' ? v : units.say(d.what === 'distance' ? 'distance' : 'pressure', v);
  const percent = d.lays === null ? 0 : Math.round((d.lays - 1) * 100);
  const lays = percent === 0 ? '' : ` A coat lays about ${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'}:`;
  return `The card was laid ${d.what === 'distance' ? 'from' : 'with'} ${say(d.card)}, the plan has ${say(d.plan)}.${lays} ${lays ? 'the' : 'The'} count may not hold.`;
}

/** The edits without what was changed of a setting on the coats of a mix: the card's holds again. */
export function backToCard(
  edits: SprayPlan['edits'],
  key: 'distanceCm' | 'pressureBar',
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
  const rows = work.plan.rows.filter(
    ({ coat, cells }) =>
      coat.counted &&
      coat.kind === 'effect' &&
      work.plan.layers.some((l) => l.id === cells[0]!.layerId && l.materialId === job.systemId),
  );
  const full = rows.find((r) => r.coat.style !== 'control' && r.coat.style !== 'half')?.coat;
  const half = rows.find((r) => r.coat.style === 'half')?.coat;
  if (!full) return null;
  const differ = card
    ? setUpDifferences({ ...card, distanceCm: card.settings.distanceCm }, work.plan, job.systemId)
    : [];
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
          {d.what === 'gun' ? null : (
            <Button
              variant="outlined"
              fullWidth
              sx={{ mt: 0.5 }}
              onClick={() =>
                set({
                  edits: backToCard(
                    plan.edits,
                    d.what === 'distance' ? 'distanceCm' : 'pressureBar',
                    rows.map((r) => r.coat.id),
                  ),
                })
              }
            >
              Take the card’s {units.say(d.what === 'distance' ? 'distance' : 'pressure', d.card as number)}
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
  const differ = setUpDifferences({ ...card, distanceCm: card.settings.distanceCm }, work.plan, job.systemId);
  return differ.map((d) => (
    <Typography key={d.what} role="status" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
      {sayDifference(d, units)}{' '}
      <Link to={`/jobs/${job.id}/plan`} style={{ color: 'inherit' }}>
        Open the plan
      </Link>
    </Typography>
  ));
}
