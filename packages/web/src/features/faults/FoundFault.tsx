import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { FAULT_WAYS, FAULTS, type Fault, type FaultWay } from '@steady-gleam/core/faults';
import type { JobPlan, JobState } from '@steady-gleam/core/jobs';
import { costOf, mendLayers, mendTold, momentOf, spotReaches, stepsOfFault } from '@steady-gleam/core/recovery';
import { useState } from 'react';
import type { JobLog } from '../../shared/log/useLog';
import { sayMinutes } from '../../shared/timeOfDay';
import { useUnits } from '../../shared/units';
import { TALL } from '../booth/boothStyles';
import { FaultCard } from './FaultCard';
import { useEvidence } from './useEvidence';

interface FoundProps {
  readonly detail: JobDetail;
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly log: Pick<JobLog, 'tell'>;
  /** Areas it may lie on. */
  readonly areaIds: readonly string[];
}

/** A fault that was found at a step of the run: that nothing goes over it, what its job's log says, and its ways out. */
export function FoundFault({
  reason,
  onRight,
  ...job
}: FoundProps & {
  reason: string;
  /** It was put right without a mend; left out where its check says so. */
  onRight?: () => void;
}) {
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
      {onRight ? (
        <Button variant="outlined" sx={{ ...TALL, mb: 1.5 }} onClick={onRight}>
          It is put right: go on
        </Button>
      ) : null}
      {known ? (
        <>
          <FaultWays fault={known} {...job} />
          <ByTheLog fault={known} {...job} />
        </>
      ) : null}
    </Box>
  );
}

function ByTheLog({ fault, detail, plan, state }: FoundProps & { fault: Fault }) {
  return <FaultCard fault={fault} evidence={useEvidence(detail, plan, state)} large />;
}

/** How wide a faulty place is, cm; ours. */
const USUAL_CM = 15;

/** The ways out there are now, each as steps of the run; where it lies is said by a tap. */
function FaultWays({ fault, detail, plan, state, log, areaIds }: FoundProps & { fault: Fault }) {
  const units = useUnits();
  const [areaId, setAreaId] = useState(areaIds[0] ?? '');
  const object = plan.areas.find((a) => a.id === areaId)?.objectId ?? '';
  const moment = momentOf(plan, state, detail.job.mixId, object, [areaId]);
  const ways = FAULT_WAYS[fault.id]?.[moment === 'finished' ? 'after' : 'before'] ?? [];
  const name = plan.areas.find((a) => a.id === areaId)?.name ?? '';
  const layers = mendLayers(plan, state, areaId);
  const offered = ways.flatMap((way: FaultWay) => {
    const steps = stepsOfFault(plan, layers, way, spotReaches(USUAL_CM, false, `the spot on ${name}`.slice(0, 40)));
    return steps.length ? [{ way, steps, cost: costOf(plan, [areaId], fault.name, steps) }] : [];
  });
  if (!offered.length) return null;
  return (
    <Box sx={{ mb: 1.5 }}>
      {areaIds.length > 1 ? (
        <Box role="group" aria-label="Where it lies" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1 }}>
          {areaIds.map((id) => (
            <Button
              key={id}
              variant={id === areaId ? 'contained' : 'outlined'}
              aria-pressed={id === areaId}
              sx={{ minHeight: 60, fontSize: 18 }}
              onClick={() => setAreaId(id)}
            >
              {plan.areas.find((a) => a.id === id)?.name}
            </Button>
          ))}
        </Box>
      ) : null}
      <Box role="group" aria-label="Ways out" sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        {offered.map(({ way, steps, cost }) => (
          <Button
            key={way.name}
            variant="outlined"
            sx={{ ...TALL, justifyContent: 'flex-start', textAlign: 'left', lineHeight: 1.15, display: 'block', py: 1 }}
            onClick={() =>
              log.tell(
                mendTold(
                  state,
                  [areaId],
                  {
                    ...{ way: 'fault' as const, spot: `${fault.name.toLowerCase()} on ${name}`.slice(0, 40) },
                    ...{ off: fault.name, steps },
                    views: steps.some((s) => s.is === 'coat') ? ['lamp', 'sun flop'] : [],
                  },
                  way.name,
                ),
              )
            }
          >
            <b>
              {way.name} on {name}
            </b>
            <Box component="span" sx={{ display: 'block', fontSize: 17, fontWeight: 400 }}>
              {steps.length} {steps.length === 1 ? 'step' : 'steps'} of the run
              {cost.coats
                ? `, ${cost.coats} ${cost.coats === 1 ? 'coat' : 'coats'}, ${units.say('volume', cost.ml)}`
                : ''}
              , {sayMinutes(cost.minutes)}
            </Box>
          </Button>
        ))}
      </Box>
    </Box>
  );
}
