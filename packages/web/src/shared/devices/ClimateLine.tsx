import { Box, Button, Typography, useTheme } from '@mui/material';
import type { Job } from '@steady-gleam/contracts';
import { START_MIXING } from '@steady-gleam/contracts';
import type { Climate } from '@steady-gleam/core/devices';
import { DEW_MARGIN, dewCheck } from '@steady-gleam/core/spraying';
import { useUnits } from '../units';
import { Simulated } from './Simulated';
import { useClimate } from './useClimate';

/** So far may the air be from what the plan counts on before that is said, C and fraction; ours. */
const [APART_C, APART_HUMIDITY] = [1, 0.05] as const;

/** Whether the plan counts on other air than there is. */
export const isOther = (climate: Climate, on: { readonly temperatureC: number; readonly humidity: number }): boolean =>
  Math.abs(climate.airC - on.temperatureC) >= APART_C || Math.abs(climate.humidity - on.humidity) >= APART_HUMIDITY;

/** What the thermometer says, what the plan counts on, and the dew point; nothing where there is no thermometer. */
export function ClimateLine({
  job,
  large = false,
  onUse,
}: {
  job: Job;
  /** Read from an arm’s length. */
  large?: boolean;
  /** The plan is to count on it; left out where it can't be changed. */
  onUse?: (climate: Climate) => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { climate, fault, by, connect } = useClimate(job.tryOut ? job.id : null);
  if (by === null) return null;
  const on = job.mixing ?? START_MIXING;
  const dew = climate && dewCheck(climate.airC, climate.humidity, climate.surfaceC ?? climate.airC);
  const apart = climate !== null && isOther(climate, on);
  return (
    <Box role="group" aria-label="The thermometer" sx={{ fontSize: large ? 19 : 'inherit', my: large ? 0 : 0.75 }}>
      <Box sx={{ display: 'flex', gap: 1.25, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ fontSize: 'inherit' }} data-testid="climate">
          {climate
            ? `Now ${units.say('temperature', climate.airC)}, ${Math.round(100 * climate.humidity)} % humidity${climate.surfaceC === null ? '' : `, the part ${units.say('temperature', climate.surfaceC)}`}`
            : 'The thermometer has said nothing yet'}
          {apart
            ? `; the plan counts on ${units.say('temperature', on.temperatureC)}, ${Math.round(100 * on.humidity)} %`
            : ''}
          .
        </Typography>
        {by === 'simulated' ? <Simulated /> : null}
        {climate && apart && onUse ? (
          <Button variant="outlined" onClick={() => onUse(climate)}>
            Plan with it
          </Button>
        ) : null}
        {connect ? (
          <Button variant="outlined" onClick={connect}>
            Connect the thermometer
          </Button>
        ) : null}
      </Box>
      {dew && !dew.ok ? (
        <Typography role="alert" sx={{ fontSize: 'inherit', borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          The part is {units.say('temperature', Math.max(0, dew.clears))} above the dew point; it has to be {DEW_MARGIN}
          : warm it or dry the air before anything is sprayed.
        </Typography>
      ) : null}
      {fault ? (
        <Typography role="status" sx={{ fontSize: 'inherit' }}>
          {fault}
        </Typography>
      ) : null}
    </Box>
  );
}

/** What becomes of a job's weather when the plan is to count on what is measured. */
export const mixingWith = (job: Pick<Job, 'mixing'>, climate: Climate) => ({
  ...(job.mixing ?? START_MIXING),
  temperatureC: climate.airC,
  humidity: climate.humidity,
});
