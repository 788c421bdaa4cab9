import type { Measure } from '@steady-gleam/core/units';
import { Field } from './Field';
import { useMeasureText, useUnits } from '../shared/units';

interface MeasureFieldProps {
  readonly measure: Measure;
  readonly label: string;
  /** Metric, as text: what is no number stays as it was typed. */
  readonly value: string;
  readonly onValue: (metric: string) => void;
  readonly error?: string | undefined;
  readonly hint?: string;
  readonly onBlur?: () => void;
}

/** A figure with a unit: shown and typed in the painter's units, kept in metric. */
export function MeasureField({ measure, label, value, onValue, error, hint, ...rest }: MeasureFieldProps) {
  const units = useUnits();
  const { text, onText } = useMeasureText(measure, value, onValue);
  return (
    <Field
      {...rest}
      label={`${label}, ${units.name(measure)}`}
      value={text}
      onChange={(e) => onText(e.target.value)}
      error={error}
      {...(hint === undefined ? {} : { hint })}
      decimal
    />
  );
}
