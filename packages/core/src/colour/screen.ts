import { labToXyz, reflectanceToLab, xyzToLab, labOf, type Lab } from './lab';
import { spectrumFromLab } from './spectrumFromLab';
import { whitePoint, D65_10, type Viewing, type Xyz } from './tristimulus';

type Matrix = readonly [Xyz, Xyz, Xyz];

/** XYZ (D65, 2 degree, Y = 1) to linear sRGB. IEC 61966-2-1. */
const XYZ_TO_LINEAR_SRGB: Matrix = [
  [3.2404541621141054, -1.5371385127977166, -0.4985314095560162],
  [-0.9692660305051868, 1.8760108454466942, 0.0415560175303498],
  [0.0556434309591147, -0.2040259135167538, 1.0572251882231791],
];

/** Bradford cone response (Lam 1985, as given by Lindbloom). */
const BRADFORD: Matrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
];
const BRADFORD_INVERSE: Matrix = [
  [0.9869929054667123, -0.1470542564209901, 0.1599626516637315],
  [0.4323052697233945, 0.5183602715367776, 0.0492912282128556],
  [-0.0085286645751773, 0.0400428216540849, 0.9684866957875502],
];
/** White of the matrix above: D65, 2 degree. */
const SRGB_WHITE: Xyz = [0.95047, 1, 1.08883];

const apply = (m: Matrix, v: Xyz): Xyz => [
  m[0][0] * v[0] + m[0][1] * v[1] + m[0][2] * v[2],
  m[1][0] * v[0] + m[1][1] * v[1] + m[1][2] * v[2],
  m[2][0] * v[0] + m[2][1] * v[1] + m[2][2] * v[2],
];

const encode = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/** A colour for a screen: 0-255 clipped, and whether the colour lay inside the screen's gamut before clipping. */
export interface ScreenColour {
  readonly srgb: readonly [number, number, number];
  readonly inGamut: boolean;
}

/** How far beyond 0..1 a linear channel may stray by rounding and still count as inside. */
const GAMUT_SLACK = 1e-4;

/**
 * XYZ (Y of the perfect diffuser 100) to linear sRGB, the viewing white adapted to the screen's (Bradford).
 * Values are not clipped.
 */
export function xyzToLinearSrgb(xyz: Xyz, viewing: Viewing = D65_10): Xyz {
  const from = apply(BRADFORD, whitePoint(viewing));
  const to = apply(BRADFORD, SRGB_WHITE);
  const cone = apply(BRADFORD, xyz);
  return apply(
    XYZ_TO_LINEAR_SRGB,
    apply(BRADFORD_INVERSE, [(cone[0] * to[0]) / from[0], (cone[1] * to[1]) / from[1], (cone[2] * to[2]) / from[2]]),
  );
}

/**
 * Screen colour of an XYZ.
 * @param exposure factor on the light before encoding; one per angle, so that nothing compared there clips.
 */
export function xyzToScreen(xyz: Xyz, viewing: Viewing = D65_10, exposure = 1): ScreenColour {
  const linear = xyzToLinearSrgb(xyz, viewing).map((v) => v * exposure);
  const inGamut = linear.every((v) => v >= -GAMUT_SLACK && v <= 1 + GAMUT_SLACK);
  const [r, g, b] = linear.map((v) => Math.round(255 * encode(Math.min(1, Math.max(0, v)))));
  return { srgb: [r!, g!, b!], inGamut };
}

/** Screen colour of a CIELAB colour under its viewing condition. */
export function labToScreen(lab: Lab, viewing: Viewing = D65_10, exposure = 1): ScreenColour {
  return xyzToScreen(labToXyz(lab, whitePoint(viewing)), viewing, exposure);
}

/**
 * One exposure for colours that are compared at one angle: the largest factor, at most 1, at which no channel of any of
 * them exceeds the screen's white.
 */
export function exposureFor(labs: readonly Lab[], viewing: Viewing = D65_10): number {
  let peak = 1;
  for (const lab of labs) {
    peak = Math.max(peak, ...xyzToLinearSrgb(labToXyz(lab, whitePoint(viewing)), viewing));
  }
  return 1 / peak;
}

/** Linear sRGB to XYZ (Y of the perfect diffuser 1), D65, 2 degrees; inverse of the matrix above. */
const LINEAR_SRGB_TO_XYZ: Matrix = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
];

/** An encoded sRGB channel 0..255 in linear light 0..1. IEC 61966-2-1. */
export function linearOfByte(v: number): number {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}

/** How far a colour read from a photo may be off, Lab units; ours, wide on purpose: lenses, light and cameras all add to it. */
export const PHOTO_DOUBT = 4;

/**
 * CIELAB of an area of a photo that also shows a grey of known lightness: in linear light every channel is scaled so that the
 * grey is neutral and as light as it is, which takes out the light's colour and the exposure. A camera answers for the 2 degree
 * observer; the smoothest spectrum with that colour is looked at by the 10 degree one, as all readings are.
 * @param grey mean linear channels of the grey. @param sample the same of the sample. @param greyL L* of the grey card.
 * @returns null when the grey is clipped or too dark to be a reference.
 */
export function photoLab(grey: Xyz, sample: Xyz, greyL: number): Lab | null {
  if (grey.some((v) => v > 0.97 || v < 0.01)) return null;
  const y = labToXyz([greyL, 0, 0], [1, 1, 1])[1];
  const xyz = apply(LINEAR_SRGB_TO_XYZ, labOf([0, 1, 2].map((k) => (sample[k]! / grey[k]!) * y)));
  const twoDegrees = xyzToLab(xyz, SRGB_WHITE);
  const { spectrum, status } = spectrumFromLab(twoDegrees, { illuminant: 'D65', observer: '2' });
  // Brighter than white near the mirror, or beyond what reflects: no spectrum has it, and the figures stand as they are.
  return status === 'converged' ? reflectanceToLab(spectrum, D65_10) : twoDegrees;
}
