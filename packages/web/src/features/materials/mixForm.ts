import { labOf } from '@steady-gleam/core/colour';
import { MOST_COLOURS } from '@steady-gleam/contracts';
import {
  coloursOf,
  COLOUR_KINDS,
  coverFromParts,
  depthFromParts,
  sharesFromParts,
  type ColourKind,
  type Library,
  type OwnColour,
  type OwnSystem,
  type StrengthSource,
} from '@steady-gleam/core/materials';
import { parseRatio } from '@steady-gleam/core/mixing';
import { numberIn } from '../../shared/numberIn';
import type { Checked } from '../../shared/checkWith';
import type { FormField, FormValues } from './formField';

/** Colours a mix is entered with. */
export const COLOUR_PLACES = Array.from({ length: MOST_COLOURS }, (_, i) => i);

const SOURCES: readonly { readonly value: StrengthSource; readonly name: string }[] = [
  { value: 'parts', name: 'worked out from the parts' },
  { value: 'typed', name: 'typed, as I know them' },
  { value: 'drawdown', name: 'from a drawdown or card' },
];

const named = (m: { readonly id: string; readonly name: string }) => ({ value: m.id, name: m.name });
const NONE = { value: '', name: 'none' };

const KIND_NAMES: Record<ColourKind, string> = { flake: 'pigment', dye: 'dye', solid: 'base colour' };
const STRENGTH_LABELS: Record<ColourKind, string> = {
  flake: 'Its cover in a full coat, 0 to 0.98',
  dye: 'Its depth in a full coat',
  solid: 'Its share of the film, 0 to 1',
};

/** A colour of the library as a choice of the form, and back. */
const choiceOf = (c: Pick<OwnColour, 'kind' | 'id'>): string => `${c.kind}/${c.id}`;
const colourOf = (choice: string | undefined): Pick<OwnColour, 'kind' | 'id'> | null => {
  const [kind, ...id] = (choice ?? '').split('/');
  return COLOUR_KINDS.includes(kind as ColourKind) ? { kind: kind as ColourKind, id: id.join('/') } : null;
};

/** Fields of a mix: what is in it, by which parts, and where its strengths come from. */
export function mixFields(library: Library, families: FormField['choices'], values: FormValues): readonly FormField[] {
  const typed = values['strengthFrom'] === 'typed';
  const drawdown = values['strengthFrom'] === 'drawdown';
  const places = COLOUR_PLACES.filter((i) => i === 0 || values[`colours/${i - 1}/id`]);
  const colours = COLOUR_KINDS.flatMap((kind) =>
    coloursOf(library, kind).map((c) => ({
      value: choiceOf({ kind, id: c.id }),
      name: `${c.name} (${KIND_NAMES[kind]})`,
    })),
  );
  return [
    { name: 'name', label: 'Name', type: 'text' },
    { name: 'family', label: 'Finish family', type: 'choice', choices: families! },
    { name: 'carrierId', label: 'Carrier', type: 'choice', choices: library.carriers.map(named) },
    { name: 'ratio', label: 'All parts in one line, carrier first: 6:1:1', type: 'text' },
    { name: 'carrierParts', label: 'Carrier, parts (empty: not known)', type: 'number' },
    ...places.flatMap((i): FormField[] => {
      const chosen = colourOf(values[`colours/${i}/id`]);
      return [
        {
          name: `colours/${i}/id`,
          label: i ? 'And' : 'Colour: pigment, dye or base colour',
          type: 'choice',
          choices: [NONE, ...colours],
        },
        { name: `colours/${i}/parts`, label: 'Its parts', type: 'number', when: `colours/${i}/id` },
        ...(typed && chosen
          ? [{ name: `colours/${i}/strength`, label: STRENGTH_LABELS[chosen.kind], type: 'number' } as const]
          : []),
      ];
    }),
    { name: 'strengthFrom', label: 'Strengths', type: 'choice', choices: SOURCES },
    ...(drawdown
      ? ([
          {
            name: 'drawdown/groundId',
            label: 'Over which ground',
            type: 'choice',
            choices: library.grounds.map(named),
          },
          { name: 'drawdown/coats', label: 'Full coats on it', type: 'number' },
          { name: 'drawdown/lab', label: 'Cleared, 45° in, seen from the normal', type: 'lab' },
        ] as const)
      : []),
    { name: 'filmUm', label: 'Film of a full coat', type: 'number', measure: 'film' },
    { name: 'flashMinutes', label: 'Flash at 20 °C, min', type: 'number' },
    { name: 'pricePerLitre', label: 'Price, ready to spray', type: 'number', measure: 'priceByVolume' },
  ];
}

