import { FAMILIES, FAMILY_IDS } from '@steady-gleam/core/finishes';
import { solidsLook, thicknessOf, type Library, type OwnMaterial, type SolidsLook } from '@steady-gleam/core/materials';
import type { Film } from '@steady-gleam/core/optics';

import { numberIn } from '../../shared/numberIn';
import type { FormField, FormValues } from './formField';
import { mixCopy, mixFields, mixValues } from './mixForm';

export type MaterialKind = OwnMaterial['kind'];

const named = (m: { readonly id: string; readonly name: string }) => ({ value: m.id, name: m.name });
const NONE = { value: '', name: 'none' };

/** Most coats a ground is said to hide in. */
const MOST_HIDING = 60;
/** Base colours a ground is mixed of. */
const SOLID_PLACES = [0, 1, 2, 3, 4] as const;

/** Parts of a ground as they are typed; those that are no figure stay text, so that the schema names them. */
const solidsTyped = (values: FormValues): { solidId: string; parts: unknown }[] =>
  SOLID_PLACES.flatMap((i) => {
    const solidId = values[`solids/${i}/solidId`];
    const text = values[`solids/${i}/parts`] ?? '';
    const parts = numberIn(text);
    return solidId ? [{ solidId, parts: text.trim() === '' ? undefined : Number.isNaN(parts) ? text : parts }] : [];
  });

/** What a ground's base colours come to as they are typed; null while they say nothing yet. */
export function groundLook(film: Film, values: FormValues): SolidsLook | null {
  if (values['from'] !== 'parts') return null;
  const parts = solidsTyped(values).flatMap(({ solidId, parts: p }) =>
    typeof p === 'number' && p > 0 ? [{ solidId, parts: p }] : [],
  );
  return parts.length ? solidsLook(film, parts) : null;
}

/** Fields of each kind of material, in the order they are filled in. */
export function fieldsOf(kind: MaterialKind, library: Library, values: FormValues): readonly FormField[] {
  const price: FormField = {
    name: 'pricePerLitre',
    label: 'Price, ready to spray',
    type: 'number',
    measure: 'priceByVolume',
  };
  const name: FormField = { name: 'name', label: 'Name', type: 'text' };
  switch (kind) {
    case 'ground':
      return [
        name,
        { name: 'mark', label: 'Mark on the map', type: 'text' },
        {
          name: 'from',
          label: 'Its look comes from',
          type: 'choice',
          choices: [
            { value: 'reading', name: 'a reading of its drawdown' },
            { value: 'parts', name: 'base colours mixed by parts' },
          ],
        },
        ...(values['from'] === 'parts'
          ? SOLID_PLACES.filter((i) => i === 0 || values[`solids/${i - 1}/solidId`]).flatMap((i): FormField[] => [
              {
                name: `solids/${i}/solidId`,
                label: i ? 'And' : 'Base colour',
                type: 'choice',
                choices: [NONE, ...library.solids.map(named)],
              },
              { name: `solids/${i}/parts`, label: 'Its parts', type: 'number', when: `solids/${i}/solidId` },
            ])
          : ([
              { name: 'lab', label: 'Cleared drawdown, 45° in, seen from the normal', type: 'lab' },
              { name: 'hidesIn', label: 'Full coats until it hides', type: 'number' },
            ] as const)),
        {
          name: 'pigmentId',
          label: 'Flakes over it, for a metallic',
          type: 'choice',
          choices: [{ value: '', name: 'none: a solid' }, ...library.pigments.map(named)],
        },
        { name: 'cover', label: 'Cover of the flakes, 0.05 to 0.99', type: 'number', when: 'pigmentId' },
        {
          name: 'tintId',
          label: 'Dye that tints the metallic',
          type: 'choice',
          choices: [NONE, ...library.dyes.map(named)],
          when: 'pigmentId',
        },
        { name: 'tintDepth', label: 'Strength of the tint', type: 'number', when: 'tintId' },
        price,
      ];
    case 'pigment':
      return [
        name,
        {
          name: 'structure',
          label: 'Flake',
          type: 'choice',
          choices: [
            { value: 'titania-mica', name: 'Titania on mica' },
            { value: 'iron-oxide-mica', name: 'Iron oxide on mica' },
            { value: 'metal-spacer', name: 'Colour-shift: a spacer on metal' },
          ],
        },
        { name: 'filmNm', label: 'Film, nm', type: 'number' },
        { name: 'sizeUm', label: 'Flake size, µm', type: 'number' },
        { name: 'tilt', label: 'Tilt as laid, degrees rms', type: 'number' },
        { name: 'edge', label: 'Edge share, 0 to 0.5', type: 'number' },
      ];
    case 'dye':
      return [
        name,
        { name: 'bare', label: 'Drawdown without dye', type: 'lab' },
        { name: 'dyed', label: 'The same with dyed clear over it', type: 'lab' },
        { name: 'coats', label: 'Coats of it', type: 'number' },
      ];
    case 'carrier':
      return [
        name,
        {
          name: 'chemistry',
          label: 'Chemistry',
          type: 'choice',
          choices: [
            { value: 'solvent', name: 'Solvent' },
            { value: 'waterborne', name: 'Waterborne' },
            { value: 'two-pack', name: 'Two-pack' },
          ],
        },
        { name: 'volumeSolids', label: 'Volume solids ready to spray, 0 to 1', type: 'number' },
        { name: 'filmUm', label: 'Film of a full coat', type: 'number', measure: 'film' },
        { name: 'densityGPerMl', label: 'Density ready to spray', type: 'number', measure: 'density' },
        { name: 'flashMinutes', label: 'Flash at 20 °C, min', type: 'number' },
      ];
    case 'system':
      return mixFields(
        library,
        FAMILY_IDS.map((f) => ({ value: f, name: FAMILIES[f].name })),
        values,
      );
  }
}

