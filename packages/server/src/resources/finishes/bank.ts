import { bankIndex, type BankIndex, type BankReading } from '@steady-gleam/core/bank';
import type { ReadingsRepo } from '../readings/repo';

/** Sets read at once, so that nobody waits long behind a large bank. */
const AT_ONCE = 1000;

/**
 * Every reading of the bank, laid out for the search. It is read again only when a reading came, went or changed, and by one for all
 * who ask meanwhile.
 */
export function createBank(readings: Pick<ReadingsRepo, 'bankStamp' | 'bankSets'>): () => Promise<BankIndex> {
  let known: { readonly stamp: string; readonly index: Promise<BankIndex> } | null = null;
  return async () => {
    const stamp = await readings.bankStamp();
    if (known?.stamp !== stamp) {
      const index = readAll(readings);
      known = { stamp, index };
      // A failed read is not kept: the next one tries again.
      index.catch(() => (known = null));
    }
    return known.index;
  };
}

async function readAll(readings: Pick<ReadingsRepo, 'bankSets'>): Promise<BankIndex> {
  /** The newest of each card's rung, and of each finish's target; what was read wet is not what it will be. */
  const newest = new Map<string, BankReading>();
  for (let after = 0; ;) {
    const sets = await readings.bankSets(after, AT_ONCE);
    for (const set of sets) {
      after = set.sequence;
      const isRung = set.kind === 'rung';
      const cardId = isRung ? (set.ownCard ?? set.cardInForce) : null;
      if (set.state !== 'cleared' || (isRung && cardId === null)) continue;
      newest.set(isRung ? `${cardId} ${set.coats}` : set.finishId!, {
        ...{ id: set.id, finishId: set.finishId!, cardId, coats: isRung ? set.coats : null },
        angles: set.angles.map(({ incidence, aspecular, l, a, b }) => ({ incidence, aspecular, lab: [l, a, b] })),
      });
    }
    if (sets.length < AT_ONCE) return bankIndex([...newest.values()]);
  }
}
