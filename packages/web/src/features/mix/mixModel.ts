import type { Added, Batch, Mixing, NewBatch } from '@steady-gleam/contracts';
import {
  adviseAdditive,
  additiveSuits,
  cupFor,
  cupsOf,
  findCarrier,
  findSystem,
  mixByParts,
  needOf,
  parseRatio,
  potLifeAt,
  productFor,
  productKindOf,
  roundUpBatch,
  USUAL_CUPS,
  vocOfMix,
  type AdditiveAdvice,
  type AdditiveRole,
  type EffectSystem,
  type Gun,
  type JobPlan,
  type Library,
  type MixedPart,
  type Need,
  type Product,
  type ProductKind,
  type StackLayer,
} from '@steady-gleam/core';
import { numberIn } from '../../shared/numberIn';

/** What has to be mixed of one stuff. */
export interface MixGroup {
  /** Of its first layer. */
  readonly id: string;
  readonly name: string;
  readonly kind: StackLayer['kind'];
  readonly productKind: ProductKind;
  readonly materialId: string | null;
  readonly strength: number;
  /** On the area that gets most of them. */
  readonly coats: number;
  /** m2 it is laid on. */
  readonly areaM2: number;
  /** Dry film of all its cells x their area, um m2, that is ml of solids. */
  readonly solidMl: number;
}

/**
 * What has to be mixed for a job, from substrate to clear; layers of the same stuff share a cup.
 * @param hand film per coat of a mix as the card taught it, against nominal
 */
export function groupsOf(
  plan: Pick<JobPlan, 'layers' | 'cells'>,
  library: Library,
  hand: { readonly systemId: string; readonly film: number } | null = null,
): MixGroup[] {
  return cupsOf(plan).map((cup) => ({
    id: cup.id,
    name: cup.name,
    kind: cup.kind,
    productKind: productKindOf(cup.first, library),
    materialId: cup.first.materialId,
    strength: cup.first.strength,
    coats: cup.coats,
    areaM2: cup.areaM2,
    solidMl: cup.solidMl * (cup.kind === 'effect' && hand?.systemId === cup.first.materialId ? hand.film : 1),
  }));
}

/** The job's product for a group: the one it names, else the shop's first of that kind. */
export function productOf(
  group: MixGroup,
  library: Library,
  products: readonly Product[],
  mixing: Pick<Mixing, 'products'>,
): Product | null {
  return productFor(group, library, products, mixing.products);
}

/** One pour of a batch. */
export interface Pour {
  readonly name: string;
  readonly role: 'colour' | 'product' | AdditiveRole;
  readonly parts: number;
  readonly density?: number | undefined;
  /** Null where it is not known. */
  readonly vocGPerL: number | null;
  readonly waterShare: number;
  readonly exemptShare: number;
  readonly pricePerLitre: number | null;
  readonly advice?: AdditiveAdvice | undefined;
  /** Added by a nudge or as a flake dose. */
  readonly added?: boolean;
}

/** What the painter set for a group; texts, so that nothing typed is lost. */
export interface MixSettings {
  /** As on the sheet; empty for the product's own. */
  readonly ratio: string;
  /** Chosen hardener and reducer by name; empty for the advised ones. */
  readonly hardener: string;
  readonly reducer: string;
  /** Mix this instead of what is needed, ml. */
  readonly amount: string;
  /** Cup, ml; empty for the smallest that holds it. */
  readonly cup: string;
  /** Parts of a sealer shade, in place of the plain sealer. */
  readonly shade: readonly { readonly name: string; readonly parts: number }[];
}
export const START_SETTINGS: MixSettings = { ratio: '', hardener: '', reducer: '', amount: '', cup: '', shade: [] };

export interface PoursInput {
  readonly group: MixGroup;
  readonly product: Product | null;
  readonly library: Library;
  readonly settings: MixSettings;
  readonly temperatureC: number;
  readonly areaM2: number;
  /** Hardener that a clear below or above it is mixed with, by name. */
  readonly sameHardener: string | null;
  /** What a nudge or a flake dose adds, to one part of the carrier. */
  readonly added: readonly Added[];
}

