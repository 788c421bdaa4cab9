import { de2000, de76 } from './difference';
import { xyzToLab } from './lab';
import type { Spectrum } from './spectrum';
import { reflectanceToXyz, whitePoint, type Illuminant, type Observer, type Xyz } from './tristimulus';

/**
 * Special metamerism index, change of illuminant (CIE 15). The sample is first corrected multiplicatively, axis by axis,
 * so that it matches under the first illuminant; the remaining difference under the test illuminant is the index.
 * @returns `index` in CIE 1976 units and `indexDe2000`.
 */
export function metamerismIndex(
  reference: Spectrum,
  sample: Spectrum,
  under: Illuminant,
  test: Illuminant,
  observer: Observer,
): { index: number; indexDe2000: number } {
  const first = { illuminant: under, observer };
  const second = { illuminant: test, observer };
  const ref1 = reflectanceToXyz(reference, first);
  const sam1 = reflectanceToXyz(sample, first);
  const ref2 = reflectanceToXyz(reference, second);
  const sam2 = reflectanceToXyz(sample, second);
  const ratio = (i: 0 | 1 | 2) => (sam1[i] > 0 ? ref1[i] / sam1[i] : 1);
  const corrected: Xyz = [sam2[0] * ratio(0), sam2[1] * ratio(1), sam2[2] * ratio(2)];
  const white = whitePoint(second);
  const a = xyzToLab(ref2, white);
  const b = xyzToLab(corrected, white);
  return { index: de76(a, b), indexDe2000: de2000(a, b) };
}
