import type { CardOfFinish, FinishDetail, ReadingSet } from '@steady-gleam/contracts';
import { toReadingsCsv } from '@steady-gleam/core/formats';
import { REFERENCE_LIBRARY, type OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun } from '@steady-gleam/core/products';
import { without } from '../db/rows';
import { laidIds, withParts } from './laid';
import type { FileCard, FileSet, FinishFile } from './read';
import { FILE_FORMAT, FILE_VERSION } from './schema';

const setOf = ({ readings, id, kind, rungCoats, label, state, doubt, source, takenAt }: ReadingSet): FileSet => ({
  ...{ id, kind, rungCoats, label, state, doubt, source, takenAt },
  readings: { format: 'csv', text: toReadingsCsv(readings, true) },
});

/**
 * A finish as its file has it: with its target, chips, cards and photos, and with what of the shop's shelf it is made of.
 * @param photo bytes of a photo @param hands what its cards showed of the hand
 */
export async function finishFile(
  { finish, target, chips, cards, photos }: FinishDetail,
  q: {
    readonly own: readonly OwnMaterial[];
    readonly guns: readonly Gun[];
    readonly hands: ReadonlyMap<string, FileCard['hand']>;
    readonly photo: (id: string) => Promise<Uint8Array>;
    readonly now: Date;
  },
): Promise<FinishFile> {
  const { id, name, codes, matching, family, mixId, pick, layers } = finish;
  const data = async (photoId: string) => Buffer.from(await q.photo(photoId)).toString('base64');
  const cardOf = async ({ card, retiredAt, rungs, verdicts, photos: own }: CardOfFinish): Promise<FileCard> => {
    const { firstStop } = card;
    return {
      card: without(card, 'version', 'firstStop'),
      ...{ retiredAt, hand: q.hands.get(card.id) ?? null, firstStop },
      rungs: rungs.map(setOf),
      verdicts: verdicts.map((v) => ({ ...v, hue: v.hue ?? null })),
      photos: await Promise.all(own.map(async (p) => ({ ...p, kind: 'rung' as const, data: await data(p.id) }))),
    };
  };
  const laid = laidIds(finish);
  const gunIds = cards.map((c) => c.card.gunId);
  const materials = withParts(
    laid.map((m) => m.id),
    q.own,
  );
  const known = [...REFERENCE_LIBRARY.grounds, ...REFERENCE_LIBRARY.systems, ...materials];
  return {
    ...{ format: FILE_FORMAT, version: FILE_VERSION, savedAt: q.now.toISOString() },
    finish: { ...{ id, name, codes, matching, family, mixId }, pick, layers },
    materials,
    guns: q.guns.filter((g) => gunIds.includes(g.id)),
    names: Object.fromEntries(laid.map((m) => [m.id, known.find((k) => k.id === m.id)?.name ?? m.id])),
    target: target && setOf(target),
    chips: chips.map(setOf),
    cards: await Promise.all(cards.map(cardOf)),
    photos: await Promise.all(
      photos.map(async (p) => ({ ...p, kind: 'target' as const, coats: null, data: await data(p.id) })),
    ),
  };
}
