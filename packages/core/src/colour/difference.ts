import type { Lab } from './lab';

const DEG = Math.PI / 180;

/** CIE 1976 difference: Euclidean distance in CIELAB. */
export function de76(a: Lab, b: Lab): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

function chromaHue(a: Lab, b: Lab): { dL: number; dC: number; dH2: number; cA: number; cB: number } {
  const cA = Math.hypot(a[1], a[2]);
  const cB = Math.hypot(b[1], b[2]);
  const dC = cB - cA;
  const dH2 = Math.max(0, (b[1] - a[1]) ** 2 + (b[2] - a[2]) ** 2 - dC * dC);
  return { dL: b[0] - a[0], dC, dH2, cA, cB };
}

/** CIE94, graphic arts weights (K1 0.045, K2 0.015); a is the reference, so it is not symmetric. CIE 116:1995. */
export function de94(a: Lab, b: Lab): number {
  const { dL, dC, dH2, cA } = chromaHue(a, b);
  return Math.sqrt(dL ** 2 + (dC / (1 + 0.045 * cA)) ** 2 + dH2 / (1 + 0.015 * cA) ** 2);
}

/** CMC(2:1); a is the reference. Clarke, McDonald and Rigg 1984; BS 6923. */
export function deCmc(a: Lab, b: Lab, l = 2, c = 1): number {
  const { dL, dC, dH2, cA } = chromaHue(a, b);
  const h = ((Math.atan2(a[2], a[1]) / DEG) % 360) + (a[2] < 0 ? 360 : 0);
  const t =
    h >= 164 && h <= 345
      ? 0.56 + Math.abs(0.2 * Math.cos((h + 168) * DEG))
      : 0.36 + Math.abs(0.4 * Math.cos((h + 35) * DEG));
  const c4 = cA ** 4;
  const ff = Math.sqrt(c4 / (c4 + 1900));
  const sl = a[0] < 16 ? 0.511 : (0.040975 * a[0]) / (1 + 0.01765 * a[0]);
  const sc = (0.0638 * cA) / (1 + 0.0131 * cA) + 0.638;
  const sh = sc * (ff * t + 1 - ff);
  return Math.sqrt((dL / (l * sl)) ** 2 + (dC / (c * sc)) ** 2 + dH2 / sh ** 2);
}

/** Hues this close to opposite (degrees beyond 180) count as exactly opposite, or rounding picks the branch. */
const OPPOSITE_HUE_TOLERANCE_DEG = 1e-9;
const POW25_7 = 25 ** 7;

/** CIEDE2000 with kL = kC = kH = 1. Sharma, Wu and Dalal 2005; ISO/CIE 11664-6. */
export function de2000(a: Lab, b: Lab): number {
  const cMean = (Math.hypot(a[1], a[2]) + Math.hypot(b[1], b[2])) / 2;
  const c7 = cMean ** 7;
  const g = 0.5 * (1 - Math.sqrt(c7 / (c7 + POW25_7)));
  const a1 = (1 + g) * a[1];
  const a2 = (1 + g) * b[1];
  const c1 = Math.hypot(a1, a[2]);
  const c2 = Math.hypot(a2, b[2]);
  const h1 = c1 === 0 ? 0 : (Math.atan2(a[2], a1) / DEG + 360) % 360;
  const h2 = c2 === 0 ? 0 : (Math.atan2(b[2], a2) / DEG + 360) % 360;
  const bothChromatic = c1 * c2 !== 0;
  let dh = bothChromatic ? h2 - h1 : 0;
  const limit = 180 + OPPOSITE_HUE_TOLERANCE_DEG;
  const wraps = bothChromatic && Math.abs(h2 - h1) > limit;
  if (wraps) dh += dh > 0 ? -360 : 360;
  const dL = b[0] - a[0];
  const dC = c2 - c1;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((dh / 2) * DEG);
  const lBar = (a[0] + b[0]) / 2;
  const cBar = (c1 + c2) / 2;
  let hBar = h1 + h2;
  if (bothChromatic) hBar = wraps ? (hBar < 360 ? hBar + 360 : hBar - 360) / 2 : hBar / 2;
  const t =
    1 -
    0.17 * Math.cos((hBar - 30) * DEG) +
    0.24 * Math.cos(2 * hBar * DEG) +
    0.32 * Math.cos((3 * hBar + 6) * DEG) -
    0.2 * Math.cos((4 * hBar - 63) * DEG);
  const l50 = (lBar - 50) ** 2;
  const sl = 1 + (0.015 * l50) / Math.sqrt(20 + l50);
  const sc = 1 + 0.045 * cBar;
  const sh = 1 + 0.015 * cBar * t;
  const cb7 = cBar ** 7;
  const rc = 2 * Math.sqrt(cb7 / (cb7 + POW25_7));
  const rt = -rc * Math.sin(60 * Math.exp(-(((hBar - 275) / 25) ** 2)) * DEG);
  return Math.sqrt((dL / sl) ** 2 + (dC / sc) ** 2 + (dH / sh) ** 2 + rt * (dC / sc) * (dH / sh));
}

export type DifferenceFormula = 'de76' | 'de94' | 'de2000' | 'cmc';

/** The named formulas; `a` is the reference where the formula has one. */
export const DIFFERENCE_FORMULAS: Record<DifferenceFormula, (a: Lab, b: Lab) => number> = {
  de76,
  de94,
  de2000,
  cmc: (a, b) => deCmc(a, b),
};
