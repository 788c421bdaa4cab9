import { labOf } from '@steady-gleam/core/colour';
import { D65_10 } from '@steady-gleam/core/colour';
import { defaultTolerance, STYLES } from '@steady-gleam/core/finishes';
import { formulateAll, paretoPourables, pourables, type FormulateInput } from '@steady-gleam/core/formulate';
import type { EffectPigment, PreparedLibrary } from '@steady-gleam/core/materials';
import { prepareCoat } from '@steady-gleam/core/optics';
import type { InferType } from 'yup';
import { toAlbedo, toCoat, toOptics } from './coats';
import type { calcSchemas } from './schemas';
import { toSpectrum } from './spectra';

/** What is not said. */
const USUAL = { thicknessUm: 0.5, filmUm: 9, top: 5 } as const;

type Input = InferType<(typeof calcSchemas)['formulate']>;

/** Mixes that come nearest to a target, of what the request or the library has; see docs/calc.md. */
export function formulateOf(r: Input, shop: PreparedLibrary) {
  const { film, library } = shop;
  const grounds: FormulateInput['shelf']['grounds'] =
    r.grounds?.map((g) => ({
      id: g.id,
      albedo: toAlbedo(film, g, D65_10),
      coats: g.under.map((c) => prepareCoat(film, toCoat(c))),
    })) ?? shop.grounds();
  const pigments: readonly EffectPigment[] =
    r.pigments?.map(({ id, tilt, edge, optics, thickness }) => {
      return {
        ...{ id, name: id, kind: 'interference' as const, optics: toOptics(optics), tilt, edge },
        ...{ thicknessUm: thickness ?? USUAL.thicknessUm, sizeUm: 20, densityGPerCm3: 3, source: 'as sent' },
      };
    }) ?? library.pigments.filter((p) => p.kind !== 'foil');
  const dyes =
    r.dyes?.map(({ id, depth }) => ({ id, name: id, depth: toSpectrum(depth), note: 'as sent' })) ?? library.dyes;
  const target = r.target.map((t) => ({
    ...{ incidence: t.incidence, aspecular: t.aspecular },
    lab: labOf(t.lab),
    tolerance: t.tolerance ?? defaultTolerance(t.aspecular),
  }));
  const input: FormulateInput = {
    ...{ film, model: shop.model(target), target, filmUm: r.filmUm ?? USUAL.filmUm, counts: r.counts },
    shelf: { grounds, pigments, dyes },
    style: { ...STYLES.medium, film: r.style.film, spread: r.style.spread },
    ...{ mostPigments: r.mostPigments ?? 2, mostDyes: r.mostDyes ?? 2 },
  };
  const found = formulateAll(input).slice(0, r.top ?? USUAL.top);
  return {
    mixes: found.map(({ groundId, coats, ...m }) => ({
      ...{ ground: groundId, coats, labs: m.labs, rmsDe: m.rmsDe, maxDe: m.maxDe, toleranceRatio: m.toleranceRatio },
      pigments: m.pigments.map((p) => ({ id: p.pigmentId, cover: -Math.expm1(-p.tau) })),
      dyes: m.dyes.map((d) => ({ id: d.dyeId, depth: d.depth })),
    })),
    pourable: paretoPourables(found.flatMap((m) => pourables(input, m))).map(({ groundId, ...p }) => ({
      ground: groundId,
      ...p,
    })),
  };
}
