/** How a coat is laid: film against a nominal full coat, and flake spread against the pigment's usual tilt. */
export interface CoatStyle {
  readonly id: StyleId;
  readonly name: string;
  readonly film: number;
  readonly spread: number;
}

export type StyleId = 'wet' | 'medium' | 'light' | 'half' | 'control' | 'grip' | 'tack';

/** Defaults of the program; common practice (no source), editable through the painter's cards. */
export const STYLES: Record<StyleId, CoatStyle> = {
  wet: { id: 'wet', name: 'Full wet', film: 1, spread: 1.15 },
  medium: { id: 'medium', name: 'Medium', film: 0.75, spread: 1 },
  light: { id: 'light', name: 'Light, mist', film: 0.45, spread: 0.9 },
  half: { id: 'half', name: 'Half coat', film: 0.5, spread: 0.95 },
  control: { id: 'control', name: 'Control coat', film: 0.35, spread: 0.8 },
  grip: { id: 'grip', name: 'Grip coat', film: 0.25, spread: 1 },
  tack: { id: 'tack', name: 'Tack coat', film: 0.3, spread: 1 },
};

/** The painter's hand with one gun and style, against nominal: film per coat, flake against dye, flake spread. */
export interface Hand {
  readonly film: number;
  readonly flake: number;
  readonly spread: number;
  /** Edge scatter against the pigment's usual share; 1 when left out. */
  readonly edge?: number;
  /** Shift of the dye's absorption, nm; 0 when left out. */
  readonly hueNm?: number;
}

export const NOMINAL_HAND: Hand = { film: 1, flake: 1, spread: 1 };

/** Control coats in a sentence, after the coats: " and a control coat", " and 2 control coats", or nothing. */
export function andControl(controlCoats: number): string {
  if (controlCoats <= 0) return '';
  return controlCoats <= 1 ? ' and a control coat' : ` and ${Number(controlCoats.toFixed(1))} control coats`;
}