/** The parts of a mix at a strength; one pour of the whole where the painter's formula is not in the program: none is made up. */
function pouredOf(
  system: EffectSystem,
  strength: number,
): readonly { readonly name: string; readonly parts: number; readonly density?: number | undefined }[] {
  if (system.parts.length) return system.parts.map((p, i) => ({ ...p, parts: i ? p.parts * strength : p.parts }));
  const colours = Math.abs(strength - 1) < 1e-9 ? '' : ` with ${strength.toFixed(2)} of its colours`;
  return [{ name: `${system.name}, by your formula${colours}`, parts: 1 }];
}

export interface Pours {
  readonly pours: readonly Pour[];
  /** At the ratio's field. */
  readonly ratioFault: string | null;
  /** Said under the batch: bands, hardeners that differ. */
  readonly warnings: readonly string[];
}

/** What goes into the cup, in pouring order, and what is wrong with it. */
export function poursOf(q: PoursInput): Pours {
  const { group, product, library, settings } = q;
  const tin = product
    ? {
        density: product.densityGPerMl ?? undefined,
        vocGPerL: product.vocGPerL,
        waterShare: product.waterShare,
        exemptShare: product.exemptShare,
        pricePerLitre: product.pricePerLitre,
      }
    : { density: undefined, vocGPerL: null, waterShare: 0, exemptShare: 0, pricePerLitre: null };
  const system = group.kind === 'effect' && group.materialId ? findSystem(group.materialId, library.systems) : null;
  const ground = group.kind === 'ground' ? library.grounds.find((g) => g.id === group.materialId) : null;
  const base: Pour[] = system
    ? pouredOf(system, group.strength).map((p, i) => ({
        ...tin,
        name: p.name,
        role: i ? ('colour' as const) : ('product' as const),
        parts: p.parts,
        density: p.density,
        pricePerLitre: system.pricePerLitre,
      }))
    : group.kind === 'sealer' && settings.shade.length
      ? settings.shade.map((s) => ({ ...tin, name: s.name, role: 'product' as const, parts: s.parts }))
      : [{ ...tin, name: ground?.name ?? product?.name ?? group.name, role: 'product' as const, parts: 1 }];
  if (ground) base[0] = { ...base[0]!, pricePerLitre: ground.pricePerLitre };
  const carrier = base[0]!.parts;
  for (const a of q.added.filter((x) => !x.dry)) {
    const known = base.findIndex((p) => p.name === a.name);
    // What is in the cup anyway is poured in one.
    if (known >= 0) base[known] = { ...base[known]!, parts: base[known]!.parts + a.ratio * carrier, added: true };
    else
      base.push({
        ...tin,
        name: a.name,
        role: 'colour',
        parts: a.ratio * carrier,
        density: a.density ?? undefined,
        pricePerLitre: system?.pricePerLitre ?? tin.pricePerLitre,
        added: true,
      });
  }
  const text = settings.ratio.trim() || product?.ratio || '1';
  const read = parseRatio(text);
  if (!read.ok) return { pours: base, ratioFault: read.message, warnings: [] };
  const sum = base.reduce((s, p) => s + p.parts, 0);
  const scale = system ? 1 : read.parts[0]! / sum;
  const first = system ? sum : read.parts[0]!;
  const warnings: string[] = [];
  // A ratio typed over the product's own keeps its order of pouring as far as it goes.
  const usual: AdditiveRole[] = product?.chemistry === 'two-pack' ? ['hardener', 'reducer'] : ['reducer', 'hardener'];
  const further = read.parts.slice(1).map((parts, i): Pour => {
    const role = (product?.pours[i] ?? usual[i] ?? 'reducer') as AdditiveRole;
    const amount = (parts / read.parts[0]!) * first;
    const own = (product?.additives ?? []).filter((a) => a.role === role);
    const advised = adviseAdditive(own, role, q.temperatureC, q.areaM2);
    const shared = role === 'hardener' && q.sameHardener ? own.find((a) => a.name === q.sameHardener) : undefined;
    const chosen = own.find((a) => a.name === settings[role]) ?? shared ?? advised?.additive;
    if (!chosen || !advised)
      return { name: role, role, parts: amount, vocGPerL: null, waterShare: 0, exemptShare: 0, pricePerLitre: null };
    if (!additiveSuits(chosen, q.temperatureC, q.areaM2))
      warnings.push(
        `${chosen.name} is for ${chosen.fromC} °C to ${chosen.toC} °C, and it is ${q.temperatureC} °C. Warm or cool the booth, or take another.`,
      );
    if (role === 'hardener' && q.sameHardener && chosen.name !== q.sameHardener)
      warnings.push(
        `The other clear is mixed with ${q.sameHardener}; clears that melt together want the same hardener.`,
      );
    return {
      name: chosen.name,
      role,
      parts: amount,
      density: chosen.densityGPerMl ?? undefined,
      vocGPerL: chosen.vocGPerL,
      waterShare: 0,
      exemptShare: 0,
      pricePerLitre: chosen.pricePerLitre,
      advice:
        chosen === shared && chosen !== advised.additive
          ? { additive: chosen, why: 'as in the other clear', warning: null }
          : chosen === advised.additive
            ? advised
            : { additive: chosen, why: 'your choice', warning: null },
    };
  });
  const dry = q.added
    .filter((a) => a.dry)
    .map((a): Pour => ({
      name: a.name,
      role: 'colour',
      parts: a.ratio * carrier * scale,
      density: a.density ?? undefined,
      vocGPerL: 0,
      waterShare: 0,
      exemptShare: 0,
      pricePerLitre: null,
      added: true,
    }));
  return {
    pours: [...base.map((p) => ({ ...p, parts: p.parts * scale })), ...further, ...dry],
    ratioFault: null,
    warnings,
  };
}

