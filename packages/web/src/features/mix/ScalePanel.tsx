import { Box, Button, Typography, useTheme } from '@mui/material';
import type { BatchPlan } from '@steady-gleam/core/mixing';
import { type PourPhase } from '@steady-gleam/core/devices';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Simulated } from '../../shared/devices/Simulated';
import { useScale, type ScaleHeard } from '../../shared/devices/useScale';
import { beep } from '../booth/useSignals';
import { keptPour, usePour } from './usePour';
import { Pouring, Can, TypedWeight } from './Pouring';

const CALLED: Readonly<Record<PourPhase, string>> = {
  pour: 'Pour',
  slow: 'Slowly now',
  there: 'Stop',
  over: 'Too much',
  lifted: 'Less is on the scale than was in the cup',
  done: 'All is in',
};

/** The live scale: a bar to the next mark, called at the figure; what went over brings the others up. */
export function ScalePanel({
  cup,
  seed,
  plan,
  onScale,
}: {
  /** Of a job and a layer: under it the running total is kept. */
  cup: string;
  /** Of a try-out's simulated scale; null for the shop's own. */
  seed: number | null;
  plan: BatchPlan;
  /** The batch is to be so much, ml: what is short of the others follows. */
  onScale: (ml: number) => void;
}) {
  const { tones } = useTheme();
  const parts = useMemo(() => plan.parts.map((p) => ({ name: p.name, grams: p.grams ?? 0 })), [plan]);
  const [standsOn] = useState(() => startOf(cup, parts.length));
  const scale = useScale(seed, standsOn);
  const pour = usePour(cup, parts, scale.weighed);
  const { on, stands } = pour;
  useCalled(stands?.phase ?? null);
  return (
    <Box
      role="group"
      aria-label="On the scale"
      sx={{ border: `1px solid ${tones.hairline}`, background: tones.panel, p: 1.5, mb: 1.5, maxWidth: 820 }}
    >
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {stands && on ? `${CALLED[stands.phase]}: ${parts[on.index]!.name}` : 'On the scale'}
        </Typography>
        {seed === null ? null : <Simulated />}
        <Shown scale={scale} zero={on?.zero ?? 0} />
      </Box>
      {scale.fault ? (
        <Typography role="alert" sx={{ mt: 0.5, borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          {scale.fault}
          {on ? ` ${Math.round(10 * on.poured.reduce((s, v) => s + v, 0)) / 10} g are in the cup.` : ''}
        </Typography>
      ) : null}
      {scale.by === null ? (
        <Typography sx={{ mt: 0.5 }}>
          No scale is set up on this device: pour by the table, or{' '}
          <Link to="/shop/devices/scale" style={{ color: 'inherit' }}>
            set one up
          </Link>
          .
        </Typography>
      ) : null}
      {scale.connect ? (
        <Button variant="outlined" sx={{ mt: 1 }} onClick={scale.connect}>
          Connect the scale
        </Button>
      ) : null}
      {scale.typed ? <TypedWeight onTyped={scale.typed} /> : null}
      {stands && on ? (
        <Pouring
          parts={parts}
          stands={stands}
          pour={pour}
          ml={plan.ml}
          onScale={onScale}
          can={scale.hold ? <Can onHold={scale.hold} /> : null}
        />
      ) : scale.weighed ? (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 1 }}>
          <Button variant="contained" sx={{ minHeight: 52 }} disabled={!scale.weighed.stable} onClick={pour.begin}>
            The empty cup is on: begin
          </Button>
          <Typography variant="body2">The first is {parts[0]?.name}.</Typography>
        </Box>
      ) : null}
    </Box>
  );
}

/** What stands on the simulated scale when the page is opened again: the cup with what was in it, g. */
function startOf(cup: string, parts: number): number {
  const kept = keptPour(cup, parts);
  return kept ? kept.zero + kept.poured.reduce((s, v) => s + v, 0) : EMPTY_CUP_G;
}

/** A mixing cup weighs something; ours. */
const EMPTY_CUP_G = 38.6;

/** Three tones where the figure is reached, and where it is passed. */
function useCalled(phase: PourPhase | null): void {
  const before = useRef<PourPhase | null>(null);
  useEffect(() => {
    const was = before.current;
    before.current = phase;
    const calls = phase === 'there' || phase === 'over' || phase === 'done';
    if (!calls || was === phase || was === null || !('AudioContext' in globalThis)) return;
    beep();
  }, [phase]);
}

const noMinus = (grams: number): string => (Math.abs(grams) < 0.05 ? '0.0' : grams.toFixed(1));

/** What is on the scale, without the cup once one is begun. */
function Shown({ scale: { weighed }, zero }: { scale: ScaleHeard; zero: number }) {
  return (
    <Typography
      data-testid="scale-shows"
      sx={{ fontFamily: FIGURES, fontSize: 34, lineHeight: 1, fontWeight: 600, minWidth: 150, textAlign: 'right' }}
    >
      {weighed ? `${noMinus(weighed.grams - zero)} g` : '– g'}
      <Box component="span" sx={{ fontSize: 14, display: 'inline-block', width: 52, textAlign: 'left', pl: 0.75 }}>
        {weighed ? (weighed.stable ? 'rests' : 'moves') : ''}
      </Box>
    </Typography>
  );
}
