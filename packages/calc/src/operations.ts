import type { calcSchemas } from './schemas';
import { type CalcName } from './schemas';
import { bestOrder, orderCost, planTimeline } from '@steady-gleam/core/booth';
import {
  metamerismIndex,
  DIFFERENCE_FORMULAS,
  labToLch,
  reflectanceToLab,
  reflectanceToXyz,
  xyzToScreen,
  type Illuminant,
  labOf,
  type Observer,
  type Viewing,
} from '@steady-gleam/core/colour';
import { CoreError } from '@steady-gleam/core/errors';
import { FAMILIES, FAMILY_IDS, USUAL_LIMIT_SOURCE, defaultTolerance } from '@steady-gleam/core/finishes';
import { swatchFactors } from '@steady-gleam/core/looks';
import {
  coatGrid,
  factorsToLabs,
  findStopWindow,
  ladderLabs,
  scoreMatch,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { prepareLibrary, type PreparedLibrary } from '@steady-gleam/core/materials';
import {
  flakeCover,
  flakeDose,
  parseRatio,
  potLifeAt,
  rescueOverpour,
  vocOfMix,
  mixByParts,
  quantityMl,
  spreadingRate,
} from '@steady-gleam/core/mixing';
import {
  diffuseInterface,
  internalToMeasured,
  kubelkaMunkOver,
  measuredToInternal,
  createFastModel,
  createFilm,
  createOptics,
  evaluateReference,
  interfaceReflectance,
  prepareCoat,
  thinFilmPower,
} from '@steady-gleam/core/optics';
import { dewPoint, filmFromGun, flashMinutes, passRipple } from '@steady-gleam/core/spraying';
import type { InferType } from 'yup';
import { advise, eye } from './advise';
import { toAlbedo, toCoat } from './coats';
import { formulateOf } from './formulate';
import { toldLibrary } from './library';
import { toSpectrum } from './spectra';

type Input<N extends CalcName> = InferType<(typeof calcSchemas)[N]>;

const viewingOf = (r: { illuminant: string; observer: string }): Viewing => ({
  illuminant: r.illuminant as Illuminant,
  observer: r.observer as Observer,
});

/** Longest step between the counts at which a ladder is computed; between them Lab is interpolated. */
const LADDER_STEP = 0.25;

/** The program's own library, made ready when it is first asked for. */
let prepared: PreparedLibrary | null = null;
const shop = (): PreparedLibrary => (prepared ??= prepareLibrary());

/** Factors and colours of each geometry, as they are told. */
function told(
  geometries: readonly { incidence: number; aspecular: number }[],
  factors: Float64Array,
  viewing: Viewing,
): unknown {
  const labs = factorsToLabs(factors, viewing);
  return geometries.map((g, j) => ({ ...g, factor: [...factors.subarray(31 * j, 31 * j + 31)], lab: labs[j] }));
}

/** What the calculator does, by the word after `do`. Requests are validated before they get here. */
export const operations: { readonly [N in CalcName]: (request: Input<N>) => unknown } = {
  advise,
  eye,

  colour: (r) => {
    const viewing = viewingOf(r);
    const reflectance = toSpectrum(r.reflectance);
    const xyz = reflectanceToXyz(reflectance, viewing);
    const lab = reflectanceToLab(reflectance, viewing);
    return { xyz, lab, lch: labToLch(lab), ...xyzToScreen(xyz, viewing) };
  },

  difference: (r) => ({ value: DIFFERENCE_FORMULAS[r.formula](labOf(r.a), labOf(r.b)) }),

  interface: (r) => interfaceReflectance(r.n1, r.n2, r.incidence),

  thinFilm: (r) => thinFilmPower(r.n0, r.layers, r.exit, Math.cos((r.incidence * Math.PI) / 180), r.wavelength),

  stack: (r) => {
    const viewing = viewingOf(r);
    const film = createFilm(r.n);
    const optics = createOptics(film, r.geometries);
    const ground = { albedo: toAlbedo(film, r.ground, viewing) };
    const coats = r.coats.map((c) => prepareCoat(film, toCoat(c)));
    const factors =
      r.tier === 'fast' ? createFastModel(optics).evaluate(ground, coats) : evaluateReference(optics, ground, coats);
    return { geometries: told(r.geometries, factors, viewing) };
  },

  ladder: (r) => {
    const viewing = viewingOf(r);
    const film = createFilm(r.n);
    const model = createFastModel(createOptics(film, r.target));
    const ground = { albedo: toAlbedo(film, r.ground, viewing), coats: [] };
    const target: TargetAngle[] = r.target.map((t) => ({
      incidence: t.incidence,
      aspecular: t.aspecular,
      lab: labOf(t.lab),
      tolerance: t.tolerance ?? defaultTolerance(t.aspecular),
    }));
    const recipe = { coat: prepareCoat(film, toCoat(r.coat)) };
    const asked = coatGrid(r.coats.from, r.coats.to, r.coats.step);
    const askedLabs = ladderLabs(model, ground, recipe, asked, viewing);
    const knots = coatGrid(r.coats.from, r.coats.to, LADDER_STEP);
    if (knots.at(-1)! < r.coats.to - 1e-9) knots.push(r.coats.to);
    const stop = findStopWindow(target, knots, ladderLabs(model, ground, recipe, knots, viewing));
    return {
      steps: asked.map((coats, k) => {
        const { toleranceRatio, rmsDe } = scoreMatch(target, askedLabs[k]!);
        return { coats, labs: askedLabs[k], badness: toleranceRatio, meanDe: rmsDe };
      }),
      best: { coats: stop.best.coats, meanDe: stop.best.rmsDe },
      window: stop.window,
    };
  },

  metamerism: (r) => metamerismIndex(toSpectrum(r.reference), toSpectrum(r.sample), r.under, r.test, r.observer),

  diffuseInterface: (r) => diffuseInterface(r.n),

  kubelkaMunk: (r) => ({ reflectance: kubelkaMunkOver(r.k, r.s, r.thickness, r.over) }),

  saunderson: (r) =>
    r.internal === undefined
      ? { internal: measuredToInternal(r.measured!, r.k1, r.k2) }
      : { measured: internalToMeasured(r.internal, r.k1, r.k2) },

  mix: (r) => mixByParts(r.parts, r.cup ? { firstTo: r.cup.mark } : { total: r.total! }),

  quantity: (r) => ({
    ml: quantityMl({ ...r, loss: r.loss ?? 0 }),
    spreadingRate: spreadingRate(r.volumeSolids, r.dryFilm),
  }),

  order: (r) => {
    const pieces = r.pieces.map((p, i) => ({
      id: String(i),
      name: p.name,
      x: p.x,
      y: p.y,
      areaM2: p.area,
      first: p.first ?? false,
    }));
    const air = { towards: r.airTowards, openMinutes: r.openMinutes, minutesPerM2: r.minutesPerM2 };
    const best = bestOrder(pieces, air);
    return { order: best.map((p) => p.name), cost: orderCost(best, air), given: orderCost(pieces, air) };
  },
  filmFromGun: (r) => ({ film: filmFromGun({ ...r, transfer: r.transferEfficiency }) }),
  timeline: (r) => {
    const line = planTimeline({
      tasks: r.tasks.map((t) => ({
        id: t.id,
        coatId: null,
        areaId: null,
        minutes: t.minutes,
        painter: t.painter ?? true,
        after: (t.after ?? []).map((a) => ({ id: a.id, min: a.min, max: a.max ?? null })),
        batch: t.batch ?? null,
      })),
      batches: (r.batches ?? []).map((b) => ({ ...b, name: b.id, potMinutes: b.potMinutes ?? null })),
      now: r.now ?? 0,
      done: new Map(),
      mixed: new Map(),
    });
    return {
      ...line,
      tasks: line.tasks.map(({ id, kind, start, end, batch }) => ({ id, kind, start, end, batch: batch?.id ?? null })),
    };
  },
  families: () =>
    FAMILY_IDS.map((id) => {
      const { name, what, matched, layers, start, rungs, controlAfter, limits } = FAMILIES[id];
      const byAngle = Object.entries(limits)
        .map(([aspecular, tolerance]) => ({ aspecular: Number(aspecular), tolerance }))
        .sort((a, b) => a.aspecular - b.aspecular);
      return {
        id,
        name,
        what,
        matched,
        layers,
        start,
        rungs,
        controlAfter,
        limits: byAngle,
        source: USUAL_LIMIT_SOURCE,
      };
    }),
  library: () => toldLibrary(shop()),
  formulate: (r) => formulateOf(r, shop()),
  swatch: (r) => {
    const viewing = viewingOf(r);
    const model = shop().model(r.geometries);
    const factors = swatchFactors(shop(), model, r.layers);
    return { geometries: told(r.geometries, factors, viewing) };
  },
  ratio: (r) => {
    const read = parseRatio(r.text);
    if (!read.ok) throw new CoreError('badQuantity', read.message);
    return { parts: read.parts };
  },
  rescue: (r) => {
    const saved = rescueOverpour(r.parts, r.total, r.overpoured - 1, r.poured);
    return saved && { ml: saved.ml, parts: saved.parts };
  },
  voc: (r) =>
    vocOfMix(r.parts.map((p) => ({ ml: p.ml, vocGPerL: p.voc, waterShare: p.water ?? 0, exemptShare: p.exempt ?? 0 }))),
  potLife: (r) => ({ minutes: potLifeAt(r.minutesAt20, r.temperature) }),
  flakeDose: (r) =>
    flakeDose({
      mix: r.sizes.map((s) => ({ sizeUm: s.size, thicknessUm: s.thickness, density: s.density, parts: s.parts })),
      cover: r.cover,
      filmUm: r.dryFilm,
      volumeSolids: r.volumeSolids,
      ...(r.most === undefined ? {} : { most: r.most }),
    }),

  flakeCover: (r) => ({ cover: flakeCover(r.gramsPerM2, r.thickness, r.density, r.shape) }),

  ripple: (r) => passRipple(r.profile, r.overlap, r.plateau),

  flash: (r) => ({ minutes: flashMinutes(r) }),

  dewPoint: (r) => ({ dewPoint: dewPoint(r.temperature, r.humidity) }),
};
