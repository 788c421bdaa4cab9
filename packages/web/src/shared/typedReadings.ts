import { aSchema, bSchema, lightnessSchema } from '@steady-gleam/contracts';
import { READING_LIMITS, type Reading } from '@steady-gleam/core/formats';
import { array, number, object, string } from 'yup';
import { angleKey, type Angle } from './angles';
import { numberIn } from './numberIn';

/** A row as typed: text, so that nothing typed is lost. A row with L, a and b all empty is an angle that was not read. */
export interface Row {
  /** Which spot of several; not shown while there is one. */
  spot: string;
  /** Lamp, degrees; 45 unless the reading that is being corrected says another. */
  lamp: string;
  angle: string;
  l: string;
  a: string;
  b: string;
}

export const isEmpty = (r: Partial<Row>) => !r.l?.trim() && !r.a?.trim() && !r.b?.trim();

const typedNumber = (schema: typeof lightnessSchema, label: string) =>
  string()
    .default('')
    .test('reading', function check(value) {
      if (isEmpty(this.parent as Row)) return true;
      const text = value?.trim() ?? '';
      if (text === '') return this.createError({ message: `${label} is missing.` });
      const value_ = numberIn(text);
      if (Number.isNaN(value_)) return this.createError({ message: `${label} must be a number.` });
      try {
        schema.validateSync(value_);
        return true;
      } catch (error) {
        return this.createError({ message: (error as Error).message });
      }
    });

export const rowsSchema = object({
  rows: array(
    object({
      spot: string().default(''),
      lamp: string().default(''),
      angle: string()
        .default('')
        .test('angle', function check(value) {
          if (isEmpty(this.parent as Row)) return true;
          const n = numberIn(value);
          if (Number.isNaN(n)) return this.createError({ message: 'Give the angle.' });
          try {
            number().min(READING_LIMITS.aspecularMin).max(READING_LIMITS.aspecularMax).validateSync(n);
          } catch {
            return this.createError({
              message: `Between ${READING_LIMITS.aspecularMin} and ${READING_LIMITS.aspecularMax}.`,
            });
          }
          const rows = (this.from?.[1]?.value as { rows?: Row[] } | undefined)?.rows ?? [];
          const { spot, lamp } = this.parent as Row;
          const same = rows.filter((r) => !isEmpty(r) && numberIn(r.angle) === n && r.spot === spot && r.lamp === lamp);
          return same.length > 1 ? this.createError({ message: 'This angle is here twice.' }) : true;
        }),
      l: typedNumber(lightnessSchema, 'L*'),
      a: typedNumber(aSchema, 'a*'),
      b: typedNumber(bSchema, 'b*'),
    }).required(),
  ).required(),
});

export const emptyRow = (angle: Angle | null): Row => ({
  ...{ spot: '1', lamp: String(angle?.incidence ?? 45), angle: String(angle?.aspecular ?? '') },
  ...{ l: '', a: '', b: '' },
});
const shown = (v: number): string => String(Number(v.toFixed(3)));

/** Readings as rows to be corrected; angles that were not read stay open below them, for the only spot there is. */
export function rowsOf(readings: readonly Reading[], angles: readonly Angle[]): Row[] {
  const rows = readings.map((r) => ({
    spot: r.spot,
    lamp: String(r.incidence),
    angle: String(r.aspecular),
    l: shown(r.l),
    a: shown(r.a),
    b: shown(r.b),
  }));
  const several = new Set(readings.map((r) => r.spot)).size > 1;
  const missing = several ? [] : angles.filter((a) => !readings.some((r) => angleKey(r) === angleKey(a)));
  return [...rows, ...missing.map((a) => ({ ...emptyRow(a), spot: readings[0]?.spot ?? '1' }))];
}
