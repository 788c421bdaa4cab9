import { Box, Button, Link as MuiLink, Typography, useTheme } from '@mui/material';
import { type Batch, type BatchCorrection, batchesApi, batchPdfPath } from '@steady-gleam/contracts';
import { potState } from '@steady-gleam/core/mixing';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { ownZone } from '../../shared/clock';
import { ApiFailure, call } from '../../shared/apiClient';
import { sendLeft } from '../../shared/log/parcels';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits, type Units } from '../../shared/units';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import { sayUntaught, useBatches, useGuns, useShopChange } from '../../shared/useShop';
import { sayClock } from '../../app/PotClocks';

/** One batch that was mixed: how long it is good for, its papers, and what was left of it. */
export function BatchRow({ batch, onTaken }: { batch: Batch; onTaken: (batch: Batch) => void }) {
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow();
  const [left, setLeft] = useState(batch.leftMl === null ? '' : String(batch.leftMl));
  const [ml, setMl] = useState(String(Number(batch.ml.toFixed(1))));
  const [again, setAgain] = useState(false);
  const [fault, setFault] = useState('');
  const end = useShopChange('batches', (leftMl: number) => sendLeft(batch, leftMl));
  const correct = useShopChange('batches', (to: { ml: number; leftMl: number }) =>
    call(batchesApi.correct, { params: { id: batch.id }, body: { version: batch.version, ...to } }),
  );
  const remove = useShopChange('batches', (removed: boolean) =>
    call(batchesApi.remove, { params: { id: batch.id }, body: { version: batch.version, removed } }),
  );
  const pot = potState(new Date(batch.mixedAt).getTime(), batch.potMinutes, now);
  const open = batch.endedAt === null;
  const finish = () => {
    const value = numberIn(left);
    const mixed = again ? numberIn(ml) : batch.ml;
    if (!(mixed > 0)) return setFault('How much was mixed must be a number above 0.');
    if (!(value >= 0)) return setFault('What is left in the cup; 0 when it is empty.');
    if (value > mixed) return setFault('More can’t be left than was mixed.');
    setFault('');
    const then = {
      onSuccess: () => setAgain(false),
      onError: (error: Error) =>
        setFault(error instanceof ApiFailure ? (Object.values(error.fields)[0] ?? error.message) : String(error)),
    };
    if (again) correct.mutate({ ml: mixed, leftMl: value }, then);
    else end.mutate(value, then);
  };
  const used = batch.leftMl === null ? null : batch.ml - batch.leftMl;
  return (
    <Box
      component="li"
      sx={{
        borderTop: `1px solid ${tones.hairline}`,
        py: 1,
        display: 'flex',
        gap: 2,
        alignItems: 'flex-start',
        flexWrap: 'wrap',
      }}
    >
      <Box sx={{ flex: '1 1 250px' }}>
        <Typography variant="h3" component="div">
          {batch.name}, {units.say('volume', batch.ml)}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {timeSaid(new Date(batch.mixedAt).getTime(), now)}
          {batch.onCard ? ', on the card too' : ''}
          {batch.parts.some((p) => p.lot)
            ? `; lots ${batch.parts
                .filter((p) => p.lot)
                .map((p) => `${p.name} ${p.lot}`)
                .join(', ')}`
            : ''}
        </Typography>
        <Typography variant="body2">
          {open
            ? pot.state === 'over'
              ? 'Its pot life is over.'
              : pot.minutesLeft === null
                ? 'In use.'
                : `In use, ${sayClock(pot.minutesLeft)} left.`
            : batch.gunId === null
              ? `Used ${units.say('volume', used!)}. No gun was named, so it teaches none what lands.`
              : `Used ${units.say('volume', used!)}; planned ${units.say('volume', batch.solidMl / batch.volumeSolids)} on the piece.`}
        </Typography>
      </Box>
      <BatchActions
        batch={batch}
        remove={remove}
        // What was just said of it is shown before the server has answered; by then it is another version.
        isChanging={end.isPending || correct.isPending}
        onTaken={onTaken}
        open={open}
        again={again}
        setAgain={setAgain}
      />
      {batch.corrections.length ? (
        <Typography variant="body2" sx={{ flexBasis: '100%', color: 'text.secondary' }}>
          {batch.corrections.map((c) => sayCorrection(c, units, now)).join(' ')}
        </Typography>
      ) : null}
      {open && batch.gunId === null ? (
        <Typography variant="body2" sx={{ flexBasis: '100%', color: 'text.secondary' }}>
          No gun is named with it: what is left over will teach no gun what lands.
        </Typography>
      ) : null}
      {open || again ? (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end' }}>
          {again ? (
            <Box sx={{ width: 170 }}>
              <MeasureField measure="volume" label="Mixed" value={ml} onValue={setMl} />
            </Box>
          ) : null}
          <Box sx={{ width: 170 }}>
            <MeasureField
              measure="volume"
              label="Left over"
              value={left}
              onValue={setLeft}
              error={fault || undefined}
            />
          </Box>
          <Button
            variant="outlined"
            onClick={finish}
            disabled={end.isPending || correct.isPending}
            sx={{ mb: fault ? 4 : 0 }}
          >
            {open ? 'Finished' : 'Keep the correction'}
          </Button>
        </Box>
      ) : null}
    </Box>
  );
}

