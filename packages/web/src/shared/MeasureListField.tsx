import type { Measure } from '@steady-gleam/core/units';
import { useState } from 'react';
import { Field } from '../ui/Field';
import { numberIn } from './numberIn';
import { metricText, shownText, useUnits } from './units';

/** Figures of one measure in a row, typed with commas or semicolons between in the shown units and handed on in metric; NaN for what is none. */
export function MeasureListField(props: {
  readonly measure: Measure;
  readonly label: string;
  readonly value: readonly number[];
  readonly onValue: (metric: number[]) => void;
  readonly error?: string | undefined;
  readonly hint?: string;
}) {
  const { measure, label, value, onValue, error, hint } = props;
  const units = useUnits();
  const [typed, setTyped] = useState<{ text: string; system: string } | null>(null);
  return (
    <Field
      label={`${label}, ${units.name(measure)}`}
      // What was typed stays as it is; other units show it anew.
      value={
        typed?.system === units.system
          ? typed.text
          : value.map((v) => shownText(measure, String(v), units.system)).join(', ')
      }
      onChange={(e) => {
        setTyped({ text: e.target.value, system: units.system });
        onValue(
          e.target.value
            // With semicolons between, a comma is a decimal comma.
            .split(e.target.value.includes(';') ? /[;\s]+/ : /[,\s]+/)
            .filter(Boolean)
            .map((t) => numberIn(metricText(measure, t, units.system))),
        );
      }}
      error={error}
      {...(hint === undefined ? {} : { hint })}
    />
  );
}
