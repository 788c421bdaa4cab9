import { reflectanceToLab, type Lab } from '../colour/lab';
import { metamerismIndex } from '../colour/metamerism';
import { spectrumFromLab } from '../colour/spectrumFromLab';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { D65_10, type Illuminant, type Viewing } from '../colour/tristimulus';
import { de2000 } from '../colour/difference';
import type { TargetAngle } from './target';

/**
 * A target read in daylight as it would look under another light: through the smoothest spectrum with its colour. A real
 * finish may have another spectrum, so this is a guess to be labelled as one.
 */
export function targetUnder(target: readonly TargetAngle[], viewing: Viewing): TargetAngle[] {
  return target.map((t) => ({ ...t, lab: reflectanceToLab(spectrumFromLab(t.lab).spectrum, viewing) }));
}

/** A match looked at under a second light, per angle. */
export interface SecondLook {
  readonly illuminant: Illuminant;
  readonly target: readonly Lab[];
  readonly sample: readonly Lab[];
  /** CIEDE2000 under that light. */
  readonly differences: readonly number[];
  /** Special metamerism index (CIE 15), CIE 1976 units: what is left when both matched in daylight. */
  readonly metamerism: readonly number[];
}

/**
 * A prediction and a target read in daylight, compared under another light.
 * @param factors radiance factors [angle * 31 + wavelength] in the target's order.
 */
export function lookUnder(target: readonly TargetAngle[], factors: Float64Array, illuminant: Illuminant): SecondLook {
  const viewing: Viewing = { illuminant, observer: D65_10.observer };
  const sample: Lab[] = [];
  const under: Lab[] = [];
  const metamerism: number[] = [];
  target.forEach((t, g) => {
    const spectrum = factors.subarray(g * WAVELENGTH_COUNT, (g + 1) * WAVELENGTH_COUNT);
    const reference = spectrumFromLab(t.lab).spectrum;
    sample.push(reflectanceToLab(spectrum, viewing));
    under.push(reflectanceToLab(reference, viewing));
    metamerism.push(metamerismIndex(reference, spectrum, 'D65', illuminant, D65_10.observer).index);
  });
  return { illuminant, target: under, sample, differences: under.map((lab, g) => de2000(lab, sample[g]!)), metamerism };
}
