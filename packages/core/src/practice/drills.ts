import { mixByParts, type MixedPart, type MixPart } from '../mixing/mix';
import { parseRatio } from '../mixing/ratio';
import { createRandom, seedOf } from '../numeric/random';
import { adviseAdditive, type Product } from '../products/products';

export const DRILL_KINDS = ['ratio', 'mark', 'scale'] as const;
export type DrillKind = (typeof DRILL_KINDS)[number];

/** A question of the mixing bench, with its answer and how it is had. */
export interface Drill {
  readonly kind: DrillKind;
  readonly product: string;
  /** What stands on the sheet: "4:1:2". */
  readonly ratio: string;
  readonly question: string;
  /** What stands in the cup when it is asked, and what the batch comes to, ml. */
  readonly stands: readonly MixedPart[];
  readonly totalMl: number;
  readonly unit: 'ml' | 'g';
  readonly answer: number;
  /** The working in a sentence. */
  readonly how: string;
}

/** An answer counts within this share, or within one of its unit. */
const WITHIN = 0.02;
/** Booth that hardeners and reducers are taken for, C. */
const BOOTH_C = 20;
const BATCHES = [120, 150, 200, 240, 300, 350, 400, 450, 500, 600, 750] as const;

/** What is poured, in its order; null where a ratio can't be read or only one thing is poured. */
function partsOf(product: Product): MixPart[] | null {
  const read = parseRatio(product.ratio);
  if (!read.ok || read.parts.length < 2) return null;
  return read.parts.map((parts, i): MixPart => {
    if (i === 0) return { name: product.name, parts, density: product.densityGPerMl ?? undefined };
    const role = product.pours[i - 1] ?? 'reducer';
    const { additive } = adviseAdditive(product.additives, role, BOOTH_C, 1) ?? {};
    return { name: additive?.name ?? role, parts, density: additive?.densityGPerMl ?? undefined };
  });
}

const round = (v: number) => (v < 20 ? v.toFixed(1) : v.toFixed(0));

/** The n-th question of a seed, from the shop's products; null where none of them is mixed by parts. */
export function drillOf(products: readonly Product[], seed: number, n: number): Drill | null {
  const mixed = products.flatMap((p) => {
    const parts = partsOf(p);
    return parts ? [{ product: p, parts }] : [];
  });
  if (!mixed.length) return null;
  const random = createRandom(seedOf(seed, `drill ${n}`));
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const kind = DRILL_KINDS[n % DRILL_KINDS.length]!;
  const weighed = mixed.filter(({ parts }) => parts.every((p) => p.density !== undefined));
  const { product, parts } = pick(kind === 'scale' && weighed.length ? weighed : mixed);
  const total = pick(BATCHES);
  const batch = mixByParts(parts, { total });
  const at = 1 + Math.floor(random() * (parts.length - 1));
  const part = batch.parts[at]!;
  const first = batch.parts[0]!;
  const { ratio } = product;
  const stands = batch.parts.slice(0, kind === 'ratio' ? 1 : at);
  const common = { product: product.name, ratio, stands, totalMl: total } as const;
  if (kind === 'scale' && part.runningGrams !== null && first.grams !== null) {
    const before = batch.parts[at - 1]!;
    return {
      ...{ ...common, kind, unit: 'g' },
      question: `${product.name}, ${ratio} by volume, ${total} ml. The scale shows ${round(before.runningGrams!)} g and stays as it is. What does it show when the ${part.name} is in?`,
      answer: part.runningGrams,
      how: `${round(part.ml)} ml of it weigh ${round(part.grams!)} g (${parts[at]!.density} g a ml), on top of ${round(before.runningGrams!)} g.`,
    };
  }
  if (kind === 'ratio')
    return {
      ...{ ...common, kind, unit: 'ml' },
      question: `${product.name} is mixed ${ratio} by volume. ${round(first.ml)} ml of it stand in the cup: how much ${part.name} belongs to them?`,
      answer: part.ml,
      how: `${parts[at]!.parts} to ${parts[0]!.parts}: ${round(first.ml)} ml × ${parts[at]!.parts} / ${parts[0]!.parts}.`,
    };
  return {
    ...{ ...common, kind: 'mark', unit: 'ml' },
    question: `${total} ml of ${product.name}, ${ratio} by volume, in one cup. To which mark is it filled when the ${part.name} is in?`,
    answer: part.mark,
    how: `${batch.parts
      .slice(0, at + 1)
      .map((p) => round(p.ml))
      .join(' + ')} ml in the order they are poured.`,
  };
}

/** Whether an answer is near enough to pour by. */
export const isRight = (drill: Pick<Drill, 'answer'>, said: number): boolean =>
  Math.abs(said - drill.answer) <= Math.max(1, WITHIN * drill.answer);
