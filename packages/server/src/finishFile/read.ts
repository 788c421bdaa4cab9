import {
  cardSchema,
  gunSchema,
  knownHandSchema,
  newReadingSetSchema,
  ownMaterialSchema,
  recipeSchema,
  stackLayerSchema,
  verdictEventSchema,
  type Card,
  type ReadingSet,
} from '@steady-gleam/contracts';
import type { Recipe, StackLayer } from '@steady-gleam/core/finishes';
import { parseReadingsCsv, type Reading } from '@steady-gleam/core/formats';
import { REFERENCE_LIBRARY, type OwnMaterial } from '@steady-gleam/core/materials';
import type { Gun } from '@steady-gleam/core/products';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import { ValidationError, type Schema } from 'yup';
import { fileType } from '../http/files';
import { laidIds } from './laid';
import { FILE_FORMAT, FILE_VERSION, FINISH_FILE_SCHEMA } from './schema';
import { sayFault, tellable, type FileFault } from './sayFault';

interface FilePhoto {
  readonly id: string;
  readonly kind: 'rung' | 'target';
  readonly coats: number | null;
  readonly takenAt: string;
  readonly data: string;
}

/** A set of readings as the file has it: the readings as an open text. */
export type FileSet = Omit<ReadingSet, 'readings' | 'objectId'> & {
  readonly readings: { readonly format: 'csv'; readonly text: string };
};

export interface FileCard {
  readonly card: Card;
  readonly retiredAt: string | null;
  readonly hand: {
    readonly style: string;
    readonly mean: Readonly<Record<string, number>>;
    readonly sd: Readonly<Record<string, number>>;
  } | null;
  readonly firstStop: number | null;
  readonly rungs: readonly FileSet[];
  readonly verdicts: readonly {
    readonly id: string;
    readonly coats: number;
    readonly view: string;
    readonly verdict: string | null;
    readonly hue: string | null;
    readonly takenAt: string;
  }[];
  readonly photos: readonly FilePhoto[];
}

/** A finish's file as its schema has it. */
export interface FinishFile {
  readonly format: string;
  readonly version: number;
  readonly savedAt: string;
  readonly finish: {
    readonly id: string;
    readonly name: string;
    readonly codes: readonly string[];
    readonly matching: string;
    readonly family: string | null;
    readonly mixId: string | null;
    readonly pick: Recipe | null;
    readonly layers: readonly StackLayer[] | null;
  };
  readonly materials: readonly OwnMaterial[];
  readonly guns: readonly Gun[];
  readonly names: Readonly<Record<string, string>>;
  readonly target: FileSet | null;
  readonly chips: readonly FileSet[];
  readonly cards: readonly FileCard[];
  readonly photos: readonly FilePhoto[];
}

export type ReadFile =
  | { readonly ok: true; readonly file: FinishFile; readonly readings: ReadonlyMap<string, readonly Reading[]> }
  | { readonly ok: false; readonly faults: readonly FileFault[] };

/** So many faults of a file are told. */
const MOST_FAULTS = 20;

const ajv = new Ajv({ allErrors: false, strict: false });
// Its types say nothing of how Node imports it.
// eslint-disable-next-line @typescript-eslint/no-unsafe-call
addFormats.default(ajv);
const isFile = ajv.compile<FinishFile>(FINISH_FILE_SCHEMA);

const refuse = (message: string, field = ''): ReadFile => ({ ok: false, faults: [{ field, message }] });

/**
 * What older files have otherwise, by the version they are of: each makes the next one of it. Version 1 had one code to a finish and
 * no photos.
 */
const UPGRADES: Readonly<Record<number, (old: Record<string, unknown>) => Record<string, unknown>>> = {
  1: (old) => {
    const { code, ...finish } = (old['finish'] ?? {}) as Record<string, unknown>;
    const cards = Array.isArray(old['cards']) ? old['cards'] : [];
    return {
      ...old,
      version: 2,
      finish: { ...finish, codes: typeof code === 'string' && code.trim() ? [code.trim()] : [] },
      cards: cards.map((c: object) => ({ photos: [], ...c })),
      photos: [],
    };
  },
};

/** Reads one file of a finish: everything in it is checked, field by field, before anything of it counts. */
export function readFinishFile(text: string): ReadFile {
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('This is no file of a finish, or it is damaged: it can’t be read as JSON.');
  }
  if (raw === null || typeof raw !== 'object' || Array.isArray(raw) || (raw as FinishFile).format !== FILE_FORMAT)
    return refuse(`This is no file of a finish: “format” does not say “${FILE_FORMAT}”.`, 'format');
  let file = raw as Record<string, unknown>;
  const { version } = file;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refuse('This does not say which version of the file it is.', 'version');
  if (version > FILE_VERSION)
    return refuse(
      `This file was saved by a newer program: it is version ${version}, and ${FILE_VERSION} is the latest known here.`,
      'version',
    );
  for (let v = version; v < FILE_VERSION; v++) file = UPGRADES[v]!(file);
  if (!isFile(file))
    return {
      ok: false,
      faults: tellable(isFile.errors ?? [])
        .slice(0, MOST_FAULTS)
        .map(sayFault),
    };
  return checked(file);
}

