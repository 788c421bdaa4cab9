import { Box, Button, Link as MuiLink, Typography, useTheme } from '@mui/material';
import { type Batch, batchesApi, batchPdfPath } from '@steady-gleam/contracts';
import { potState } from '@steady-gleam/core/mixing';
import { useState } from 'react';
import { ownZone } from '../../shared/clock';
import { ApiFailure, call } from '../../shared/apiClient';
import { MeasureField } from '../../shared/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import { useShopChange } from '../../shared/useShop';
import { sayClock } from '../../app/PotClocks';

/** One batch that was mixed: how long it is good for, its papers, and what was left of it. */
export function BatchRow({ batch, onTaken }: { batch: Batch; onTaken: (batch: Batch) => void }) {
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow();
  const [left, setLeft] = useState(batch.leftMl === null ? '' : String(batch.leftMl));
  const [again, setAgain] = useState(false);
  const [fault, setFault] = useState('');
  const end = useShopChange('batches', (leftMl: number) =>
    call(batchesApi.end, { params: { id: batch.id }, body: { version: batch.version, leftMl } }),
  );
  const remove = useShopChange('batches', (removed: boolean) =>
    call(batchesApi.remove, { params: { id: batch.id }, body: { version: batch.version, removed } }),
  );
  const pot = potState(new Date(batch.mixedAt).getTime(), batch.potMinutes, now);
  const open = batch.endedAt === null;
  const finish = () => {
    const value = numberIn(left);
    if (!(value >= 0)) return setFault('What is left in the cup; 0 when it is empty.');
    if (value > batch.ml) return setFault('More can’t be left than was mixed.');
    setFault('');
    end.mutate(value, {
      onSuccess: () => setAgain(false),
      onError: (error) =>
        setFault(error instanceof ApiFailure ? (error.fields['leftMl'] ?? error.message) : String(error)),
    });
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
          disabled={remove.isPending}
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
          <Button variant="text" color="inherit" onClick={() => setAgain(true)} sx={{ px: 0.5 }}>
            Correct what was left
          </Button>
        )}
        {remove.error ? (
          <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
            {remove.error.message}
          </Typography>
        ) : null}
      </Box>
      {open && batch.gunId === null ? (
        <Typography variant="body2" sx={{ flexBasis: '100%', color: 'text.secondary' }}>
          No gun is named with it: what is left over will teach no gun what lands.
        </Typography>
      ) : null}
      {open || again ? (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end' }}>
          <Box sx={{ width: 170 }}>
            <MeasureField
              measure="volume"
              label="Left over"
              value={left}
              onValue={setLeft}
              error={fault || undefined}
            />
          </Box>
          <Button variant="outlined" onClick={finish} disabled={end.isPending} sx={{ mb: fault ? 4 : 0 }}>
            {open ? 'Finished' : 'Keep the correction'}
          </Button>
        </Box>
      ) : null}
    </Box>
  );
}

/** A batch that was just taken out, to be put back. */
export function BatchTakenOut({ batch, onBack }: { batch: Batch; onBack: () => void }) {
  const units = useUnits();
  const back = useShopChange('batches', () =>
    call(batchesApi.remove, { params: { id: batch.id }, body: { version: batch.version, removed: false } }),
  );
  return (
    <Typography role="status" sx={{ mt: 1 }}>
      {batch.name}, {units.say('volume', batch.ml)}, was taken out: it counts for no gun and no job.{' '}
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
