import { Box, Button, Typography, useTheme } from '@mui/material';
import { rescueOverpour, type BatchPlan, type Pour } from '@steady-gleam/core/mixing';
import { useState } from 'react';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';

/** Too much of a part went in, or too little of it is there: what the others come to. */
export function OverPanel({
  pours,
  plan,
  need,
  index,
  byWeight,
  onScale,
}: {
  readonly pours: readonly Pour[];
  readonly plan: BatchPlan;
  /** What the job takes, ml. */
  readonly need: number;
  readonly index: number;
  /** Typed in grams; in ml otherwise. */
  readonly byWeight: boolean;
  readonly onScale: (ml: number) => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const [pouredText, setPoured] = useState('');
  const [thereText, setThere] = useState('');
  const part = plan.parts[index]!;
  const measure = byWeight ? ('mass' as const) : ('volume' as const);
  const amountOf = (p: { ml: number; grams: number | null }) => (byWeight ? p.grams! : p.ml);
  const toMl = (value: number) => (byWeight ? value / pours[index]!.density! : value);
  const poured = numberIn(pouredText);
  const there = toMl(numberIn(thereText));
  const saved = poured > 0 ? rescueOverpour(pours, plan.ml, index, toMl(poured)) : null;
  const makes = (plan.ml * there) / part.ml;
  return (
    <Box
      role="group"
      aria-label={`${part.name}: too much or too little`}
      sx={{ mt: 1, p: 1.25, background: tones.panel, border: `1px solid ${tones.hairline}`, maxWidth: 820 }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '220px 220px', gap: 2 }}>
        <MeasureField
          measure={measure}
          label="Really poured"
          value={pouredText}
          onValue={setPoured}
          error={pouredText.trim() && !(poured > 0) ? 'More than zero.' : undefined}
        />
        <MeasureField
          measure={measure}
          label="Only this much is there"
          value={thereText}
          onValue={setThere}
          error={thereText.trim() && !(there > 0) ? 'More than zero.' : undefined}
        />
      </Box>
      {poured > 0 ? (
        <Typography role="status" sx={{ mt: 1, fontSize: 18 }} data-testid="rescue">
          {saved
            ? `You poured ${units.say(measure, poured)} of ${units.say(measure, amountOf(part))}. Bring the others to: ${saved.parts
                .filter((p) => p.more > 0)
                .map((p) => `${p.name} ${units.say(measure, amountOf(p))} in all`)
                .join(', ')}. The batch is then ${units.say('volume', saved.ml)}.`
            : `That is not more than the ${units.say(measure, amountOf(part))} meant; pour the rest of it.`}
        </Typography>
      ) : null}
      {there > 0 ? (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 1 }}>
          <Typography role="status" sx={{ fontSize: 18 }}>
            {there >= part.ml
              ? 'That is enough for this batch.'
              : `It makes ${units.say('volume', makes)}${makes < need ? `, ${units.say('volume', need - makes)} short of what the job takes` : ''}.`}
          </Typography>
          {there < part.ml ? (
            <Button variant="outlined" onClick={() => onScale(Math.floor(makes))}>
              Scale to it
            </Button>
          ) : null}
        </Box>
      ) : null}
    </Box>
  );
}
