import {
  fromShown,
  sayMeasure,
  sayRange,
  sayWithin,
  toShown,
  unitDigits,
  unitName,
  type Measure,
  type UnitSystem,
} from '@steady-gleam/core/units';
import { numberIn } from './numberIn';
import { createContext, use, useMemo, useState, type ReactNode } from 'react';

/** Figures in the units the painter works in; everything inside stays metric. */
export interface Units {
  readonly system: UnitSystem;
  readonly toggle: () => void;
  /** With its unit. */
  readonly say: (measure: Measure, metric: number, digits?: number) => string;
  /** Without its unit. */
  readonly figure: (measure: Measure, metric: number, digits?: number) => string;
  /** From one to another, in one unit. */
  readonly range: (measure: Measure, low: number, high: number) => string;
  /** A figure with the range it lies in, in one unit. */
  readonly within: (measure: Measure, value: number, low: number, high: number) => string;
  readonly name: (measure: Measure) => string;
  /** A sentence whose metric figures are said in these units. */
  readonly sentence: (text: string) => string;
}

const STORED = 'steady-gleam.units';

const MEASURE_OF: Record<string, Measure> = {
  ml: 'volume',
  'g/ml': 'density',
  'g/l': 'voc',
  µm: 'film',
  bar: 'pressure',
  '°C': 'temperature',
  cm: 'distance',
  'cm/s': 'speed',
  'm²': 'area',
  m: 'length',
};

export function unitsOf(system: UnitSystem, toggle: () => void = () => {}): Units {
  const figure = (measure: Measure, metric: number, digits?: number) =>
    toShown(measure, metric, system).toFixed(
      digits === undefined || system === 'us' ? unitDigits(measure, system) : digits,
    );
  return {
    system,
    toggle,
    say: (measure, metric, digits) => sayMeasure(measure, metric, system, system === 'us' ? undefined : digits),
    figure,
    range: (measure, low, high) => sayRange(measure, low, high, system),
    within: (measure, value, low, high) => sayWithin(measure, value, low, high, system),
    name: (measure) => unitName(measure, system),
    sentence: (text) =>
      system === 'metric'
        ? text
        : text.replace(
            /(-?\d+(?:\.\d+)?) (g\/ml|g\/l|cm\/s|ml|µm|bar|°C|cm|m²|m)(?![\p{L}²/])/gu,
            (_, value: string, unit: string) => sayMeasure(MEASURE_OF[unit]!, Number(value), system),
          ),
  };
}

const UnitsContext = createContext<Units>(unitsOf('metric'));

export function UnitsProvider({ children }: { children: ReactNode }) {
  const [system, setSystem] = useState<UnitSystem>(() => (localStorage.getItem(STORED) === 'us' ? 'us' : 'metric'));
  const value = useMemo(
    () =>
      unitsOf(system, () => {
        const next = system === 'metric' ? 'us' : 'metric';
        localStorage.setItem(STORED, next);
        setSystem(next);
      }),
    [system],
  );
  return <UnitsContext value={value}>{children}</UnitsContext>;
}

export function useUnits(): Units {
  return use(UnitsContext);
}

/** A metric text as a field shows it, to three figures or whole; what is no number is shown as it was typed. */
export function shownText(measure: Measure, metricText: string, system: UnitSystem): string {
  const value = numberIn(metricText);
  if (system === 'metric' || Number.isNaN(value)) return metricText;
  const shown = toShown(measure, value, system);
  return String(Math.abs(shown) >= 100 ? Math.round(shown) : Number(shown.toPrecision(3)));
}

/** What was typed in these units, as metric text; what is no number stays as it is, for the check to name. */
export function metricText(measure: Measure, typed: string, system: UnitSystem): string {
  const value = numberIn(typed);
  if (system === 'metric' || Number.isNaN(value)) return typed;
  return String(Number(fromShown(measure, value, system).toPrecision(9)));
}

/** Text of a field in the shown units over a value kept in metric text; null for a figure whose unit is never switched. */
export function useMeasureText(
  measure: Measure | null,
  value: string,
  onValue: (metric: string) => void,
): { readonly text: string; readonly onText: (text: string) => void } {
  const units = useUnits();
  const system = measure === null ? 'metric' : units.system;
  const [typed, setTyped] = useState({ text: '', metric: '', system });
  // While it is typed the text stays as it is; a value from elsewhere or other units show it anew.
  const text =
    typed.metric === value && typed.system === system && value !== ''
      ? typed.text
      : shownText(measure ?? 'length', value, system);
  return {
    text,
    onText: (next) => {
      const metric = metricText(measure ?? 'length', next, system);
      setTyped({ text: next, metric, system });
      onValue(metric);
    },
  };
}
