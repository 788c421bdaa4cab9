import type { AskedOfFile, FileAnswers, LookedIntoFile } from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY, type OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun } from '@steady-gleam/core/products';
import { inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../db/open';
import { cards, finishes, guns, materials, photos, readings as readingRows, readingSets, verdicts } from '../db/schema';
import { ApiError } from '../errors';
import { fileType } from '../http/files';
import { laidIds, withParts } from './laid';
import type { FileSet, FinishFile, ReadFile } from './read';

/** A file of a finish that can be opened, and under which name it came. */
export interface NamedFile {
  readonly name: string;
  readonly read: Extract<ReadFile, { ok: true }>;
}

/** What the shop has: what a file asks for is looked for among it. */
export interface Shelf {
  readonly own: readonly OwnMaterial[];
  readonly guns: readonly Gun[];
  readonly finishIds: ReadonlySet<string>;
}

/** Whether the library has a ground or a mix under an id. */
const inLibrary = (kind: 'ground' | 'system', id: string | undefined): boolean =>
  (kind === 'ground' ? REFERENCE_LIBRARY.grounds : REFERENCE_LIBRARY.systems).some((m) => m.id === id);

/** What of a file the shop has not, or has otherwise: each has to be answered before it is opened. */
function askedOf(file: FinishFile, shelf: Shelf): AskedOfFile[] {
  const materialsAsked = laidIds(file.finish).flatMap(({ kind, id }): AskedOfFile[] => {
    if (inLibrary(kind, id)) return [];
    const here = shelf.own.find((m) => m.id === id);
    const brought = file.materials.find((m) => m.id === id);
    if (here?.kind === kind && (!brought || sameMaterial(here, brought))) return [];
    const name = brought?.name ?? file.names[id] ?? id;
    return [{ id, name, what: kind, comes: !!brought, other: !!here }];
  });
  const gunIds = [...new Set(file.cards.flatMap((c) => c.card.gunId ?? []))];
  const gunsAsked = gunIds.flatMap((id): AskedOfFile[] => {
    const here = shelf.guns.find((g) => g.id === id);
    const brought = file.guns.find((g) => g.id === id);
    if (here && (!brought || isDeepStrictEqual(here, brought))) return [];
    const typed = file.cards.find((c) => c.card.gunId === id)!.card.gun;
    return [{ id, name: brought?.name ?? typed, what: 'gun', comes: !!brought, other: !!here }];
  });
  return [...materialsAsked, ...gunsAsked];
}

const sameMaterial = (a: OwnMaterial, b: OwnMaterial): boolean =>
  isDeepStrictEqual(JSON.parse(JSON.stringify(a)), JSON.parse(JSON.stringify(b)));

/** What is in some files, and what they ask. */
export function lookInto(
  files: readonly NamedFile[],
  refused: LookedIntoFile['refused'],
  shelf: Shelf,
): LookedIntoFile {
  return {
    finishes: files.map(({ name, read: { file } }) => ({
      ...{ id: file.finish.id, name: file.finish.name, file: name },
      cards: file.cards.length,
      rungs: file.cards.reduce((n, c) => n + c.rungs.length, 0),
      photos: file.photos.length + file.cards.reduce((n, c) => n + c.photos.length, 0),
      here: shelf.finishIds.has(file.finish.id),
      asked: askedOf(file, shelf),
    })),
    refused,
  };
}

/** Answers to everything some files ask. @throws ApiError naming what is still to be answered, and how */
function checkAnswers(files: readonly NamedFile[], shelf: Shelf, answers: FileAnswers): void {
  const fields: Record<string, string> = {};
  for (const { read } of files) {
    const { finish } = read.file;
    const isHere = shelf.finishIds.has(finish.id);
    if (isHere && !['copy', 'skip'].includes(answers.here[finish.id] ?? ''))
      fields[`here.${finish.id}`] =
        `${finish.name} is in the bank already. Say whether to open it beside or to leave it out.`;
    if (isHere && answers.here[finish.id] === 'skip') continue;
    for (const a of askedOf(read.file, shelf)) {
      const of = a.what === 'gun' ? 'guns' : 'materials';
      const answer = answers[of][a.id];
      const field = `${of}.${a.id}`;
      const kinds: Readonly<Record<string, string>> = { ground: 'ground', system: 'mix', gun: 'gun' };
      const known =
        a.what === 'gun'
          ? shelf.guns.some((g) => g.id === answer)
          : shelf.own.some((m) => m.id === answer && m.kind === a.what) || inLibrary(a.what, answer);
      if (answer === undefined)
        fields[field] = `${a.name}: this ${kinds[a.what]} is not on the shelf here. Say what to take for it.`;
      else if (answer === 'take' && !a.comes)
        fields[field] = `${a.name} does not come with the file; choose one of yours.`;
      else if (answer !== 'take' && !(answer === 'none' && a.what === 'gun') && !known)
        fields[field] = `What was chosen for ${a.name} is not on the shelf any more.`;
    }
  }
  if (Object.keys(fields).length) throw new ApiError('badRequest', fields);
}

/**
 * Puts what is in some files into the bank, all of it or nothing. What is asked has to be answered; what exists here under an id
 * that a file brings too gets an id of its own.
 * @returns the finishes that are new
 */
export async function openFiles(
  tx: Db,
  files: readonly NamedFile[],
  shelf: Shelf,
  answers: FileAnswers,
): Promise<{ id: string; name: string }[]> {
  checkAnswers(files, shelf, answers);
  const opened: { id: string; name: string }[] = [];
  /** Ids of the files' materials and guns as they are here, once taken. */
  const materialIds = new Map<string, string>();
  const gunIds = new Map<string, string | null>();
  for (const { name, read } of files) {
    const { file } = read;
    const isHere = shelf.finishIds.has(file.finish.id);
    if (isHere && answers.here[file.finish.id] === 'skip') continue;
    await takeMaterials(tx, file, shelf, answers, materialIds);
    await takeGuns(tx, file, shelf, answers, gunIds);
    opened.push(await store(tx, name, read, isHere, { materialIds, gunIds, own: shelf.own }));
  }
  return opened;
}

async function takeMaterials(
  tx: Db,
  file: FinishFile,
  shelf: Shelf,
  answers: FileAnswers,
  ids: Map<string, string>,
): Promise<void> {
  const taken: string[] = [];
  for (const a of askedOf(file, shelf)) {
    if (a.what === 'gun' || ids.has(a.id)) continue;
    const answer = answers.materials[a.id]!;
    if (answer === 'take') taken.push(a.id);
    else ids.set(a.id, answer);
  }
  // What it is made of comes with it, where it is not here as it is there.
  const all = withParts(taken, file.materials);
  const fresh = all.filter((m) => {
    const here = shelf.own.find((o) => o.id === m.id);
    return !ids.has(m.id) && !(here && sameMaterial(here, m));
  });
  for (const m of fresh) ids.set(m.id, shelf.own.some((o) => o.id === m.id) ? randomUUID() : m.id);
  const to = (id: string): string => ids.get(id) ?? id;
  for (const m of fresh) {
    const material = renamed(m, to);
    await tx.insert(materials).values({ id: material.id, kind: material.kind, name: material.name, material });
  }
}

/** A material under its id here, made of others under theirs. */
function renamed(m: OwnMaterial, to: (id: string) => string): OwnMaterial {
  const maybe = (id: string | null) => (id === null ? null : to(id));
  if (m.kind === 'system')
    return { ...m, id: to(m.id), carrierId: to(m.carrierId), colours: m.colours.map((c) => ({ ...c, id: to(c.id) })) };
  if (m.kind === 'ground') return { ...m, id: to(m.id), pigmentId: maybe(m.pigmentId), tintId: maybe(m.tintId) };
  return { ...m, id: to(m.id) };
}

async function takeGuns(
  tx: Db,
  file: FinishFile,
  shelf: Shelf,
  answers: FileAnswers,
  ids: Map<string, string | null>,
): Promise<void> {
  for (const a of askedOf(file, shelf)) {
    if (a.what !== 'gun' || ids.has(a.id)) continue;
    const answer = answers.guns[a.id]!;
    if (answer !== 'take') {
      ids.set(a.id, answer === 'none' ? null : answer);
      continue;
    }
    const id = shelf.guns.some((g) => g.id === a.id) ? randomUUID() : a.id;
    const gun = { ...file.guns.find((g) => g.id === a.id)!, id };
    await tx.insert(guns).values({ id, name: gun.name, gun });
    ids.set(a.id, id);
  }
}

async function store(
  tx: Db,
  fileName: string,
  { file, readings }: Extract<ReadFile, { ok: true }>,
  isHere: boolean,
  {
    materialIds,
    gunIds,
    own: shelf,
  }: {
    materialIds: ReadonlyMap<string, string>;
    gunIds: ReadonlyMap<string, string | null>;
    own: readonly OwnMaterial[];
  },
): Promise<{ id: string; name: string }> {
  const to = (id: string): string => materialIds.get(id) ?? id;
  const taken = isHere ? new Set<string>() : await idsHere(tx, file);
  /** An id of the file as it is kept here. */
  const own = (id: string): string => (isHere || taken.has(id) ? randomUUID() : id);
  const { finish } = file;
  const id = isHere ? randomUUID() : finish.id;
  const pick = finish.pick && { ...finish.pick, groundId: to(finish.pick.groundId) };
  const layers = finish.layers?.map((l) => ({ ...l, materialId: l.materialId && to(l.materialId) })) ?? null;
  const mixId = finish.mixId && to(finish.mixId);
  // Whatever the file says, a finish is of the family of what it lays.
  const mix = [...REFERENCE_LIBRARY.systems, ...shelf, ...file.materials].find(
    (m) => m.id === mixId || m.id === finish.mixId,
  );
  const family = mix && 'family' in mix ? mix.family : finish.family;
  await tx.insert(finishes).values({
    ...{ id, name: finish.name, codes: [...finish.codes], matching: finish.matching, family },
    ...{ mixId, pick, layers, origin: fileName.slice(0, 200), invented: false },
  });
  const addSet = async (set: FileSet, cardId: string | null) => {
    const setId = own(set.id);
    const { kind, rungCoats, label, state, doubt, source } = set;
    const of = { finishId: id, jobId: null, cardId, objectId: null, takenAt: new Date(set.takenAt) };
    await tx.insert(readingSets).values({ id: setId, kind, rungCoats, label, state, doubt, source, ...of });
    await tx.insert(readingRows).values(readings.get(set.id)!.map((r, place) => ({ setId, place, ...r })));
  };
  const addPhoto = async (p: FinishFile['photos'][number], cardId: string | null) => {
    const bytes = Buffer.from(p.data, 'base64');
    const of = { finishId: id, cardId, kind: p.kind, coats: p.coats, takenAt: new Date(p.takenAt) };
    await tx.insert(photos).values({ id: own(p.id), ...of, type: fileType(bytes)!, bytes });
  };
  if (file.target) await addSet(file.target, null);
  for (const set of file.chips) await addSet(set, null);
  for (const photo of file.photos) await addPhoto(photo, null);
  for (const { card, retiredAt, hand, firstStop, ...of } of file.cards) {
    const cardId = own(card.id);
    const { gunId } = card;
    await tx.insert(cards).values({
      ...card,
      ...{ id: cardId, finishId: id, firstStop, retiredAt: retiredAt === null ? null : new Date(retiredAt) },
      gunId: gunId ? (gunIds.has(gunId) ? gunIds.get(gunId)! : gunId) : null,
      hand: hand && { mean: hand.mean, sd: hand.sd },
      handStyle: hand?.style ?? null,
    });
    const aside = retiredAt === null ? null : cardId;
    for (const set of of.rungs) await addSet(set, aside);
    for (const photo of of.photos) await addPhoto(photo, aside);
    for (const v of of.verdicts)
      await tx
        .insert(verdicts)
        .values({ ...v, id: own(v.id), finishId: id, cardId: aside, takenAt: new Date(v.takenAt) });
  }
  return { id, name: finish.name };
}

/** Ids of a file that something else has here. */
async function idsHere(tx: Db, file: FinishFile): Promise<ReadonlySet<string>> {
  const sets = [file.target, ...file.chips, ...file.cards.flatMap((c) => c.rungs)].flatMap((s) => (s ? [s.id] : []));
  const of = {
    sets,
    cards: file.cards.map((c) => c.card.id),
    verdicts: file.cards.flatMap((c) => c.verdicts.map((v) => v.id)),
    photos: [...file.photos, ...file.cards.flatMap((c) => c.photos)].map((p) => p.id),
  };
  const found = await Promise.all([
    of.sets.length ? tx.select({ id: readingSets.id }).from(readingSets).where(inArray(readingSets.id, of.sets)) : [],
    of.cards.length ? tx.select({ id: cards.id }).from(cards).where(inArray(cards.id, of.cards)) : [],
    of.verdicts.length ? tx.select({ id: verdicts.id }).from(verdicts).where(inArray(verdicts.id, of.verdicts)) : [],
    of.photos.length ? tx.select({ id: photos.id }).from(photos).where(inArray(photos.id, of.photos)) : [],
  ]);
  return new Set(found.flat().map((r) => r.id));
}
