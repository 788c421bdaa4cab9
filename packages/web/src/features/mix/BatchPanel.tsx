import { capital } from '../../shared/capital';
import { Box, Button, Typography, useTheme } from '@mui/material';
import type { Batch } from '@steady-gleam/contracts';
import { potState } from '@steady-gleam/core/mixing';
import { seedOf } from '@steady-gleam/core/numeric';
import { useState, type ReactNode } from 'react';
import { sayClock } from '../../app/PotClocks';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { countCoats } from '../../shared/jobModel';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import type { BatchPanelProps } from './batchProps';
import { BatchRow, BatchTakenOut } from './BatchHistory';
import { BatchFields, LotsAndNote } from './BatchFields';
import { BatchSide } from './BatchSide';
import { BatchTable, keptHabit } from './BatchTable';
import { OverPanel } from './OverPanel';
import { ScalePanel } from './ScalePanel';

const scaleSeed = (jobId: string): number => seedOf('scale', jobId);

/** One cup: what to pour to which mark, what the scale shows, and what was mixed before. */
export function BatchPanel(props: BatchPanelProps) {
  const { group, onSettings, mixed } = props;
  const { pours, need, plan } = props.work;
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow(10_000);
  const [habit, setHabit] = useState(keptHabit);
  const [over, setOver] = useState<number | null>(null);
  const [takenOut, setTakenOut] = useState<Batch | null>(null);

  const byWeight = pours.pours.every((p) => p.density !== undefined);
  const inUse = mixed.find((b) => b.endedAt === null);
  const pot = inUse ? potState(new Date(inUse.mixedAt).getTime(), inUse.potMinutes, now) : null;
  const blocked = pot?.state === 'over';
  const why: ReactNode = blocked
    ? `It was mixed ${Math.round((now - new Date(inUse!.mixedAt).getTime()) / 60_000)} min ago and sets after ${Math.round(inUse!.potMinutes!)}. Empty the cup, clean the gun, say below what was left, then mix fresh; thinning it does not bring it back.`
    : plan
      ? `${countCoats(group.coats)} on ${units.say('area', group.areaM2)} ${group.coats > 1 ? 'take' : 'takes'} about ${units.within('volume', need.ml, need.low, need.high)}: ${props.lands}.${props.hand ? ` Your card says you lay ${props.hand} of a nominal coat.` : ''}${group.coats > 1 ? ' One batch for all coats keeps them one colour.' : ''}`
      : 'Something below is not a figure yet.';
  return (
    <Bench side={<BatchSide {...props} inUse={inUse} blocked={blocked} />}>
      <Answer why={why}>
        {blocked
          ? `The pot life of ${group.name} is over: do not spray it.`
          : plan
            ? inUse
              ? `${capital(group.name)} is mixed${pot!.minutesLeft === null ? '' : `, ${sayClock(pot!.minutesLeft)} left`}.`
              : `Mix ${units.say('volume', plan.ml)} of ${group.kind === 'effect' || group.kind === 'ground' ? group.name : group.name.toLowerCase()}.`
            : 'One figure needs changing.'}
      </Answer>
      {props.tabs}
      {plan && byWeight && habit === 'scale' ? (
        <ScalePanel
          key={group.id}
          cup={`${props.jobId}.${group.id}`}
          seed={props.simulated ? scaleSeed(props.jobId) : null}
          plan={plan}
          onScale={(ml) => onSettings({ amount: String(ml) })}
        />
      ) : null}
      {plan ? (
        <BatchTable
          {...props}
          plan={plan}
          habit={habit}
          onHabit={setHabit}
          byWeight={byWeight}
          over={over}
          onOver={setOver}
        />
      ) : null}
      {byWeight ? null : (
        <Typography variant="body2" sx={{ mt: 1 }}>
          A density is missing, so this is by volume only. It can be entered with the product.
        </Typography>
      )}
      {pours.pours.some((p) => p.added) ? (
        <Typography role="status" sx={{ mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.25 }}>
          Added to the sheet’s parts: {pours.pours.flatMap((p) => (p.added ? [p.name] : [])).join(', ')}.{' '}
          <Button
            variant="text"
            color="inherit"
            onClick={props.onDropNudge}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            Take that out
          </Button>
        </Typography>
      ) : null}
      {pours.warnings.map((w) => (
        <Typography key={w} role="status" sx={{ mt: 1, borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          {units.sentence(w)}
        </Typography>
      ))}
      {/* A shorter ratio may have left the part out. */}
      {over !== null && plan?.parts[over] ? (
        <OverPanel
          key={over}
          pours={pours.pours}
          plan={plan}
          need={need.ml}
          index={over}
          byWeight={byWeight && habit === 'scale'}
          onScale={(ml) => {
            onSettings({ amount: String(ml) });
            setOver(null);
          }}
        />
      ) : null}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        {group.kind === 'effect'
          ? 'Stir the pearl or flake up from the bottom before it is poured, strain the dye, and stir again before every coat.'
          : group.kind === 'ground'
            ? 'Stir it up, strain it into the cup, and keep enough for the blend.'
            : 'Stir the tin, strain into the cup, stir two minutes after the hardener.'}{' '}
        Tap a part when too much went in or too little is there.
      </Typography>
      <BatchFields {...props} />
      {props.failure ? (
        <Typography role="alert" sx={{ color: 'error.main', mt: 1 }}>
          {props.failure}
        </Typography>
      ) : null}
      <LotsAndNote {...props} />
      {mixed.length ? (
        <>
          <Typography variant="h2" sx={{ mt: 1.5 }}>
            Mixed for this job
          </Typography>
          <Box component="ul" aria-label="Batches" sx={{ listStyle: 'none', p: 0, m: 0, maxWidth: 820 }}>
            {mixed.map((b) => (
              <BatchRow key={b.id} batch={b} onTaken={setTakenOut} />
            ))}
          </Box>
        </>
      ) : null}
      {takenOut ? <BatchTakenOut batch={takenOut} onBack={() => setTakenOut(null)} /> : null}
    </Bench>
  );
}
