import type { Illuminant, Viewing } from '@steady-gleam/core/colour';

/** How a map is looked at in a light. */
export const viewingOf = (illuminant: Illuminant): Viewing => ({ illuminant, observer: '10' });
