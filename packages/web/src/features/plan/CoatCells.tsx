import { type ReactNode, useState } from 'react';
import { OutlinedInput, Typography } from '@mui/material';
import { coatEditSchema } from '@steady-gleam/contracts';
import { type CoatEdit, type PlannedCoat, sayCoat } from '@steady-gleam/core/spraying';
import type { Measure } from '@steady-gleam/core/units';
import { FIGURES } from '../../app/theme';
import { checkWith } from '../../shared/checkWith';
import { inPercent, numberIn } from '../../shared/numberIn';
import { useMeasureText, useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import type { JobWorked } from '../../shared/useJobWork';
import { STYLES } from '@steady-gleam/core/finishes';
import { sayAreas, type JobPlan, type SprayArea } from '@steady-gleam/core/jobs';

/** Decimals are those a painter sets or times by; what is typed is kept as typed. */
export const SETTINGS: readonly {
  key: keyof CoatEdit;
  label: string;
  measure?: Measure;
  percent?: boolean;
  width: number;
  decimals: number;
}[] = [
  { key: 'overlap', label: 'overlap, %', percent: true, width: 46, decimals: 0 },
  { key: 'distanceCm', label: 'distance', measure: 'distance', width: 52, decimals: 1 },
  { key: 'pressureBar', label: 'pressure', measure: 'pressure', width: 52, decimals: 2 },
  { key: 'turns', label: 'turns', width: 52, decimals: 2 },
  { key: 'tipMm', label: 'tip, mm', width: 48, decimals: 2 },
  { key: 'speedCmS', label: 'speed', measure: 'speed', width: 56, decimals: 1 },
  { key: 'flashMinutes', label: 'wait, min', width: 56, decimals: 1 },
];

/** A figure of a coat, typed as the painter does it. */
export function CoatField({
  coat,
  column,
  value,
  onKeep,
}: {
  coat: PlannedCoat;
  column: (typeof SETTINGS)[number];
  value: number;
  onKeep: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState('');
  const units = useUnits();
  const now = typed ?? String(Number((column.percent ? value * 100 : value).toFixed(column.decimals)));
  const { text, onText } = useMeasureText(column.measure ?? null, now, setTyped);
  const done = () => {
    if (typed === null) return;
    const number = column.percent ? numberIn(typed) / 100 : numberIn(typed);
    const found = checkWith(coatEditSchema, { [column.key]: number });
    const said = found.ok ? '' : found.faults[column.key]!;
    setFault(units.sentence(column.percent ? inPercent(said) : said));
    if (found.ok) onKeep(number);
  };
  return (
    <>
      <OutlinedInput
        value={text}
        onChange={(e) => onText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => e.key === 'Enter' && done()}
        error={!!fault}
        inputProps={{
          'aria-label': `${column.label} of ${coat.name} ${coat.number || coat.style}`,
          inputMode: 'decimal',
        }}
        sx={{ width: column.width, fontFamily: FIGURES, fontSize: 15, '& input': { px: 0.75, textAlign: 'right' } }}
      />
      {fault ? (
        <Typography variant="body2" role="alert" sx={{ color: 'error.main', maxWidth: 120, whiteSpace: 'normal' }}>
          {fault}
        </Typography>
      ) : null}
    </>
  );
}

interface CoatNameProps {
  readonly row: JobPlan['rows'][number];
  readonly order: readonly SprayArea[];
  readonly work: JobWorked;
  readonly laid: (coat: PlannedCoat) => ReactNode;
}

/** A coat by its name, how it is laid, and where it is not laid everywhere. */
export function CoatName({ row: { coat, cells }, order, work, laid }: CoatNameProps) {
  const wide = useWide();
  const units = useUnits();
  const ids = cells.map((c) => c.areaId);
  return (
    <>
      <Typography variant="h3" component="div">
        {coat.counted ? sayCoat(coat) : coat.name}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {STYLES[coat.style].name.toLowerCase()}
        {/* Narrow, the film stands here instead of in its column; that effect coats are walked is said above. */}
        {wide ? (coat.walk ? ', walked' : '') : `, ${units.say('film', coat.filmUm)}`}
        {cells.length < order.length ? `, ${sayAreas(work.plan, ids)} only` : ''}
      </Typography>
      {wide ? null : laid(coat)}
    </>
  );
}