/** What a mix is taken to be where nothing says its strength: it only has to be there for a reading to be fitted. */
const USUAL: Record<ColourKind, number> = { flake: 0.3, dye: 0.5, solid: 0.5 };

/** Text as a figure; nothing as null; anything else stays text, so that the schema names it. */
const read = (text: string | undefined): unknown => {
  if (text === undefined || text.trim() === '') return null;
  const value = numberIn(text);
  return Number.isNaN(value) ? text : value;
};

/** A colour with the strength it has in a nominal coat. */
export type StrongColour = Pick<OwnColour, 'kind' | 'id' | 'strength'>;

/** How a mix's strength is fitted to a reading: the factor on what is given. */
export type FitMix = (
  colours: readonly StrongColour[],
  filmUm: number,
  drawdown: NonNullable<OwnSystem['drawdown']>,
) => Promise<{ readonly factor: number; readonly off: number }>;

/** Worse than this a reading is not what the mix can look like, CIEDE2000; ours. */
const POOR_FIT = 6;

/** At another strength of the whole mix: covers join as chances of missing do, base colours fill the film at most. */
function atFactor({ kind, strength }: StrongColour, factor: number): number {
  if (kind === 'flake') return 1 - (1 - strength) ** factor;
  return kind === 'solid' ? Math.min(1, strength * factor) : strength * factor;
}

/** A mix as it was typed, with its strengths found: from parts, from a reading, or as typed. */
export async function mixCandidate(
  id: string,
  values: FormValues,
  library: Library,
  fit: FitMix,
): Promise<Checked<Record<string, unknown>>> {
  const source = (values['strengthFrom'] ?? 'parts') as StrengthSource;
  const figure = (name: string) => read(values[name]);
  const asNumber = (v: unknown): number | null => (typeof v === 'number' ? v : null);
  const carrierParts = figure('carrierParts');
  const filmUm = asNumber(figure('filmUm'));
  const faults: Record<string, string> = {};
  const typed = COLOUR_PLACES.flatMap((i) => {
    const chosen = colourOf(values[`colours/${i}/id`]);
    return chosen ? [{ ...chosen, place: i, parts: figure(`colours/${i}/parts`) }] : [];
  });
  const c = asNumber(carrierParts);
  const solids = typed.filter((t) => t.kind === 'solid');
  const shares = sharesFromParts(
    solids.map((t) => asNumber(t.parts) ?? 0),
    c ?? 0,
  );
  /** Strength from the parts; null where they are not all known. */
  const fromParts = (t: (typeof typed)[number]): number | null => {
    const p = asNumber(t.parts);
    if (!(p !== null && p > 0 && c !== null && c > 0 && filmUm !== null)) return null;
    if (t.kind === 'dye') return depthFromParts(p, c, filmUm);
    if (t.kind === 'solid') return shares[solids.indexOf(t)]!;
    return coverFromParts(p, c, filmUm, library.pigments.find((m) => m.id === t.id)?.thicknessUm ?? 1);
  };
  let colours: { kind: ColourKind; id: string; parts: unknown; strength: unknown }[] = typed.map((t) => {
    const { kind, parts } = t;
    if (source === 'parts') {
      if (c === null || c <= 0) faults['carrierParts'] ??= 'Give its parts, or say the strengths another way.';
      if (!((asNumber(parts) ?? 0) > 0))
        faults[`colours/${t.place}/parts`] ??= 'Give its parts, or say the strengths another way.';
    }
    const strength =
      source === 'typed' ? (figure(`colours/${t.place}/strength`) ?? undefined) : (fromParts(t) ?? USUAL[kind]);
    return { kind, id: t.id, parts, strength };
  });
  let drawdown: Record<string, unknown> | null = null;
  if (source === 'drawdown') {
    const lab = [0, 1, 2].map((i) => figure(`drawdown/lab/${i}`) ?? undefined);
    const coats = figure('drawdown/coats') ?? undefined;
    drawdown = { groundId: values['drawdown/groundId'] ?? '', coats, lab };
    const whole = lab.every((v) => typeof v === 'number') && typeof coats === 'number' && coats > 0;
    if (whole && values['drawdown/groundId'] && colours.length) {
      // Where the parts are known they set the proportion, else all colours are taken alike; the reading sets the strength.
      const strong = colours as StrongColour[];
      const { factor, off } = await fit(strong, filmUm ?? 9, {
        groundId: values['drawdown/groundId'],
        coats: coats,
        lab: labOf(lab),
      });
      if (off > POOR_FIT)
        faults['drawdown/lab'] =
          `No strength of this mix looks like that over this ground; nearest stays ${off.toFixed(1)} dE00 off. Check ground, coats and what is in it.`;
      colours = colours.map((o, i) => ({ ...o, strength: atFactor(strong[i]!, factor) }));
    }
  }
  if (Object.keys(faults).length) return { ok: false, faults };
  return {
    ok: true,
    value: {
      kind: 'system',
      id,
      name: values['name'] ?? '',
      family: values['family'] ?? '',
      carrierId: values['carrierId'] ?? '',
      carrierParts,
      colours,
      strengthFrom: source,
      drawdown,
      filmUm: figure('filmUm') ?? undefined,
      flashMinutes: figure('flashMinutes') ?? undefined,
      pricePerLitre: figure('pricePerLitre') ?? undefined,
    },
  };
}

