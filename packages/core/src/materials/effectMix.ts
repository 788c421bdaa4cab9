import type { FinishFamily } from '../finishes/families';
import type { SolidShare } from './solids';

/** What is in the cup: an effect mix, per nominal full coat. Any number of kinds of flakes, dyes and base colours lie in it. */
export interface EffectMix {
  readonly id: string;
  readonly name: string;
  readonly family: FinishFamily;
  readonly carrierId: string;
  /** Parts at strength 1, as they are written on the sheet, the carrier first; none where they are not known. */
  readonly parts: readonly {
    readonly name: string;
    readonly parts: number;
    /** g/ml, where it is known. */
    readonly density?: number;
    /** Pigment, dye or base colour this part is the concentrate of; left out for the carrier. */
    readonly colourId?: string;
  }[];
  /** Cover of a nominal coat by each kind, 0..1. */
  readonly flakes: readonly { readonly pigmentId: string; readonly cover: number }[];
  /** Depth of a nominal coat, in units of the dye's spectrum. */
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  readonly solids: readonly SolidShare[];
  /** Dry film of a nominal full coat, um. */
  readonly filmUm: number;
  /** Flash at 20 C between coats, minutes. */
  readonly flashMinutes: number;
  readonly pricePerLitre: number;
}
