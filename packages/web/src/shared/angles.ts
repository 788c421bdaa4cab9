import { FIVE_ANGLES, type Geometry } from '@steady-gleam/core/optics';

/** Lamp and view, as instruments name them. */
export type Angle = Pick<Geometry, 'incidence' | 'aspecular'>;

/** Degrees from the mirror; where the lamp is not at 45 degrees its angle first (25/15, as ASTM E2539 names them). */
export const angleKey = ({ incidence, aspecular }: Angle): string =>
  incidence === 45 ? String(aspecular) : `${incidence}/${aspecular}`;
export const sayAngle = (angle: Angle): string => `${angleKey(angle)}°`;

/** The lamp of the usual instruments, and what is read beside it where travel is looked for: the face under other lamps. */
export const TRAVEL_ANGLES: readonly Angle[] = [
  ...[25, 65].flatMap((incidence) => [15, 25].map((aspecular) => ({ incidence, aspecular }))),
];
export const USUAL_ANGLES: readonly Angle[] = FIVE_ANGLES;