/** Form values with a ratio such as 6:1:1 in the fields of its parts, carrier first; as they were where it is none. */
export function withRatio(values: FormValues, ratio: string): FormValues {
  const read = parseRatio(ratio);
  const next = { ...values, ratio };
  if (!read.ok || read.parts.length < 2) return next;
  const [carrier, ...colours] = read.parts;
  return {
    ...next,
    carrierParts: String(carrier),
    ...Object.fromEntries(colours.slice(0, MOST_COLOURS).map((p, i) => [`colours/${i}/parts`, String(p)])),
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
    strengthFrom: own.strengthFrom,
    filmUm: text(own.filmUm),
    flashMinutes: text(own.flashMinutes),
    pricePerLitre: text(own.pricePerLitre),
    'drawdown/groundId': own.drawdown?.groundId ?? 'white',
    'drawdown/coats': text(own.drawdown?.coats ?? null),
    ...Object.fromEntries((own.drawdown?.lab ?? []).map((v, i) => [`drawdown/lab/${i}`, text(v)])),
    ...Object.fromEntries(
      own.colours.flatMap((c, i) => [
        [`colours/${i}/id`, choiceOf(c)],
        [`colours/${i}/parts`, text(c.parts)],
        [`colours/${i}/strength`, text(c.strength)],
      ]),
    ),
  };
}

/** A mix of the library as the start of one's own: its parts and strengths as they stand there. */
export function mixCopy(id: string, library: Library): FormValues | null {
  const s = library.systems.find((m) => m.id === id);
  if (!s) return null;
  const partsOf = (colourId: string) => s.parts.find((p) => p.colourId === colourId)?.parts ?? null;
  const colour = (kind: ColourKind, colourId: string, strength: number): OwnColour => ({
    ...{ kind, id: colourId, strength },
    parts: partsOf(colourId),
  });
  return mixValues({
    kind: 'system',
    id: '',
    name: `${s.name}, ours`,
    family: s.family,
    carrierId: s.carrierId,
    carrierParts: s.parts[0]?.parts ?? null,
    colours: [
      ...s.flakes.map((f) => colour('flake', f.pigmentId, f.cover)),
      ...s.dyes.map((d) => colour('dye', d.dyeId, d.depth)),
      ...s.solids.map((d) => colour('solid', d.solidId, d.share)),
    ],
    strengthFrom: 'typed',
    drawdown: null,
    filmUm: s.filmUm,
    flashMinutes: s.flashMinutes,
    pricePerLitre: s.pricePerLitre,
  });
}
