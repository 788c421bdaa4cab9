import type { Mixing } from '@steady-gleam/contracts';
import { de2000, type Lab } from '@steady-gleam/core/colour';
import { findPigment, holdsFlake, type GroundMaterial, type Library } from '@steady-gleam/core/materials';
import {
  clearToBury,
  coatsForCover,
  flakeDose,
  flakeSizesOf,
  wantedCover,
  type FlakeDose,
  type FlakeLayer,
  type FlakeSize,
} from '@steady-gleam/core/mixing';
import type { Product } from '@steady-gleam/core/products';
import { hashKey } from '@tanstack/react-query';
import { useState } from 'react';
import { useLibrary } from '../../shared/library';
import { numberIn } from '../../shared/numberIn';
import { useGroundColours } from '../../shared/useGroundColours';
import { useCompute } from '../../worker/useCompute';

/** Sizes flake is sold in, um: .004, .008, .015 and .024 inch. Common practice (no source). */
export const SIZES = [100, 200, 400, 600] as const;
export const COMPARED = [0.25, 0.5, 0.75, 0.95] as const;
/** What is typed before anything was kept. */
const START = {
  pigmentId: 'silver-flake-100',
  parts: { 100: '3', 200: '2', 400: '0', 600: '0' } as Record<number, string>,
  cover: '',
  sand: '30',
  keep: '40',
  film: '35',
};
type Form = typeof START;

const keyOf = (jobId: string) => `steady-gleam.flake.${jobId}`;
/** Before anything was kept: the flakes that are in the mix, and the clears that are over them. */
function startOf({ layer, above }: FlakeLayer, library: Library): Form {
  const clear = above.find((l) => l.kind === 'clear');
  const film = clear ? String(clear.filmUm) : START.film;
  const mix = library.systems.find((s) => s.id === layer.materialId);
  if (!mix || !holdsFlake(mix, library)) return { ...START, film };
  const sizes = flakeSizesOf(mix, library);
  const all = sizes.reduce((sum, f) => sum + f.parts, 0);
  const most = mix.flakes.reduce((a, b) => (b.cover > a.cover ? b : a));
  const partsOf = (size: number) => sizes.filter((f) => f.sizeUm === size).reduce((sum, f) => sum + f.parts, 0);
  return {
    ...START,
    film,
    pigmentId: most.pigmentId,
    // Of five parts in all, as sizes are called in a shop.
    parts: Object.fromEntries(SIZES.map((s) => [s, String(Number(((5 * partsOf(s)) / all).toFixed(1)))])),
  };
}

/** What is being typed in this window, else what is kept with the job. */
function formOf(jobId: string, kept: Mixing['flake'], found: FlakeLayer, library: Library): Form {
  const stored: Form = kept
    ? {
        pigmentId: kept.pigmentId,
        parts: Object.fromEntries(SIZES.map((s) => [s, String(kept.parts.find((p) => p.sizeUm === s)?.parts ?? 0)])),
        cover: kept.cover === null ? '' : String(Number((kept.cover * 100).toFixed(1))),
        sand: String(kept.sandUm),
        keep: String(kept.keepUm),
        film: String(kept.filmUm),
      }
    : startOf(found, library);
  try {
    return { ...stored, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<Form>) };
  } catch {
    return stored;
  }
}

/** Of the five angles: between face and flop. */
const MIDDLE = 2;

/** A dose as it goes into the job. */
export interface FlakeUse {
  readonly flake: NonNullable<Mixing['flake']>;
  readonly dose: FlakeDose;
  readonly filmUm: number;
  readonly mix: readonly FlakeSize[];
  readonly name: string;
  /** See the form. */
  readonly inMix: boolean;
}

/**
 * What is typed of a flake, what follows from it, and what stands in its way.
 * @param kept as it is kept with the job. @param found the flake layer of the job's layers as they are kept
 * @param carrier product that carries the flake; null for the usual one
 */
