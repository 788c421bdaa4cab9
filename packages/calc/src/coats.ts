import type { coatSchema } from './fields';
import type { SpectrumInput } from './fields';
import { labOf, type Viewing } from '@steady-gleam/core/colour';
import { labToAlbedo } from '@steady-gleam/core/materials';
import type { Film, FlakeOptics, Flakes, Coat } from '@steady-gleam/core/optics';
import type { InferType } from 'yup';
import { toSpectrum, toValue } from './spectra';

type CoatInput = InferType<typeof coatSchema>;

type OpticsInput =
  | { kind: 'scalar'; reflectance: SpectrumInput; transmittance: SpectrumInput }
  | {
      kind: 'thinFilm';
      layers: { n?: SpectrumInput; k?: SpectrumInput; nm: number }[];
      exit: { n: SpectrumInput; k?: SpectrumInput };
      twoSided?: boolean;
    }
  | { kind: 'lacquered'; lacquerDepth: SpectrumInput; metal: { n: SpectrumInput; k?: SpectrumInput } };

interface FlakesInput extends Omit<Flakes, 'optics'> {
  readonly optics: OpticsInput;
}

/** Optics of a flake of a request as the core takes them. */
export function toOptics(input: OpticsInput): FlakeOptics {
  if (input.kind === 'scalar') {
    return { kind: 'scalar', reflectance: toValue(input.reflectance), transmittance: toValue(input.transmittance) };
  }
  if (input.kind === 'lacquered') {
    const { lacquerDepth, metal } = input;
    return {
      kind: input.kind,
      lacquerDepth: toValue(lacquerDepth),
      metal: { n: toValue(metal.n), k: toValue(metal.k) },
    };
  }
  return {
    kind: 'thinFilm',
    layers: input.layers.map((l) => ({ n: toValue(l.n), k: toValue(l.k), nm: l.nm })),
    exit: { n: toValue(input.exit.n), k: toValue(input.exit.k) },
    twoSided: input.twoSided ?? false,
  };
}

/** A coat of a request as the core takes it. */
export function toCoat(input: CoatInput): Coat {
  const kinds = (Array.isArray(input.flakes) ? input.flakes : input.flakes ? [input.flakes] : []) as FlakesInput[];
  const flakes = kinds.map((f): Flakes => ({ ...f, optics: toOptics(f.optics) }));
  return {
    ...(input.dye === undefined ? {} : { dye: toValue(input.dye) }),
    ...(flakes.length ? { flakes } : {}),
    ...(input.pigment
      ? { pigment: { k: toValue(input.pigment.k), s: toValue(input.pigment.s), thickness: input.pigment.thickness } }
      : {}),
    factor: input.factor ?? 1,
  };
}

/** Internal albedo of a request's ground: as given, or from its cleared look at 45 degrees in, seen from the normal. */
export function toAlbedo(
  film: Film,
  ground: { reflectance?: SpectrumInput | undefined; lab?: number[] | undefined },
  viewing: Viewing,
): Float64Array {
  // A request has one of both: its schema says so.
  return ground.lab === undefined ? toSpectrum(ground.reflectance!) : labToAlbedo(film, labOf(ground.lab), viewing);
}
