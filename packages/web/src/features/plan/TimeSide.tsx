import { Button, Checkbox, FormControlLabel, Typography, useTheme } from '@mui/material';
import { type Mixing, type SprayPlan, sprayPlanSchema } from '@steady-gleam/contracts';
import { BAKE_MINUTES, BEFORE_CLEAR } from '@steady-gleam/core/jobs';
import { DEW_MARGIN, type dewCheck } from '@steady-gleam/core/spraying';
import { useState } from 'react';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { checkWith, type Faults } from '../../shared/checkWith';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';

/** A time as the browser's own field takes it. */
const localText = (iso: string): string => {
  const at = new Date(iso);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

/** When it starts, what the surface is like, what is waited for before clear, and the bake. */
export function TimeSide({
  plan,
  set,
  mixing,
  dew,
  onSave,
}: {
  plan: SprayPlan;
  set: (more: Partial<SprayPlan>) => void;
  mixing: Mixing;
  dew: ReturnType<typeof dewCheck>;
  onSave: () => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const [typed, setTyped] = useState<{ start?: string; surface?: string; beforeClear?: string }>({});
  const [faults, setFaults] = useState<Faults>({});
  const change = (more: Partial<typeof plan>) => {
    const found = checkWith(sprayPlanSchema, { ...plan, ...more });
    setFaults(found.ok ? {} : found.faults);
    if (found.ok) set(more);
  };
  return (
    <>
      <Typography variant="h2">Today</Typography>
      <Field
        label="First coat at"
        type="datetime-local"
        value={typed.start ?? (plan.startAt ? localText(plan.startAt) : '')}
        onChange={(e) => {
          setTyped({ ...typed, start: e.target.value });
          const time = new Date(e.target.value);
          if (e.target.value === '') change({ startAt: null });
          else if (!Number.isNaN(time.getTime())) change({ startAt: time.toISOString() });
        }}
        hint="empty: now"
      />
      <MeasureField
        measure="temperature"
        label="Surface of the piece"
        value={typed.surface ?? (plan.surfaceC === null ? '' : String(plan.surfaceC))}
        onValue={(v) => {
          setTyped({ ...typed, surface: v });
          change({ surfaceC: v.trim() === '' ? null : numberIn(v) });
        }}
        error={faults['surfaceC']}
        hint={`empty: ${mixing.temperatureC} °C, as the booth`}
      />
      <Typography
        sx={dew.ok ? {} : { borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}
        role={dew.ok ? undefined : 'alert'}
      >
        Dew point {units.say('temperature', dew.dew)} at {Math.round(mixing.humidity * 100)} % humidity:{' '}
        {dew.ok
          ? 'the surface is well above it.'
          : `the surface must be ${DEW_MARGIN} °C above it. Do not spray; warm the piece or dry the air.`}
      </Typography>
      <Field
        label="Least wait before two-pack clear, min"
        value={typed.beforeClear ?? (plan.beforeClearMinutes === null ? '' : String(plan.beforeClearMinutes))}
        onChange={(e) => {
          setTyped({ ...typed, beforeClear: e.target.value });
          change({ beforeClearMinutes: e.target.value.trim() === '' ? null : numberIn(e.target.value) });
        }}
        error={faults['beforeClearMinutes']}
        hint={`empty: ${BEFORE_CLEAR} min over solvent or water base, common practice (no source); the sheet rules`}
      />
      <FormControlLabel
        control={<Checkbox checked={plan.bake} onChange={(e) => set({ bake: e.target.checked })} />}
        label={`Stand and bake at the end, ${BAKE_MINUTES} min`}
      />
      <Button variant="outlined" onClick={onSave}>
        Save for the calendar
      </Button>
      <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
        Bake only when the booth and every part allow it; stand first, or solvent pops. Flash until evenly dull, not
        only by the clock.
      </Typography>
    </>
  );
}