export function useFlakeForm(
  jobId: string,
  kept: Mixing['flake'],
  found: FlakeLayer & { readonly ground: GroundMaterial },
  carrier: Product | null,
) {
  const { ground } = found;
  const { library } = useLibrary();
  const [form, setForm] = useState(() => formOf(jobId, kept, found, library));
  const groundLab: Lab = useGroundColours()(ground.id);
  const change = (more: Partial<typeof form>) => {
    const next = { ...form, ...more };
    setForm(next);
    sessionStorage.setItem(keyOf(jobId), JSON.stringify(next));
  };
  const flakes = library.pigments.filter((p) => p.kind === 'foil');
  const pigment = flakes.find((p) => p.id === form.pigmentId) ?? findPigment('silver-flake-100');
  const { value: look } = useCompute(`flake/${pigment.id}`, (c) => c.pigmentLook(pigment.id, 0.97));
  const wanted = wantedCover(ground, look ? de2000(groundLab, look.black[MIDDLE]!) : 0);
  const faults: Record<string, string> = {};
  const mix: FlakeSize[] = SIZES.map((sizeUm) => {
    const parts = numberIn(form.parts[sizeUm] ?? '0');
    if (!(parts >= 0 && parts <= 1000)) faults[`parts.${sizeUm}`] = '0 or more.';
    return { sizeUm, parts, thicknessUm: pigment.thicknessUm, density: pigment.densityGPerCm3 };
  });
  if (!Object.keys(faults).length && mix.every((f) => f.parts === 0)) faults['parts.100'] = 'Some of one size.';
  const percent = form.cover.trim() ? numberIn(form.cover) : wanted.cover * 100;
  if (!(percent >= 5 && percent <= 99)) faults['cover'] = 'Between 5 and 99 %.';
  const within = (name: 'sand' | 'keep' | 'film', lo: number, hi: number) => {
    const v = numberIn(form[name]);
    if (!(v >= lo && v <= hi)) faults[name] = `Between ${lo} µm and ${hi} µm.`;
    return v;
  };
  const bury = { sandUm: within('sand', 0, 200), keepUm: within('keep', 10, 200), filmUm: within('film', 5, 150) };
  const good = !Object.keys(faults).length;
  const cover = percent / 100;
  const [filmUm, volumeSolids] = carrier ? [carrier.filmUm, carrier.volumeSolids] : [20, 0.2];
  // A mix that holds its flake is laid in as many coats as it needs for the cover; else the flake goes into the cup.
  const inMix = library.systems.find((s) => s.id === found.layer.materialId);
  const own = inMix && holdsFlake(inMix, library) ? coatsForCover(inMix, found.layer.strength, cover) : null;
  const coats = own === null ? {} : { coats: Math.max(0.5, Math.round(own * 2) / 2) };
  const dose = good ? flakeDose({ mix, cover, filmUm, volumeSolids, ...coats }) : null;
  const plan = good ? clearToBury({ mix, cover, tilt: pigment.tilt, ...bury }) : null;
  const flake: Mixing['flake'] = plan && {
    pigmentId: pigment.id,
    parts: mix.map(({ sizeUm, parts }) => ({ sizeUm, parts })),
    cover: form.cover.trim() ? cover : null,
    ...bury,
    buryCoats: plan.coats,
  };
  // Told from what is kept with the job, so that it is true whatever was pressed, here or elsewhere.
  const isIn = dose !== null && found.layer.coats === dose.coats && hashKey([kept]) === hashKey([flake]);
  return {
    form,
    change,
    flakes,
    pigment,
    look,
    groundLab,
    wanted,
    faults,
    mix,
    percent,
    cover,
    filmUm,
    dose,
    plan,
    bury,
    /** Lock-down and clears over it, as the layers are kept. */
    above: found.above,
    flake,
    isIn,
    /** The flake is in the mix's own parts: none is added to the cup. */
    inMix: own !== null,
    good,
  };
}

export type FlakeForm = ReturnType<typeof useFlakeForm>;
