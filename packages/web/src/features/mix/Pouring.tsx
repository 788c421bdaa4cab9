import { Box, Button, Typography, useTheme } from '@mui/material';
import { Field } from '../../ui/Field';
import { pouredWithin, type Held, type PourStands } from '@steady-gleam/core/devices';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import { useUnits } from '../../shared/units';
import { type PourNow } from './usePour';

export function Pouring({
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
export function Can({ onHold }: { onHold: (held: Held) => void }) {
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
export function TypedWeight({ onTyped }: { onTyped: (text: string) => void }) {
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
