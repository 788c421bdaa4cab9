import { Box, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { FAULTS, type Fault } from '@steady-gleam/core/faults';
import type { JobPlan, JobState } from '@steady-gleam/core/jobs';
import { FaultCard } from './FaultCard';
import { useEvidence } from './useEvidence';

interface FoundProps {
  readonly detail: JobDetail;
  readonly plan: JobPlan;
  readonly state: JobState;
}

/** A fault that was found at a step of the run: that nothing goes over it, and what is known of it by this job's log. */
export function FoundFault({ reason, ...job }: FoundProps & { reason: string }) {
  const { tones } = useTheme();
  const known = FAULTS.find((f) => f.name === reason);
  return (
    <Box sx={{ mt: 2, maxWidth: 720 }}>
      <Typography
        role="alert"
        sx={{
          fontSize: 24,
          lineHeight: 1.3,
          borderLeft: `4px solid ${tones.danger}`,
          pl: 1.5,
          mb: 1.5,
          maxWidth: '46ch',
        }}
      >
        Found: {reason}. Put it right before anything goes over it, then go on.
      </Typography>
      {known ? <ByTheLog fault={known} {...job} /> : null}
    </Box>
  );
}

function ByTheLog({ fault, detail, plan, state }: FoundProps & { fault: Fault }) {
  return <FaultCard fault={fault} evidence={useEvidence(detail, plan, state)} large />;
}
