import type { Lab } from '@steady-gleam/core/colour';
import {
  coverFromParts,
  depthFromParts,
  type Library,
  type OwnSystem,
  type StrengthSource,
} from '@steady-gleam/core/materials';
import { numberIn } from '../../shared/numberIn';
import type { FormField, FormValues } from './formField';

/** Dyes a mix is entered with; a nudge may add more. */
export const DYE_PLACES = [0, 1, 2] as const;

const SOURCES: readonly { readonly value: StrengthSource; readonly name: string }[] = [
  { value: 'parts', name: 'worked out from the parts' },
  { value: 'typed', name: 'typed, as I know them' },
  { value: 'drawdown', name: 'from a drawdown or card' },
];

const named = (m: { readonly id: string; readonly name: string }) => ({ value: m.id, name: m.name });
const NONE = { value: '', name: 'none' };

/** Fields of a mix: what is in it, by which parts, and where its strengths come from. */
export function mixFields(library: Library, families: FormField['choices'], values: FormValues): readonly FormField[] {
  const typed = values['strengthFrom'] === 'typed';
  const drawdown = values['strengthFrom'] === 'drawdown';
  const dyes = DYE_PLACES.filter((i) => i === 0 || values[`dyes.${i - 1}.dyeId`]);
  return [
    { name: 'name', label: 'Name', type: 'text' },
    { name: 'family', label: 'Finish family', type: 'choice', choices: families! },
    { name: 'carrierId', label: 'Carrier', type: 'choice', choices: library.carriers.map(named) },
    { name: 'carrierParts', label: 'Carrier, parts (empty: not known)', type: 'number' },
    { name: 'pigmentId', label: 'Effect pigment', type: 'choice', choices: [NONE, ...library.pigments.map(named)] },
    { name: 'pigmentParts', label: 'Pigment, parts', type: 'number', when: 'pigmentId' },
    ...(typed
      ? [{ name: 'cover', label: 'Cover of a full coat, 0 to 0.98', type: 'number', when: 'pigmentId' } as const]
      : []),
    ...dyes.flatMap((i): FormField[] => [
      {
        name: `dyes.${i}.dyeId`,
        label: i ? 'Another dye' : 'Dye',
        type: 'choice',
        choices: [NONE, ...library.dyes.map(named)],
      },
      { name: `dyes.${i}.parts`, label: 'Dye, parts', type: 'number', when: `dyes.${i}.dyeId` },
      ...(typed
        ? [
            {
              name: `dyes.${i}.depth`,
              label: 'Its strength in a full coat',
              type: 'number',
              when: `dyes.${i}.dyeId`,
            } as const,
          ]
        : []),
    ]),
    { name: 'strengthFrom', label: 'Strengths', type: 'choice', choices: SOURCES },
    ...(drawdown
      ? ([
          {
            name: 'drawdown.groundId',
            label: 'Over which ground',
            type: 'choice',
            choices: library.grounds.map(named),
          },
          { name: 'drawdown.coats', label: 'Full coats on it', type: 'number' },
          { name: 'drawdown.lab', label: 'Cleared, 45° in, seen from the normal', type: 'lab' },
        ] as const)
      : []),
    { name: 'filmUm', label: 'Film of a full coat', type: 'number', measure: 'film' },
    { name: 'flashMinutes', label: 'Flash at 20 °C, min', type: 'number' },
    { name: 'pricePerLitre', label: 'Price, ready to spray', type: 'number', measure: 'priceByVolume' },
  ];
}

/** What a mix is taken to be where nothing says its strength: it only has to be there for a reading to be fitted. */
const USUAL = { cover: 0.3, depth: 0.5 } as const;

/** Text as a figure; nothing as null; anything else stays text, so that the schema names it. */
const read = (text: string | undefined): unknown => {
  if (text === undefined || text.trim() === '') return null;
  const value = numberIn(text);
  return Number.isNaN(value) ? text : value;
};

/** How a mix's strength is fitted to a reading: the factor on what is given. */
export type FitMix = (
  pigment: { readonly pigmentId: string; readonly cover: number } | null,
  dyes: readonly { readonly dyeId: string; readonly depth: number }[],
  drawdown: NonNullable<OwnSystem['drawdown']>,
) => Promise<{ readonly factor: number; readonly off: number }>;

export type MixResult =
  | { readonly ok: true; readonly candidate: Record<string, unknown> }
  | { readonly ok: false; readonly errors: Record<string, string> };

/** Worse than this a reading is not what the mix can look like, CIEDE2000; ours. */
const POOR_FIT = 6;

