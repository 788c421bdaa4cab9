import type { Measure } from '@steady-gleam/core/units';

/** What is typed, by the name of its field: figures and names as they stand, a reading as three texts. */
export type FormValues = Record<string, string>;

export interface FormField {
  readonly name: string;
  readonly label: string;
  /** `lab` stands for three fields name/0, name/1, name/2. */
  readonly type: 'text' | 'number' | 'lab' | 'choice';
  /** Shown and typed in the painter's units. */
  readonly measure?: Measure;
  /** Shown only while this other field is filled. */
  readonly when?: string;
  readonly choices?: readonly { readonly value: string; readonly name: string }[];
}
