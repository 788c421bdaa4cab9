import { Box, Typography, useTheme } from '@mui/material';
import { CAUSES, rankCauses, type Evidence, type Fault } from '@steady-gleam/core/faults';

/** Chance in words that do not say more than it is. */
const howOften = (chance: number): string => (chance > 0.55 ? 'most likely' : chance > 0.25 ? 'likely' : 'less likely');

/** What is known of a fault: its causes by the job's own record where there is one, and what to do about it. */
export function FaultCard({
  fault,
  evidence,
  large = false,
}: {
  fault: Fault;
  /** Null without a job. */
  evidence: readonly Evidence[] | null;
  large?: boolean;
}) {
  const { tones } = useTheme();
  const ranked = rankCauses(fault, evidence ?? []);
  const size = large ? 21 : 16;
  const line = (name: string, text: string | null, none: string) => (
    <Typography sx={{ fontSize: size, lineHeight: 1.3, mt: 0.75 }}>
      <b>{name}:</b> {text ?? none}
    </Typography>
  );
  return (
    <Box component="section" aria-label={fault.name}>
      <Typography sx={{ fontSize: size, lineHeight: 1.3 }}>{fault.told}</Typography>
      <Box component="ol" aria-label="Causes" sx={{ pl: 2.5, my: 1, fontSize: size }}>
        {ranked.map((c) => (
          <Box component="li" key={c.id} sx={{ mb: 0.5 }}>
            <b>
              {howOften(c.chance)}, {Math.round(c.chance * 100)} in 100:
            </b>{' '}
            {CAUSES[c.id].said}
            {c.why.length ? (
              <Box sx={{ borderLeft: `4px solid ${tones.pick}`, pl: 1 }}>By the log: {c.why.join('; ')}.</Box>
            ) : null}
            <Box sx={{ color: 'text.secondary' }}>Next time: {CAUSES[c.id].instead}.</Box>
          </Box>
        ))}
      </Box>
      {line('Before clear', fault.before, 'it only shows after it.')}
      {line('After clear', fault.after, 'it never gets that far.')}
      <Typography sx={{ fontSize: size, lineHeight: 1.3, mt: 0.75, borderLeft: `4px solid ${tones.danger}`, pl: 1 }}>
        {fault.never}
      </Typography>
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        {fault.caution}{' '}
        {evidence
          ? 'How often each cause is it, and what the log weighs, is ours.'
          : 'How often each cause is it is ours; in a job its own log says more.'}
      </Typography>
    </Box>
  );
}
