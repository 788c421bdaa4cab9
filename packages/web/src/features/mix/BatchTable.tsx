import type { BatchPlan } from '@steady-gleam/core/mixing';
import { Button, ToggleButton, ToggleButtonGroup, useTheme } from '@mui/material';
import { useUnits } from '../../shared/units';
import type { BatchPanelProps } from './batchProps';
import { tableStyles } from './tableStyles';

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
  const { cell, head } = tableStyles(tones.hairline);
  return (
    <table aria-label="Batch" style={{ borderCollapse: 'collapse', width: '100%', maxWidth: 820 }}>
      <thead>
        <tr>
          <th scope="col" style={{ ...head, textAlign: 'left', paddingLeft: 0 }}>
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
          </th>
          {[
            'parts',
            units.name('volume'),
            `to mark, ${units.name('volume')}`,
            units.name('mass'),
            `scale shows, ${units.name('mass')}`,
          ].map((name) => (
            <th key={name} scope="col" style={head}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {plan.parts.map((p, i) => {
          const big = (on: boolean) => ({ ...cell, fontSize: on ? 28 : 19, fontWeight: on ? 700 : 400 });
          return (
            <tr key={p.name}>
              <td
                style={{
                  ...cell,
                  textAlign: 'left',
                  padding: '3px 0',
                  fontFamily: 'inherit',
                  whiteSpace: 'normal',
                }}
              >
                <Button
                  variant="text"
                  color="inherit"
                  aria-pressed={over === i}
                  title="Too much went in, or too little is there"
                  onClick={() => onOver(over === i ? null : i)}
                  sx={{
                    px: 0.5,
                    fontSize: 19,
                    fontWeight: 640,
                    textAlign: 'left',
                    justifyContent: 'flex-start',
                    lineHeight: 1.15,
                    background: over === i ? tones.raised : 'none',
                  }}
                >
                  {p.name}
                </Button>
              </td>
              <td style={big(false)}>{Number(pours.pours[i]!.parts.toFixed(2))}</td>
              <td style={big(false)}>{units.figure('volume', p.ml, digits)}</td>
              <td style={big(habit === 'cup' || !byWeight)}>{units.figure('volume', p.mark, digits)}</td>
              <td style={big(false)}>{p.grams === null ? '–' : units.figure('mass', p.grams)}</td>
              <td style={big(habit === 'scale' && byWeight)}>
                {p.runningGrams === null ? '–' : units.figure('mass', p.runningGrams)}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
