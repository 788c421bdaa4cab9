import type { NewBatch } from '@steady-gleam/contracts';
import {
  planBatch,
  roundUpBatch,
  USUAL_LOSS_ML,
  type BatchPlan,
  type CupChoice,
  type MixGroup,
  type Need,
  type Pour,
} from '@steady-gleam/core/mixing';
import type { Gun, Product } from '@steady-gleam/core/products';
import { numberIn } from '../../shared/numberIn';

/** What the painter set for a group; texts, so that nothing typed is lost. */
export interface MixSettings extends CupChoice {
  /** Mix this instead of what is needed, ml. */
  readonly amount: string;
  /** Cup, ml; empty for the smallest that holds it. */
  readonly cup: string;
}

export const START_SETTINGS: MixSettings = { ratio: '', hardener: '', reducer: '', amount: '', cup: '', shade: [] };

/** The batch of a group as it was typed, or the sentences by field that stand in its way. */
export function typedBatch(
  pours: readonly Pour[],
  need: Need,
  settings: Pick<MixSettings, 'amount' | 'cup'>,
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
  const asked = { ml: settings.amount.trim() ? typed : null, cupMl: settings.cup.trim() ? cup : null };
  return { faults, plan: planBatch(pours, need, asked, product, temperatureC) };
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