/** A mix as it was typed, with its strengths found: from parts, from a reading, or as typed. */
export async function mixCandidate(id: string, values: FormValues, library: Library, fit: FitMix): Promise<MixResult> {
  const source = (values['strengthFrom'] ?? 'parts') as StrengthSource;
  const figure = (name: string) => read(values[name]);
  const asNumber = (v: unknown): number | null => (typeof v === 'number' ? v : null);
  const carrierParts = figure('carrierParts');
  const pigmentId = values['pigmentId'] || null;
  const pigmentParts = pigmentId ? figure('pigmentParts') : null;
  const filmUm = asNumber(figure('filmUm'));
  const errors: Record<string, string> = {};
  const fromParts = (
    name: string,
    parts: unknown,
    strength: (p: number, c: number, film: number) => number,
  ): number => {
    const [p, c] = [asNumber(parts), asNumber(carrierParts)];
    if (c === null || c <= 0) errors['carrierParts'] ??= 'Give its parts, or say the strengths another way.';
    if (p === null || p <= 0) errors[name] ??= 'Give its parts, or say the strengths another way.';
    return p && c && filmUm ? strength(p, c, filmUm) : 0;
  };
  const pigment = library.pigments.find((m) => m.id === pigmentId);
  let cover: unknown = USUAL.cover;
  if (pigment && source === 'parts')
    cover = fromParts('pigmentParts', pigmentParts, (p, c, f) => coverFromParts(p, c, f, pigment.thicknessUm));
  else if (pigment && source === 'typed') cover = figure('cover') ?? undefined;
  let dyes = DYE_PLACES.filter((i) => values[`dyes.${i}.dyeId`]).map((i) => {
    const parts = figure(`dyes.${i}.parts`);
    const depth: unknown =
      source === 'parts'
        ? fromParts(`dyes.${i}.parts`, parts, depthFromParts)
        : source === 'typed'
          ? (figure(`dyes.${i}.depth`) ?? undefined)
          : USUAL.depth;
    return { dyeId: values[`dyes.${i}.dyeId`]!, parts, depth };
  });
  let drawdown: Record<string, unknown> | null = null;
  if (source === 'drawdown') {
    const lab = [0, 1, 2].map((i) => figure(`drawdown.lab.${i}`) ?? undefined);
    const coats = figure('drawdown.coats') ?? undefined;
    drawdown = { groundId: values['drawdown.groundId'] ?? '', coats, lab };
    const whole = lab.every((v) => typeof v === 'number') && typeof coats === 'number' && coats > 0;
    if (whole && drawdown['groundId'] && (pigment || dyes.length)) {
      // Where the parts are known they set the proportion, else all colours are taken alike; the reading sets the strength.
      const c = asNumber(carrierParts);
      const start = {
        cover:
          pigment && c && asNumber(pigmentParts) && filmUm
            ? coverFromParts(asNumber(pigmentParts)!, c, filmUm, pigment.thicknessUm)
            : USUAL.cover,
        depths: dyes.map((d) =>
          c && asNumber(d.parts) && filmUm ? depthFromParts(asNumber(d.parts)!, c, filmUm) : USUAL.depth,
        ),
      };
      const { factor, off } = await fit(
        pigment ? { pigmentId: pigment.id, cover: start.cover } : null,
        dyes.map((d, i) => ({ dyeId: d.dyeId, depth: start.depths[i]! })),
        { groundId: String(drawdown['groundId']), coats: coats as number, lab: lab as unknown as Lab },
      );
      if (off > POOR_FIT)
        errors['drawdown.lab'] =
          `No strength of this mix looks like that over this ground; nearest stays ${off.toFixed(1)} dE00 off. Check ground, coats and what is in it.`;
      cover = 1 - (1 - start.cover) ** factor;
      dyes = dyes.map((d, i) => ({ ...d, depth: start.depths[i]! * factor }));
    }
  }
  if (Object.keys(errors).length) return { ok: false, errors };
  return {
    ok: true,
    candidate: {
      kind: 'system',
      id,
      name: values['name'] ?? '',
      family: values['family'] ?? '',
      carrierId: values['carrierId'] ?? '',
      carrierParts,
      pigmentId,
      pigmentParts,
      cover: pigment ? cover : USUAL.cover,
      dyes,
      strengthFrom: source,
      drawdown,
      filmUm: figure('filmUm') ?? undefined,
      flashMinutes: figure('flashMinutes') ?? undefined,
      pricePerLitre: figure('pricePerLitre') ?? undefined,
    },
  };
}

/** A stored mix as form values. */
export function mixValues(own: OwnSystem): FormValues {
  const text = (v: number | string | null) =>
    v === null ? '' : String(typeof v === 'number' ? Number(v.toFixed(5)) : v);
  return {
    name: own.name,
    family: own.family,
    carrierId: own.carrierId,
    carrierParts: text(own.carrierParts),
    pigmentId: text(own.pigmentId),
    pigmentParts: text(own.pigmentParts),
    cover: text(own.cover),
    strengthFrom: own.strengthFrom,
    filmUm: text(own.filmUm),
    flashMinutes: text(own.flashMinutes),
    pricePerLitre: text(own.pricePerLitre),
    'drawdown.groundId': own.drawdown?.groundId ?? 'white',
    'drawdown.coats': text(own.drawdown?.coats ?? null),
    ...Object.fromEntries((own.drawdown?.lab ?? []).map((v, i) => [`drawdown.lab.${i}`, text(v)])),
    ...Object.fromEntries(
      own.dyes.flatMap((d, i) => [
        [`dyes.${i}.dyeId`, d.dyeId],
        [`dyes.${i}.parts`, text(d.parts)],
        [`dyes.${i}.depth`, text(d.depth)],
      ]),
    ),
  };
}

/** A mix of the library as the start of one's own: its parts and strengths as they stand there. */
export function mixCopy(id: string, library: Library): FormValues | null {
  const s = library.systems.find((m) => m.id === id);
  if (!s || s.dyes.length > DYE_PLACES.length) return null;
  const pigment = library.pigments.find((p) => p.id === s.flake?.pigmentId);
  const [carrier, ...rest] = s.parts;
  const pigmentPart = pigment ? rest.find((p) => !p.dyeId) : undefined;
  return mixValues({
    kind: 'system',
    id: '',
    name: `${s.name}, ours`,
    family: s.family,
    carrierId: s.carrierId,
    carrierParts: carrier?.parts ?? null,
    pigmentId: pigment?.id ?? null,
    pigmentParts: pigmentPart?.parts ?? null,
    cover: s.flake?.cover ?? USUAL.cover,
    dyes: s.dyes.map((d) => ({ ...d, parts: rest.find((p) => p.dyeId === d.dyeId)?.parts ?? null })),
    strengthFrom: 'typed',
    drawdown: null,
    filmUm: s.filmUm,
    flashMinutes: s.flashMinutes,
    pricePerLitre: s.pricePerLitre,
  });
}
