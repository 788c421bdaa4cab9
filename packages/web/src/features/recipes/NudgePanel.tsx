import { Box, Button, NativeSelect, Typography, useTheme } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { remarkToLabs, type EffectSystem, type Lab, type Remark, type TargetAngle } from '@steady-gleam/core';
import { useState } from 'react';
import { FlopStrip } from '../../shared/FlopStrip';
import { rungReadingsOf, sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import type { Mix } from '../../worker/compute';
import { useCompute } from '../../worker/useCompute';
import { sayNudge } from './recipesModel';

const VIEWS: readonly Remark['view'][] = ['face', 'flop', 'all over'];
const AMOUNTS: readonly Remark['amount'][] = ['a touch', 'clearly', 'far'];
const OFFS: readonly Remark['off'][] = [
  'redder',
  'yellower',
  'greener',
  'bluer',
  'lighter',
  'darker',
  'stronger',
  'weaker',
];

interface NudgePanelProps {
  readonly mix: Mix;
  readonly groundId: string;
  readonly coats: number;
  readonly target: readonly TargetAngle[];
  readonly rungs: readonly ReadingSet[];
  readonly system: EffectSystem;
}

/** A sprayed card that is off, said in words or read: which toner, how much, half first. */
export function NudgePanel({ mix, groundId, coats, target, rungs, system }: NudgePanelProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const [remark, setRemark] = useState<Remark>({ view: 'face', off: 'redder', amount: 'a touch' });
  const [said, setSaid] = useState<readonly Remark[]>([]);
  const [rung, setRung] = useState<number | null>(null);
  const read = rungReadingsOf(rungs, target).filter((r) => r.labs.every((lab) => lab !== null));
  const fromRung = read.find((r) => r.coats === rung);
  const card: readonly Lab[] | null = fromRung
    ? (fromRung.labs as readonly Lab[])
    : said.length
      ? remarkToLabs(target, said)
      : null;
  const count = fromRung?.coats ?? coats;
  const { value, stale } = useCompute(card ? JSON.stringify([mix, groundId, count, target, card]) : null, (c) =>
    c.nudge(mix, groundId, count, target, card!).then((nudge) => ({ nudge })),
  );
  const advice = card && value && !stale ? sayNudge(value.nudge, system, library) : null;
  const select = <T extends string>(label: string, value: T, all: readonly T[], set: (v: T) => void) => (
    <NativeSelect
      value={value}
      onChange={(e) => set(e.target.value as T)}
      inputProps={{ 'aria-label': label }}
      sx={{ minHeight: 44, fontSize: 15 }}
    >
      {all.map((v) => (
        <option key={v} value={v}>
          {v}
        </option>
      ))}
    </NativeSelect>
  );
  return (
    <>
      <Box>
        <Typography variant="h2">A sprayed card is off?</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Say how it differs from the target, or take a rung you read.
        </Typography>
      </Box>
      {read.length ? (
        <Box role="group" aria-label="Rungs read" sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          {read.map((r) => (
            <Button
              key={r.coats}
              variant="outlined"
              aria-pressed={rung === r.coats}
              onClick={() => setRung(rung === r.coats ? null : r.coats)}
              sx={
                rung === r.coats
                  ? { background: tones.ink, color: tones.page, '&:hover': { background: tones.ink } }
                  : {}
              }
            >
              rung {sayCoats(r.coats)}
            </Button>
          ))}
        </Box>
      ) : null}
      {fromRung ? null : (
        <Box
          component="form"
          aria-label="How the card is off"
          onSubmit={(e) => {
            e.preventDefault();
            setSaid([...said.filter((s) => s.view !== remark.view || s.off !== remark.off), remark]);
          }}
          sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}
        >
          {select('How much', remark.amount, AMOUNTS, (amount) => setRemark({ ...remark, amount }))}
          {select('Off which way', remark.off, OFFS, (off) => setRemark({ ...remark, off }))}
          {select('Seen where', remark.view, VIEWS, (view) => setRemark({ ...remark, view }))}
          <Button type="submit" variant="outlined">
            Say it
          </Button>
        </Box>
      )}
      {fromRung || !said.length ? null : (
        <Box component="ul" aria-label="What was said" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {said.map((s) => (
            <Box
              component="li"
              key={`${s.view}/${s.off}`}
              sx={{
                display: 'flex',
                alignItems: 'center',
                justifyContent: 'space-between',
                borderBottom: `1px solid ${tones.hairline}`,
              }}
            >
              The card is {s.amount} {s.off}, {s.view}
              <Button
                variant="text"
                color="inherit"
                onClick={() => setSaid(said.filter((o) => o !== s))}
                sx={{ px: 1 }}
              >
                Unsay
              </Button>
            </Box>
          ))}
        </Box>
      )}
      {advice ? (
        <Box aria-live="polite" data-testid="nudge">
          <Typography variant="h2">{advice.answer}</Typography>
          <Typography sx={{ mt: 0.5 }}>{advice.why}</Typography>
        </Box>
      ) : null}
      {advice && value?.nudge ? (
        <FlopStrip
          angles={target.map((t) => t.aspecular)}
          target={target.map((t) => t.lab)}
          sample={value.nudge.full.labs}
          height={84}
          label="Target over the corrected card, predicted"
        />
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 'auto' }}>
        Parts by volume. Strengths of toners outside the mix are invented for the demo: weigh by your own, and spray a
        card before the piece.
      </Typography>
    </>
  );
}