/** Volume solids of a group ready to spray: the product's, else the carrier's, else what is usual: common practice (no source). */
export function solidsOf(group: MixGroup, product: Product | null, library: Library): number {
  if (product) return product.volumeSolids;
  if (group.kind === 'effect' && group.materialId)
    return findCarrier(findSystem(group.materialId, library.systems).carrierId, library.carriers).volumeSolids;
  return { primer: 0.42, sealer: 0.36, ground: 0.25, lock: 0.22, clear: 0.44, effect: 0.2 }[group.kind];
}

export function needFor(
  group: Pick<MixGroup, 'solidMl'>,
  solids: number,
  gun: Pick<Gun, 'lossMl'>,
  transfer: { readonly mean: number; readonly sd: number },
): Need {
  return needOf(
    {
      area: 1,
      coats: 1,
      dryFilm: group.solidMl,
      volumeSolids: solids,
      transferEfficiency: transfer.mean,
      loss: gun.lossMl,
    },
    transfer.sd,
  );
}

export interface BatchPlan {
  readonly ml: number;
  readonly parts: readonly MixedPart[];
  /** Null when none of the usual cups holds it. */
  readonly cup: number | null;
  readonly voc: { readonly actual: number; readonly coating: number } | null;
  readonly cost: number | null;
  /** Null for what does not set. */
  readonly potMinutes: number | null;
}

/** The batch of a group, or the sentences by field that stand in its way. */
export function planBatch(
  pours: readonly Pour[],
  need: Need,
  settings: MixSettings,
  product: Product | null,
  temperatureC: number,
): { readonly plan: BatchPlan | null; readonly faults: Readonly<Record<string, string>> } {
  const faults: Record<string, string> = {};
  const typed = numberIn(settings.amount);
  if (settings.amount.trim() && !(typed > 0)) faults['amount'] = 'More than zero, or empty for what is needed.';
  else if (typed > 20_000) faults['amount'] = 'At most 20000 ml in one batch.';
  const ml = settings.amount.trim() ? typed : roundUpBatch(need.ml);
  const cup = numberIn(settings.cup);
  if (settings.cup.trim() && !(cup > 0)) faults['cup'] = 'More than zero, or empty for the smallest that holds it.';
  else if (settings.cup.trim() && ml > cup)
    faults['cup'] =
      `${Math.round(ml)} ml do not go into ${cup} ml. Take a larger cup, or mix it in ${Math.ceil(ml / cup)} parts.`;
  if (Object.keys(faults).length) return { plan: null, faults };
  const parts = mixByParts(pours, { total: ml }).parts;
  const known = pours.every((p) => p.vocGPerL !== null);
  const priced = pours.every((p) => p.pricePerLitre !== null);
  return {
    faults,
    plan: {
      ml,
      parts,
      cup: settings.cup.trim() ? cup : cupFor(ml),
      voc: known ? vocOfMix(parts.map((p, i) => ({ ...pours[i]!, ml: p.ml, vocGPerL: pours[i]!.vocGPerL! }))) : null,
      cost: priced ? parts.reduce((sum, p, i) => sum + (p.ml / 1000) * pours[i]!.pricePerLitre!, 0) : null,
      potMinutes: product?.potLifeMinutes ? potLifeAt(product.potLifeMinutes, temperatureC) : null,
    },
  };
}

