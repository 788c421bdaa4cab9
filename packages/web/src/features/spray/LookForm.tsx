import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { FAMILIES } from '@steady-gleam/core/finishes';
import type { EyeView, Verdict } from '@steady-gleam/core/letdown';
import { useState } from 'react';
import { Field } from '../../ui/Field';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddReadings, type PageDetail } from '../../shared/useJob';
import type { JobLog } from '../../shared/log/useLog';
import { VerdictRows } from '../card/RungPanel';
import type { Live } from './useLive';

/** A look at one place of the object: by eye from several sides, by a patch, or by readings. */
export function LookForm({ detail, live, log }: { detail: PageDetail; live: Live; log: Pick<JobLog, 'tell'> }) {
  const { job, card } = detail;
  const add = useAddReadings(job);
  const [spot, setSpot] = useState('');
  const [by, setBy] = useState<'eye' | 'readings'>('eye');
  const [state, setState] = useState<'wet' | 'cleared'>('wet');
  const { target } = live.count;
  const name = spot.trim() || 'all over';
  const sprayed = live.at(name);
  const here = live.seen.filter((s) => s.coats === sprayed && s.spot === name);
  const say = (view: EyeView, verdict: Verdict | null, hue: string | null, patch: number | null = null) =>
    log.tell({
      kind: 'look',
      cells: live.areaIds.map((areaId) => ({ coatId: live.layerIds[0] ?? '', areaId })),
      layerId: live.layerIds[0] ?? null,
      coats: sprayed,
      look: { spot: name, view, verdict, hue, patch },
    });
  return (
    <>
      <Typography variant="h2">
        {sprayed > 0 ? `A look after ${countCoats(sprayed)}` : 'Say how much is on, then look'}
      </Typography>
      <Field
        label="Where"
        value={spot}
        onChange={(e) => setSpot(e.target.value)}
        hint="For instance: nose, left side; empty for all over"
      />
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={by}
        aria-label="How it is judged"
        onChange={(_, v: typeof by | null) => v && setBy(v)}
      >
        <ToggleButton value="eye">By eye</ToggleButton>
        <ToggleButton value="readings" disabled={!target.length}>
          Readings
        </ToggleButton>
      </ToggleButtonGroup>
      {sprayed <= 0 ? (
        <Typography>Nothing has been sprayed yet.</Typography>
      ) : by === 'eye' ? (
        <>
          <Typography variant="body2">Wet or under a cleared patch, against what has to be matched:</Typography>
          <VerdictRows family={job.family} verdicts={here} onSay={say} />
          {FAMILIES[job.family].patches && card?.settings.patches ? (
            <Box role="group" aria-label="Contrast patch looks like the card’s at">
              <Typography variant="h3" component="div">
                the patch beside it looks like the card’s at
              </Typography>
              <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
                {card.rungs.map((n) => (
                  <ToggleButton
                    key={n}
                    value={n}
                    aria-label={`${sayCoats(n)} coats`}
                    selected={here.some((s) => s.patch === n)}
                    onChange={() => say('lamp', null, null, n)}
                  >
                    {sayCoats(n)}
                  </ToggleButton>
                ))}
              </Box>
            </Box>
          ) : null}
        </>
      ) : (
        <>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={state}
            aria-label="State of the film"
            onChange={(_, v: typeof state | null) => v && setState(v)}
          >
            <ToggleButton value="wet">wet</ToggleButton>
            <ToggleButton value="cleared" sx={{ px: 0.5, whiteSpace: 'nowrap' }}>
              dry, cleared patch
            </ToggleButton>
          </ToggleButtonGroup>
          <Typography variant="body2">
            {state === 'wet'
              ? 'Three spots or more. A dry, cleared patch of nine ends inside more often.'
              : 'Nine spots of it settle what wet film leaves open.'}
          </Typography>
          <ReadingsForm
            key={`${sprayed}/${name}`}
            state={state}
            kind="spot"
            rungCoats={sprayed}
            label={name}
            objectId={detail.objectId}
            angles={target}
            saveLabel="Keep this look"
            simulated={job.tryOut ? { jobId: job.id, areaIds: live.areaIds } : null}
            narrow
            known={detail.spots}
            onSave={(s) => add.mutateAsync(s)}
          />
        </>
      )}
    </>
  );
}