/** What a batch said until it was corrected. */
const sayCorrection = (c: BatchCorrection, units: Units, now: number): string =>
  `Until ${timeSaid(new Date(c.at).getTime(), now)} it said ${units.say('volume', c.ml)} mixed${c.leftMl === null ? '' : `, ${units.say('volume', c.leftMl)} left`}.`;

/** A batch that was just taken out, to be put back. */
export function BatchTakenOut({ batch, onBack }: { batch: Batch; onBack: () => void }) {
  const units = useUnits();
  const { data: batches = [] } = useBatches(batch.jobId);
  const { data: guns = [] } = useGuns();
  const gun = guns.find((g) => g.gun.id === batch.gunId)?.gun;
  const back = useShopChange('batches', () =>
    call(batchesApi.remove, { params: { id: batch.id }, body: { version: batch.version, removed: false } }),
  );
  return (
    <Typography role="status" sx={{ mt: 1 }}>
      {batch.name}, {units.say('volume', batch.ml)}, was taken out: it counts for no gun and no job.{' '}
      {sayUntaught(gun, batch, batches)}{' '}
      <Button
        variant="text"
        color="inherit"
        disabled={back.isPending}
        onClick={() => back.mutate(undefined, { onSuccess: onBack })}
        sx={{ px: 0.5, textDecoration: 'underline' }}
      >
        Put it back
      </Button>
      {back.error ? ` ${back.error.message}` : ''}
    </Typography>
  );
}

interface BatchActionsProps {
  readonly batch: Batch;
  readonly remove: {
    readonly isPending: boolean;
    readonly error: Error | null;
    readonly mutateAsync: (removed: boolean) => Promise<unknown>;
  };
  readonly isChanging: boolean;
  readonly onTaken: (batch: Batch) => void;
  readonly open: boolean;
  readonly again: boolean;
  readonly setAgain: Dispatch<SetStateAction<boolean>>;
}

/** Papers of a batch, and what can be done with it. */
function BatchActions({ batch, remove, isChanging, onTaken, open, again, setAgain }: BatchActionsProps) {
  const units = useUnits();
  return (
    <Box sx={{ display: 'flex', gap: 2, minHeight: 44, alignItems: 'center' }}>
      {(['label', 'sheet'] as const).map((size) => (
        <MuiLink
          key={size}
          href={batchPdfPath(batch.id, size, units.system, ownZone())}
          target="_blank"
          color="inherit"
          sx={{ py: 1.25 }}
        >
          {size === 'label' ? 'Label' : 'Batch sheet'}
        </MuiLink>
      ))}
      <Button
        variant="text"
        color="inherit"
        disabled={remove.isPending || isChanging}
        onClick={() =>
          void remove.mutateAsync(true).then(
            (b) => onTaken(b as Batch),
            () => undefined,
          )
        }
        sx={{ px: 0.5 }}
      >
        Take out
      </Button>
      {open || again ? null : (
        <Button variant="text" color="inherit" disabled={isChanging} onClick={() => setAgain(true)} sx={{ px: 0.5 }}>
          Correct it
        </Button>
      )}
      {remove.error ? (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
          {remove.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}
