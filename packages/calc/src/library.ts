import { WAVELENGTHS_NM } from '@steady-gleam/core/colour';
import { groundCoats, mixCoat, type GroundMaterial, type PreparedLibrary } from '@steady-gleam/core/materials';
import type { Coat, FlakeOptics, Flakes, SpectrumOrNumber } from '@steady-gleam/core/optics';
import type { SpectrumInput } from './fields';

/** A spectrum as requests have it; one that is even is a plain number. */
function spectrum(value: SpectrumOrNumber): SpectrumInput {
  if (typeof value === 'number') return value;
  const values = Array.from(value);
  const [first] = values;
  return values.every((v) => v === first)
    ? first!
    : { start: WAVELENGTHS_NM[0]!, step: WAVELENGTHS_NM[1]! - WAVELENGTHS_NM[0]!, values };
}

function optics(o: FlakeOptics): unknown {
  switch (o.kind) {
    case 'scalar':
      return { kind: o.kind, reflectance: spectrum(o.reflectance), transmittance: spectrum(o.transmittance) };
    case 'thinFilm':
      return {
        kind: o.kind,
        layers: o.layers.map((l) => ({ n: spectrum(l.n), k: spectrum(l.k), nm: l.nm })),
        exit: { n: spectrum(o.exit.n), k: spectrum(o.exit.k) },
        twoSided: o.twoSided ?? false,
      };
    case 'lacquered':
      return {
        kind: o.kind,
        lacquerDepth: spectrum(o.lacquerDepth),
        metal: { n: spectrum(o.metal.n), k: spectrum(o.metal.k) },
      };
  }
}

/** A coat as `stack` and `ladder` take it. */
export function toldCoat({ dye, flakes, pigment, factor }: Coat): unknown {
  const kinds = flakes === undefined ? [] : Array.isArray(flakes) ? (flakes as readonly Flakes[]) : [flakes as Flakes];
  return {
    ...(dye === undefined ? {} : { dye: spectrum(dye) }),
    ...(kinds.length ? { flakes: kinds.map((f) => ({ ...f, optics: optics(f.optics) })) } : {}),
    ...(pigment ? { pigment: { k: spectrum(pigment.k), s: spectrum(pigment.s), thickness: pigment.thickness } } : {}),
    ...(factor === undefined ? {} : { factor }),
  };
}

/** The library as requests take it: grounds with the coats that belong to them, pigments, dyes, base colours and mixes. */
export function toldLibrary({ library }: PreparedLibrary): unknown {
  const under = (g: GroundMaterial) => groundCoats(g, library.dyes, library.pigments).map(toldCoat);
  return {
    grounds: library.grounds.map((g) => ({
      ...{ id: g.id, name: g.name, lab: g.lab, hidesIn: g.hidesIn },
      under: under(g),
    })),
    pigments: library.pigments.map(({ id, name, kind, tilt, edge, sizeUm, thicknessUm, source, ...p }) => ({
      ...{ id, name, kind, tilt, edge, size: sizeUm, thickness: thicknessUm, source },
      optics: optics(p.optics),
    })),
    dyes: library.dyes.map((d) => ({ id: d.id, name: d.name, depth: spectrum(d.depth), source: d.note })),
    solids: library.solids.map((s) => ({
      id: s.id,
      name: s.name,
      k: spectrum(s.k),
      s: spectrum(s.s),
      source: s.source,
    })),
    mixes: library.systems.map((m) => ({
      ...{ id: m.id, name: m.name, family: m.family, film: m.filmUm },
      parts: m.parts.map(({ name, parts }) => ({ name, parts })),
      coat: toldCoat(mixCoat(m, library)),
    })),
  };
}
