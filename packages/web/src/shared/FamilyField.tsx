import { FAMILIES, FAMILY_IDS, type FinishFamily } from '@steady-gleam/core/finishes';
import { Field } from '../ui/Field';

/** Which family a list shows; empty for any. */
export function FamilyField({ value, onPick }: { value: FinishFamily | null; onPick: (family: string) => void }) {
  return (
    <Field label="Family" select value={value ?? ''} onChange={(e) => onPick(e.target.value)}>
      <option value="">Any</option>
      {FAMILY_IDS.map((f) => (
        <option key={f} value={f}>
          {FAMILIES[f].name}
        </option>
      ))}
    </Field>
  );
}