/** What cup, strainer and gun keep when no gun is named, ml; common practice (no source). */
export const USUAL_LOSS_ML = 40;

/** Largest usual cup as full as it is filled, ml. */
export const MOST_IN_A_CUP = Math.max(...USUAL_CUPS) * 0.95;

/** Whether a group's coats come out of one batch, in words; null when they do. @param coatMinutes to spray one coat. */
export function whyNotOneBatch(
  ml: number,
  coats: number,
  coatMinutes: number,
  potMinutes: number | null,
  flashMinutes: number,
): string | null {
  if (ml > MOST_IN_A_CUP)
    return `more than a cup of ${Math.max(...USUAL_CUPS)} ml holds; pour the parts together first`;
  const minutes = Math.ceil(coats) * coatMinutes + (Math.ceil(coats) - 1) * flashMinutes;
  return potMinutes !== null && minutes > potMinutes
    ? `it sets after ${Math.round(potMinutes)} min, its coats take about ${Math.round(minutes)}`
    : null;
}

/** A batch as it is stored. */
export function batchOf(
  q: {
    readonly id: string;
    readonly jobId: string;
    readonly group: MixGroup;
    readonly product: Product | null;
    readonly gun: Pick<Gun, 'id' | 'lossMl'> | null;
    readonly plan: BatchPlan;
    readonly pours: readonly Pour[];
    readonly lots: readonly string[];
    readonly temperatureC: number;
    readonly solids: number;
    readonly onCard: boolean;
    readonly note: string;
  },
  mixedAt: string,
): NewBatch {
  const { plan } = q;
  return {
    id: q.id,
    jobId: q.jobId,
    layerId: q.group.id,
    name: q.group.name,
    productId: q.product?.id ?? null,
    gunId: q.gun?.id ?? null,
    parts: plan.parts.map((p, i) => ({
      name: p.name,
      role: q.pours[i]!.role,
      parts: q.pours[i]!.parts,
      ml: p.ml,
      grams: p.grams,
      lot: (q.lots[i] ?? '').trim(),
    })),
    ml: plan.ml,
    temperatureC: q.temperatureC,
    mixedAt,
    potMinutes: plan.potMinutes,
    solidMl: q.group.solidMl,
    volumeSolids: q.solids,
    lossMl: q.gun?.lossMl ?? USUAL_LOSS_ML,
    vocActual: plan.voc?.actual ?? null,
    vocCoating: plan.voc?.coating ?? null,
    cost: plan.cost,
    onCard: q.onCard,
    note: q.note.trim(),
  };
}

/** The hardener of the clears that must melt together: that of one already mixed, else what is advised below. */
export function hardenerInClears(
  group: MixGroup,
  groups: readonly MixGroup[],
  batches: readonly Batch[],
  poursFor: (g: MixGroup) => readonly Pour[],
): string | null {
  const clears = groups.filter((g) => g.productKind === 'clear' || g.productKind === 'tinted clear');
  if (clears.length < 2 || !clears.some((g) => g.id === group.id)) return null;
  const others = clears.filter((g) => g.id !== group.id);
  for (const g of others) {
    const mixed = batches.find((b) => b.layerId === g.id)?.parts.find((p) => p.role === 'hardener');
    if (mixed) return mixed.name;
  }
  // The lower one is advised on its own; those above it follow.
  const lowest = clears[0]!;
  return lowest.id === group.id ? null : (poursFor(lowest).find((p) => p.role === 'hardener')?.name ?? null);
}