/** Ids of the library that a material can be made of. */
const PARTS = new Set(
  [REFERENCE_LIBRARY.pigments, REFERENCE_LIBRARY.dyes, REFERENCE_LIBRARY.solids, REFERENCE_LIBRARY.carriers]
    .flat()
    .map((m) => m.id),
);

/** What a material is made of, and at which field that stands. */
function partsOf(m: OwnMaterial): { readonly field: string; readonly id: string | null }[] {
  if (m.kind === 'system')
    return [
      { field: 'carrierId', id: m.carrierId },
      ...m.colours.map((c, i) => ({ field: `colours[${i}].id`, id: c.id })),
    ];
  if (m.kind !== 'ground') return [];
  return [
    { field: 'pigmentId', id: m.pigmentId },
    { field: 'tintId', id: m.tintId },
    ...m.solids.map((s, i) => ({ field: `solids[${i}].solidId`, id: s.solidId })),
  ];
}

/** What the schema can't say: that readings, cards, materials and guns are such as the shop takes them. */
function checked(file: FinishFile): ReadFile {
  const faults: FileFault[] = [];
  const readings = new Map<string, readonly Reading[]>();
  const check = (field: string, schema: Pick<Schema, 'validateSync'>, value: unknown) => {
    try {
      schema.validateSync(value, { abortEarly: false });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const inner = error.inner.length ? error.inner : [error];
      for (const e of inner) faults.push({ field: e.path ? `${field}.${e.path}` : field, message: e.message });
    }
  };
  const checkSet = (field: string, set: FileSet, kind: ReadingSet['kind']) => {
    if (set.kind !== kind) faults.push({ field: `${field}.kind`, message: `This must be ${kind}.` });
    const read = parseReadingsCsv(set.readings.text);
    if (!read.ok) {
      const [first] = read.problems;
      const line = first!.line === null ? '' : `Line ${first!.line}: `;
      faults.push({ field: `${field}.readings.text`, message: `${line}${first!.message}` });
      return;
    }
    if (readings.has(set.id)) faults.push({ field: `${field}.id`, message: 'This id stands in the file twice.' });
    readings.set(set.id, read.readings);
    check(field, newReadingSetSchema, { ...set, objectId: null, readings: read.readings });
  };
  const checkPhoto = (field: string, photo: FilePhoto) => {
    const type = fileType(Buffer.from(photo.data, 'base64'));
    if (type === null || type === 'application/pdf')
      faults.push({ field: `${field}.data`, message: 'This is not a JPEG, PNG or WebP picture in base64.' });
  };
  const once = (field: string, ids: readonly string[]) => {
    for (const [i, id] of ids.entries())
      if (ids.indexOf(id) < i)
        faults.push({ field: `${field}[${i}].id`, message: 'This id stands in the file twice.' });
  };
  const { finish } = file;
  if (finish.pick) check('finish.pick', recipeSchema, finish.pick);
  finish.layers?.forEach((l, i) => check(`finish.layers[${i}]`, stackLayerSchema, l));
  file.materials.forEach((m, i) => {
    check(`materials[${i}]`, ownMaterialSchema, m);
    for (const part of partsOf(m))
      if (part.id !== null && !PARTS.has(part.id) && !file.materials.some((o) => o.id === part.id))
        faults.push({
          field: `materials[${i}].${part.field}`,
          message: 'What this is made of does not come with the file.',
        });
  });
  for (const { kind, id } of laidIds(finish)) {
    const brought = file.materials.find((m) => m.id === id);
    if (brought && brought.kind !== kind)
      faults.push({
        field: 'finish',
        message: `${brought.name} is laid as a ${kind === 'system' ? 'mix' : 'ground'}, and is none.`,
      });
  }
  file.guns.forEach((g, i) => check(`guns[${i}]`, gunSchema, g));
  if (file.target) checkSet('target', file.target, 'target');
  file.chips.forEach((s, i) => checkSet(`chips[${i}]`, s, 'chip'));
  file.photos.forEach((p, i) => checkPhoto(`photos[${i}]`, p));
  file.cards.forEach((c, i) => {
    check(`cards[${i}].card`, cardSchema, c.card);
    if (c.hand) check(`cards[${i}].hand`, knownHandSchema, { mean: c.hand.mean, sd: c.hand.sd });
    c.rungs.forEach((s, k) => checkSet(`cards[${i}].rungs[${k}]`, s, 'rung'));
    c.verdicts.forEach((v, k) => check(`cards[${i}].verdicts[${k}]`, verdictEventSchema, v));
    c.photos.forEach((p, k) => checkPhoto(`cards[${i}].photos[${k}]`, p));
  });
  once(
    'materials',
    file.materials.map((m) => m.id),
  );
  once(
    'guns',
    file.guns.map((g) => g.id),
  );
  once(
    'cards',
    file.cards.map((c) => c.card.id),
  );
  once(
    'verdicts',
    file.cards.flatMap((c) => c.verdicts.map((v) => v.id)),
  );
  once(
    'photos',
    [...file.photos, ...file.cards.flatMap((c) => c.photos)].map((p) => p.id),
  );
  if (file.cards.filter((c) => c.retiredAt === null).length > 1)
    faults.push({
      field: 'cards',
      message: 'Only one card of a finish is in force; the others say until when they were.',
    });
  return faults.length ? { ok: false, faults: faults.slice(0, MOST_FAULTS) } : { ok: true, file, readings };
}