/** Typed values as a candidate for the schema; what is not a number stays text, so that the schema names it. */
export function toCandidate(
  kind: MaterialKind,
  id: string,
  values: FormValues,
  fields: readonly FormField[],
  film: Film,
): Record<string, unknown> {
  const read = (text: string | undefined): unknown =>
    text === undefined || text.trim() === '' ? undefined : Number.isNaN(numberIn(text)) ? text : numberIn(text);
  const out: Record<string, unknown> = { kind, id };
  for (const f of fields) {
    if (f.name === 'from' || f.name.startsWith('solids/')) continue;
    if (f.type === 'lab') out[f.name] = [0, 1, 2].map((i) => read(values[`${f.name}/${i}`]));
    else if (f.type === 'number') out[f.name] = read(values[f.name]);
    else if (['pigmentId', 'tintId'].includes(f.name)) out[f.name] = values[f.name] || null;
    else out[f.name] = values[f.name] ?? '';
  }
  if (kind !== 'ground' || values['from'] !== 'parts') return out;
  // Look and hiding of a ground that is mixed by parts follow from them; bases that never hide count as many coats as may be said.
  const look = groundLook(film, values);
  return { ...out, solids: solidsTyped(values), lab: look?.lab, hidesIn: look?.hidesIn ?? MOST_HIDING };
}

export function toValues(material: OwnMaterial): FormValues {
  if (material.kind === 'system') return mixValues(material);
  const out: FormValues = {};
  if (material.kind === 'ground') {
    out['from'] = material.solids.length ? 'parts' : 'reading';
    material.solids.forEach((s, i) => {
      out[`solids/${i}/solidId`] = s.solidId;
      out[`solids/${i}/parts`] = String(s.parts);
    });
  }
  for (const [key, value] of Object.entries(material)) {
    if (key === 'solids') continue;
    if (Array.isArray(value)) value.forEach((v, i) => (out[`${key}/${i}`] = String(v)));
    else out[key] = value === null ? '' : String(value);
  }
  return out;
}

export const EMPTY: Record<MaterialKind, FormValues> = {
  ground: {
    from: 'reading',
    hidesIn: '3',
    pigmentId: '',
    cover: '0.93',
    tintId: '',
    tintDepth: '1',
    pricePerLitre: '30',
  },
  pigment: { structure: 'titania-mica', filmNm: '130', sizeUm: '20', tilt: '9', edge: '0.08' },
  dye: { coats: '1' },
  carrier: { chemistry: 'solvent', volumeSolids: '0.2', filmUm: '10', densityGPerMl: '0.95', flashMinutes: '10' },
  system: {
    family: FAMILY_IDS[0]!,
    carrierId: 'binder',
    carrierParts: '',
    'colours/0/id': 'flake/white-pearl-fine',
    strengthFrom: 'parts',
    'drawdown/groundId': 'white',
    'drawdown/coats': '2',
    filmUm: '9',
    flashMinutes: '10',
    pricePerLitre: '80',
  },
};

/** Starting values for a copy of something in the library, or null when its kind can't be copied by these fields. */
export function copyOf(kind: MaterialKind, id: string, library: Library): FormValues | null {
  if (kind === 'ground') {
    const g = library.grounds.find((m) => m.id === id);
    if (!g) return null;
    return {
      name: `${g.name}, ours`,
      mark: g.mark,
      'lab/0': String(g.lab[0]),
      'lab/1': String(g.lab[1]),
      'lab/2': String(g.lab[2]),
      ...EMPTY.ground,
      hidesIn: String(g.hidesIn),
      pigmentId: g.flakes?.pigmentId ?? '',
      cover: String(g.flakes?.cover ?? 0.93),
      tintId: g.flakes?.tint?.[0] ?? '',
      tintDepth: String(g.flakes?.tint?.[1] ?? 1),
      pricePerLitre: String(g.pricePerLitre),
    };
  }
  if (kind === 'pigment') {
    const p = library.pigments.find((m) => m.id === id);
    const film = p && thicknessOf(p);
    if (!p || !film) return null;
    return {
      name: `${p.name}, ours`,
      structure: film.structure,
      filmNm: String(film.filmNm),
      sizeUm: String(p.sizeUm),
      tilt: String(p.tilt),
      edge: String(p.edge),
    };
  }
  if (kind === 'carrier') {
    const c = library.carriers.find((m) => m.id === id);
    return c
      ? {
          name: `${c.name}, ours`,
          chemistry: c.chemistry,
          volumeSolids: String(c.volumeSolids),
          filmUm: String(c.filmUm),
          densityGPerMl: String(c.densityGPerMl),
          flashMinutes: String(c.flashMinutes),
        }
      : null;
  }
  if (kind === 'system') return mixCopy(id, library);
  return null;
}
