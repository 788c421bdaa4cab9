import { Box, Button, Typography, useTheme } from '@mui/material';
import { Field } from '../../ui/Field';
import type { BatchPlan } from '@steady-gleam/core/mixing';
import { pouredWithin, type Held, type PourPhase, type PourStands } from '@steady-gleam/core/devices';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Simulated } from '../../shared/devices/Simulated';
import { useScale, type ScaleHeard } from '../../shared/devices/useScale';
import { useUnits } from '../../shared/units';
import { beep } from '../booth/useSignals';
import { keptPour, usePour, type PourNow } from './usePour';

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

function Pouring({
  parts,
  stands,
  pour,
  ml,
  onScale,
  can,
}: {
  parts: readonly { readonly name: string }[];
  stands: PourStands;
  pour: PourNow;
  ml: number;
  onScale: (ml: number) => void;
  /** What is poured from, on the simulated scale. */
  can: ReactNode;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { phase, shown, meant, grown, mark } = stands;
  const left = meant - shown;
  const share = Math.min(1, meant > 0 ? shown / meant : 0);
  const stops = phase === 'there' || phase === 'over' || phase === 'done';
  const following = parts.flatMap((p, i) =>
    i !== pour.on!.index && stands.allMeant[i]! > pour.on!.poured[i]! + pouredWithin(stands.allMeant[i]!)
      ? [`${p.name} ${units.say('mass', stands.allMeant[i]!)} in all`]
      : [],
  );
  return (
    <>
      <Box
        role="progressbar"
        aria-label="Poured of this part"
        aria-valuenow={Math.round(100 * share)}
        aria-valuemin={0}
        aria-valuemax={100}
        sx={{
          position: 'relative',
          height: 56,
          mt: 1,
          bgcolor: 'background.default',
          border: `1px solid ${tones.ink}`,
        }}
      >
        <Box
          data-testid="pour-bar"
          sx={{
            ...{ position: 'absolute', left: 0, top: 0, bottom: 0, width: '100%', transformOrigin: 'left' },
            background: phase === 'over' ? tones.danger : stops ? tones.ink : tones.pick,
          }}
          style={{ transform: `scaleX(${share})` }}
        />
        <Box sx={{ position: 'absolute', left: '90%', top: 0, bottom: 0, borderLeft: `2px dashed ${tones.ink}` }} />
      </Box>
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'baseline', mt: 0.75, flexWrap: 'wrap' }}>
        <Typography role="status" data-testid="pour-says" sx={{ fontSize: 26, fontWeight: 700, flex: 1 }}>
          {phase === 'lifted'
            ? 'Set the cup back on.'
            : phase === 'over'
              ? `${units.say('mass', shown)} of ${units.say('mass', meant)}: ${units.say('mass', shown - meant)} too much.`
              : stops
                ? `${units.say('mass', shown)} of ${units.say('mass', meant)} are in.`
                : `${units.say('mass', Math.max(0, left))} to go.`}
        </Typography>
        {stops ? null : <Typography sx={{ fontFamily: FIGURES }}>in the cup then {units.say('mass', mark)}</Typography>}
      </Box>
      {can}
      <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
        {phase === 'lifted' ? (
          <Button variant="outlined" sx={{ minHeight: 52 }} onClick={pour.goOn}>
            It was tared: go on from here
          </Button>
        ) : (
          <Button
            variant={stops ? 'contained' : 'outlined'}
            sx={{ minHeight: 52 }}
            disabled={phase === 'done' && grown <= 1}
            onClick={() => {
              if (grown > 1) onScale(Math.round(ml * grown * 10) / 10);
              pour.next();
            }}
          >
            {grown > 1
              ? `Go on with ${units.say('volume', ml * grown)}`
              : phase === 'done'
                ? 'Everything is in: stir it'
                : 'Next part'}
          </Button>
        )}
        <Button variant="text" color="inherit" sx={{ minHeight: 52 }} onClick={pour.empty}>
          Begin this cup anew
        </Button>
      </Box>
      {/* Below all that is held or tapped: nothing may move under a finger. */}
      {phase === 'over' || grown > 1 ? (
        <Typography role="status" data-testid="pour-rescue" sx={{ mt: 0.5, fontSize: 18 }}>
          Nothing comes out again: the others follow, and the batch is {units.say('volume', ml * grown)}.
          {following.length ? ` Bring to: ${following.join(', ')}.` : ''}
        </Typography>
      ) : null}
    </>
  );
}

/** The can over the simulated scale: it runs while it is held, and dribbles after. */
function Can({ onHold }: { onHold: (held: Held) => void }) {
  useEffect(() => () => onHold('up'), [onHold]);
  return (
    <Box role="group" aria-label="The can" sx={{ display: 'flex', gap: 1, mt: 1, maxWidth: 520 }}>
      <CanButton how="pour" onHold={onHold}>
        Hold to pour
      </CanButton>
      <CanButton how="drip" onHold={onHold}>
        Hold to drip
      </CanButton>
    </Box>
  );
}

function CanButton({ how, onHold, children }: { how: Held; onHold: (held: Held) => void; children: string }) {
  const isHeld = useRef(false);
  const tilt = () => {
    isHeld.current = true;
    onHold(how);
  };
  // The other button loses the focus when this one is pressed: that lifts nothing.
  const up = () => {
    if (isHeld.current) onHold('up');
    isHeld.current = false;
  };
  return (
    <Button
      variant="outlined"
      sx={{ minHeight: 64, flex: 1, fontSize: 18, touchAction: 'none' }}
      onPointerDown={tilt}
      onPointerUp={up}
      onPointerLeave={up}
      onPointerCancel={up}
      onBlur={up}
      onKeyDown={(e) => {
        if (e.key === ' ' || e.key === 'Enter') tilt();
      }}
      onKeyUp={up}
    >
      {children}
    </Button>
  );
}

/** A scale that types like a keyboard: its key puts the weight here. */
function TypedWeight({ onTyped }: { onTyped: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <Box sx={{ mt: 1, maxWidth: 420 }}>
      <Field
        label="Leave the cursor here and press the scale’s key"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== 'Tab') return;
          e.preventDefault();
          onTyped(text);
          setText('');
        }}
      />
    </Box>
  );
}
