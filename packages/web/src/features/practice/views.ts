/** Where a panel is looked at from, by the place of the angle among the five. */
export const VIEWS = [
  ['0', 'face'],
  ['2', '45°'],
  ['4', 'flop'],
] as const;
export type View = (typeof VIEWS)[number][0];
