import { Box, Button, Link as MuiLink, Typography, useTheme } from '@mui/material';
import { batchPdfPath, shopApi, type Batch } from '@steady-gleam/contracts';
import { potState } from '@steady-gleam/core';
import { useState } from 'react';
import { ownZone } from '../../shared/clock';
import { ApiFailure, call } from '../../shared/apiClient';
import { MeasureField } from '../../shared/MeasureField';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import { useShopChange } from '../../shared/useShop';
import { sayClock } from '../../app/PotClocks';

const clock = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** One batch that was mixed: how long it is good for, its papers, and what was left of it. */
export function BatchRow({ batch }: { batch: Batch }) {
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow();
  const [left, setLeft] = useState('');
  const [fault, setFault] = useState('');
  const end = useShopChange('batches', (leftMl: number) =>
    call(shopApi.endBatch, { params: { id: batch.id }, body: { version: batch.version, leftMl } }),
  );
  const pot = potState(new Date(batch.mixedAt).getTime(), batch.potMinutes, now);
  const open = batch.endedAt === null;
  const finish = () => {
    const value = left.trim() === '' ? NaN : Number(left.replace(',', '.'));
    if (!(value >= 0)) return setFault('What is left in the cup; 0 when it is empty.');
    if (value > batch.ml) return setFault('More can’t be left than was mixed.');
    setFault('');
    end.mutate(value, {
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
          {clock.format(new Date(batch.mixedAt))}
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
      </Box>
      {open ? (
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
            Finished
          </Button>
        </Box>
      ) : null}
    </Box>
  );
}
