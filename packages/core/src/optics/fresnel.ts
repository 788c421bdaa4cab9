export interface InterfaceReflectance {
  /** Power reflectance, light polarised across the plane of incidence. */
  readonly rs: number;
  /** Power reflectance, light polarised in the plane of incidence. */
  readonly rp: number;
  /** Unpolarised. */
  readonly r: number;
}

/**
 * Fresnel power reflectance of a smooth interface between lossless media; 1 beyond the critical angle.
 * @param n1 index on the side of the light. @param n2 index behind. @param cosine of the angle from the normal, 0..1.
 */
export function fresnel(n1: number, n2: number, cosine: number): InterfaceReflectance {
  const sine2 = (n1 / n2) ** 2 * (1 - cosine * cosine);
  if (sine2 >= 1) return { rs: 1, rp: 1, r: 1 };
  const c2 = Math.sqrt(1 - sine2);
  const rs = ((n1 * cosine - n2 * c2) / (n1 * cosine + n2 * c2)) ** 2;
  const rp = ((n2 * cosine - n1 * c2) / (n2 * cosine + n1 * c2)) ** 2;
  return { rs, rp, r: (rs + rp) / 2 };
}

/** {@link fresnel} with the angle of incidence in degrees, 0..90. */
export function interfaceReflectance(n1: number, n2: number, incidenceDeg: number): InterfaceReflectance {
  return fresnel(n1, n2, Math.max(0, Math.cos((incidenceDeg * Math.PI) / 180)));
}

/**
 * Mean of a function of the cosine under Lambertian flux, 2 mu f(mu), over mu in [lo, hi]; midpoint rule with the nodes
 * gathered at `lo`, where the Fresnel reflectance has a root singularity.
 */
function lambertMean(f: (mu: number) => number, lo: number): number {
  const steps = 4000;
  let total = 0;
  for (let i = 0; i < steps; i++) {
    const t = (i + 0.5) / steps;
    const mu = lo + (1 - lo) * t * t;
    total += 2 * mu * f(mu) * (1 - lo) * 2 * t;
  }
  return total / steps;
}

/**
 * Reflectance of a smooth interface for diffuse light, from air (`external`) and from the film (`internal`).
 * For n = 1.5: 0.0918 and 0.5963 (Saunderson 1942 k1, k2).
 * @param n film index, at least 1.
 */
export function diffuseInterface(n: number): { external: number; internal: number } {
  const external = lambertMean((mu) => fresnel(1, n, mu).r, 0);
  return { external, internal: 1 - (1 - external) / (n * n) };
}
