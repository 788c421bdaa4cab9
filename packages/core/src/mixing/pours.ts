import {
  adviseAdditive,
  additiveSuits,
  type AdditiveAdvice,
  type AdditiveRole,
  type Product,
} from '../products/products';
import type { EffectMix } from '../materials/effectMix';
import { findMix } from '../materials/mixes';
import type { Library } from '../materials/ownMaterials';
import type { MixGroup } from './groups';
import { parseRatio } from './ratio';

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

/** What the painter chose for a cup. */
export interface CupChoice {
  /** As on the sheet; empty for the product's own. */
  readonly ratio: string;
  /** Chosen hardener and reducer by name; empty for the advised ones. */
  readonly hardener: string;
  readonly reducer: string;
  /** Parts of a sealer shade, in place of the plain sealer. */
  readonly shade: readonly { readonly name: string; readonly parts: number }[];
}

/** What a nudge or a flake dose puts into a cup, to one part by volume of what is poured first. */
export interface AddedPour {
  readonly name: string;
  readonly ratio: number;
  readonly density: number | null;
  /** Dry flake, weighed into the finished mix. */
  readonly dry: boolean;
}

export interface PoursInput {
  readonly group: MixGroup;
  readonly product: Product | null;
  readonly library: Library;
  readonly settings: CupChoice;
  readonly temperatureC: number;
  readonly areaM2: number;
  /** Hardener that a clear below or above it is mixed with, by name. */
  readonly sameHardener: string | null;
  /** What a nudge or a flake dose adds, to one part of the carrier. */
  readonly added: readonly AddedPour[];
}

/** The parts of a mix at a strength; one pour of the whole where the painter's formula is not in the program: none is made up. */
function pouredOf(
  system: EffectMix,
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
  const system = group.kind === 'effect' && group.materialId ? findMix(group.materialId, library.systems) : null;
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
    const role = product?.pours[i] ?? usual[i] ?? 'reducer';
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

/** The hardener of the clears that must melt together: that of one already mixed, else what is advised below. */
export function hardenerInClears(
  group: MixGroup,
  groups: readonly MixGroup[],
  batches: readonly {
    readonly layerId: string;
    readonly parts: readonly { readonly role: string; readonly name: string }[];
  }[],
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
