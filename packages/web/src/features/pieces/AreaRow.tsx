import type { ReactNode } from 'react';
import { Box, Button, Checkbox, FormControlLabel, useTheme } from '@mui/material';
import type { Area } from '@steady-gleam/contracts';
import { CLEAR_STATES, type ClearState } from '@steady-gleam/core/finishes';
import { pieceArea } from '@steady-gleam/core/mixing';
import { FIGURES } from '../../app/theme';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { useUnits } from '../../shared/units';
import { areaTyped, SHAPES, type TypedArea } from './piecesModel';

interface AreaRowProps {
  readonly typed: TypedArea;
  /** Path of its faults. */
  readonly path: string;
  readonly fault: (path: string) => string | undefined;
  readonly finishes: readonly { readonly id: string; readonly name: string }[];
  /** Areas of its object it may lie on. */
  readonly below: readonly { readonly id: string; readonly name: string }[];
  readonly last: boolean;
  readonly onChange: (next: TypedArea) => void;
  readonly onOut: () => void;
}

/** One area: its size by shape, how it is hung, and what it gets. */
export function AreaRow({ typed: t, path, fault, finishes, below, last, onChange, onOut }: AreaRowProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const m2 = pieceArea(areaTyped(t));
  const set = (more: Partial<Area>) => onChange({ ...t, area: { ...t.area, ...more } });
  const tick = (label: string, checked: boolean, on: (v: boolean) => void) => (
    <FormControlLabel
      control={<Checkbox checked={checked} onChange={(e) => on(e.target.checked)} />}
      label={label}
      slotProps={{ typography: { sx: { fontSize: 14 } } }}
    />
  );
  return (
    <Box
      role="group"
      aria-label={t.area.name || 'New area'}
      sx={{ borderTop: `1px solid ${tones.hairline}`, py: 0.75 }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: {
            // On a tablet name and shape stand above the figures.
            xs: 'repeat(3, minmax(76px, 1fr)) 56px 86px 74px',
            lg: 'minmax(150px, 1.5fr) 130px repeat(3, minmax(76px, 1fr)) 56px 82px 74px',
          },
          '& > div:nth-of-type(-n+2)': { gridColumn: { xs: 'span 3', lg: 'auto' } },
          gap: 1,
          alignItems: 'start',
        }}
      >
        <Field
          label="Area"
          value={t.area.name}
          onChange={(e) => set({ name: e.target.value })}
          error={fault(`${path}.name`)}
        />
        <Field
          label="Shape"
          select
          value={t.area.shape}
          onChange={(e) => set({ shape: e.target.value as Area['shape'] })}
        >
          {Object.entries(SHAPES).map(([id, s]) => (
            <option key={id} value={id}>
              {s.name}
            </option>
          ))}
        </Field>
        {SHAPES[t.area.shape].asks.map(([name, label, measure]) => (
          <MeasureField
            key={name}
            measure={measure}
            label={label}
            value={t.measures[name] ?? ''}
            onValue={(v) => onChange({ ...t, measures: { ...t.measures, [name]: v } })}
            error={fault(`${path}.measures.${name}`)}
          />
        ))}
        {Array.from({ length: 3 - SHAPES[t.area.shape].asks.length }, (_, k) => (
          <span key={k} />
        ))}
        <Field
          label="Alike"
          value={t.count}
          onChange={(e) => onChange({ ...t, count: e.target.value })}
          error={fault(`${path}.count`)}
          decimal
        />
        <Box sx={{ fontFamily: FIGURES, textAlign: 'right', pt: '36px', whiteSpace: 'nowrap' }}>
          {m2 === null ? '–' : units.say('area', m2)}
        </Box>
        <Button
          variant="text"
          color="inherit"
          disabled={last}
          aria-label={`Take out ${t.area.name}`}
          onClick={onOut}
          sx={{ px: 0.5, mt: '26px', fontSize: 14 }}
        >
          Take out
        </Button>
      </Box>
      <AreaTicks tick={tick} t={t} set={set} below={below} fault={fault} path={path} finishes={finishes} />
    </Box>
  );
}

interface AreaTicksProps {
  readonly tick: (label: string, checked: boolean, on: (v: boolean) => void) => ReactNode;
  readonly t: TypedArea;
  readonly set: (more: Partial<Area>) => void;
  readonly below: readonly { readonly id: string; readonly name: string }[];
  readonly fault: (path: string) => string | undefined;
  readonly path: string;
  readonly finishes: readonly { readonly id: string; readonly name: string }[];
}

/** How an area is treated apart from the others. */
function AreaTicks({ tick, t, set, below, fault, path, finishes }: AreaTicksProps) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'end', gap: 1.5 }}>
      {tick('jamb or edge, sprayed first', t.area.first, (first) => set({ first }))}
      {tick('loose, on a stand', t.area.mounting === 'stand', (on) => set({ mounting: on ? 'stand' : 'object' }))}
      <Box sx={{ width: 130 }}>
        <Field
          label="Clear on it"
          select
          value={t.area.clear}
          onChange={(e) => set({ clear: e.target.value as ClearState })}
        >
          {CLEAR_STATES.map((c) => (
            <option key={c} value={c}>
              {c}
            </option>
          ))}
        </Field>
      </Box>
      {below.length || t.area.on !== null ? (
        <Box sx={{ width: 236 }}>
          <Field
            label="Masked on"
            select
            value={t.area.on ?? ''}
            onChange={(e) => set({ on: e.target.value || null })}
            error={fault(`${path}.on`)}
          >
            <option value="">nothing: an area of its own</option>
            {below.map((b) => (
              <option key={b.id} value={b.id}>
                {b.name}
              </option>
            ))}
          </Field>
        </Box>
      ) : null}
      {finishes.length > 1 ? (
        <Box sx={{ width: 190 }}>
          <Field
            label="Finish"
            select
            value={t.area.finishId ?? finishes[0]!.id}
            onChange={(e) => set({ finishId: e.target.value === finishes[0]!.id ? null : e.target.value })}
          >
            {finishes.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </Field>
        </Box>
      ) : null}
    </Box>
  );
}
