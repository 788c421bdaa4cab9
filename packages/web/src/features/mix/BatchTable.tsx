import type { BatchPlan } from '@steady-gleam/core/mixing';
import { Button, ToggleButton, ToggleButtonGroup, useTheme } from '@mui/material';
import { useUnits } from '../../shared/units';
import { Table, type Column } from '../../ui/Table';
import type { BatchPanelProps } from './batchProps';

export type Habit = 'cup' | 'scale';
const HABIT = 'steady-gleam.mix-habit';
export const keptHabit = (): Habit => (localStorage.getItem(HABIT) === 'scale' ? 'scale' : 'cup');

/** What is poured, to which mark of the cup or to what the scale shows; a part is tapped when too much of it went in. */
export function BatchTable({
  work: { pours },
  plan,
  habit,
  onHabit,
  byWeight,
  over,
  onOver,
}: Pick<BatchPanelProps, 'work'> & {
  readonly plan: BatchPlan;
  readonly habit: Habit;
  readonly onHabit: (habit: Habit) => void;
  /** Every density is known. */
  readonly byWeight: boolean;
  /** The part that was tapped. */
  readonly over: number | null;
  readonly onOver: (index: number | null) => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const digits = units.system === 'us' ? 2 : 0;
  type Part = BatchPlan['parts'][number];
  const figure = (head: string, isBig: boolean, draw: (p: Part, at: number) => string): Column<Part> => ({
    ...{ head, figure: true, draw },
    style: { fontSize: isBig ? 28 : 19, fontWeight: isBig ? 700 : 400 },
  });
  const [volume, mass] = [units.name('volume'), units.name('mass')];
  const byScale = habit === 'scale' && byWeight;
  return (
    <Table
      label="Batch"
      maxWidth={820}
      rows={plan.parts}
      keyOf={(p) => p.name}
      columns={[
        {
          id: 'part',
          head: <HabitChoice habit={habit} onHabit={onHabit} byWeight={byWeight} />,
          draw: (p, i) => (
            <Button
              variant="text"
              color="inherit"
              aria-pressed={over === i}
              title="Too much went in, or too little is there"
              onClick={() => onOver(over === i ? null : i)}
              sx={{
                ...{ px: 0.5, fontSize: 19, fontWeight: 640, lineHeight: 1.15 },
                ...{ textAlign: 'left', justifyContent: 'flex-start' },
                background: over === i ? tones.raised : 'none',
              }}
            >
              {p.name}
            </Button>
          ),
        },
        figure('parts', false, (_, i) => String(Number(pours.pours[i]!.parts.toFixed(2)))),
        figure(volume, false, (p) => units.figure('volume', p.ml, digits)),
        figure(`to mark, ${volume}`, !byScale, (p) => units.figure('volume', p.mark, digits)),
        figure(mass, false, (p) => (p.grams === null ? '–' : units.figure('mass', p.grams))),
        figure(`scale shows, ${mass}`, byScale, (p) =>
          p.runningGrams === null ? '–' : units.figure('mass', p.runningGrams),
        ),
      ]}
    />
  );
}

/** By what it is poured: the figure that is looked at stands large. */
function HabitChoice({
  habit,
  onHabit,
  byWeight,
}: {
  habit: Habit;
  onHabit: (habit: Habit) => void;
  byWeight: boolean;
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={habit}
      aria-label="Poured by"
      onChange={(_, v: Habit | null) => {
        if (!v) return;
        localStorage.setItem(HABIT, v);
        onHabit(v);
      }}
    >
      <ToggleButton value="cup">by cup</ToggleButton>
      <ToggleButton value="scale" disabled={!byWeight}>
        by scale
      </ToggleButton>
    </ToggleButtonGroup>
  );
}
