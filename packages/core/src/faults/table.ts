/** Why a fault comes about; evidence for it may stand in a job's log. */
export type CauseId =
  | 'wet-below'
  | 'window-passed'
  | 'too-heavy'
  | 'uneven-pitch'
  | 'too-close'
  | 'too-far'
  | 'panel-by-panel'
  | 'missed-pass'
  | 'not-stirred'
  | 'reach'
  | 'fast-reducer'
  | 'cold'
  | 'dry-overspray'
  | 'low-pressure'
  | 'grease'
  | 'no-tack'
  | 'blown'
  | 'short-standing'
  | 'thick-build'
  | 'coarse-prep'
  | 'hard-line'
  | 'spitting-cap'
  | 'thin-ground'
  | 'damp'
  | 'no-tooth';

/** A cause as it is said, by itself and as what to look to next time. */
export const CAUSES: Readonly<Record<CauseId, { readonly said: string; readonly instead: string }>> = {
  'wet-below': { said: 'what lay below was not dry', instead: 'wait until it is evenly dull, not only by the clock' },
  'window-passed': { said: 'the recoat window had closed', instead: 'scuff it, or keep to the window' },
  'too-heavy': { said: 'a coat was laid too wet or too heavy', instead: 'a quarter turn less, or a little faster' },
  'uneven-pitch': {
    said: 'passes did not overlap evenly',
    instead: 'three quarters of overlap, coats shifted or crossed',
  },
  'too-close': { said: 'the gun was too close', instead: 'back to the card’s distance' },
  'too-far': { said: 'the gun was too far', instead: 'nearer, to the card’s distance' },
  'panel-by-panel': {
    said: 'sides were done panel by panel, or two passes ended on one edge',
    instead: 'walk the whole side, trigger off beyond it',
  },
  'missed-pass': {
    said: 'a pass missed there, or the gun stood at an angle',
    instead: 'pick the wet edge up again, gun square to the side',
  },
  'not-stirred': {
    said: 'the cup was not stirred, flakes had settled',
    instead: 'stir before every filling, keep it moving',
  },
  reach: { said: 'a lower layer reaches past the one over it', instead: 'each layer ends beyond the one below' },
  'fast-reducer': { said: 'reducer or hardener too fast for the warmth or the size', instead: 'a slower one' },
  cold: { said: 'booth, part or paint too cold', instead: 'warm all three; twice the wait for ten degrees less' },
  'dry-overspray': {
    said: 'overspray landed on what was already dull',
    instead: 'work so that overspray falls ahead, into wet film',
  },
  'low-pressure': { said: 'too little air at the gun', instead: 'the card’s pressure' },
  grease: {
    said: 'grease, silicone, or cleaner that dried on',
    instead: 'degrease again, wipe it off while it is wet',
  },
  'no-tack': { said: 'not tacked, or dust from booth or clothes', instead: 'blow off, tack, wet the floor' },
  blown: { said: 'air was blown on wet two-pack', instead: 'never air on wet two-pack' },
  'short-standing': {
    said: 'heat came before the film had stood',
    instead: 'let it stand at least as long as the sheet says',
  },
  'thick-build': { said: 'too much film in all, or too fast', instead: 'fewer and thinner coats, longer between' },
  'coarse-prep': { said: 'sanded too coarse for what went over it', instead: 'finer, P800 under fine effects' },
  'hard-line': { said: 'the repair ends in a hard line', instead: 'feather it wider, from outside in' },
  'spitting-cap': {
    said: 'solvent in the air cap, or the gun was shaken or tipped',
    instead: 'wipe the cap, test on paper first',
  },
  'thin-ground': { said: 'the ground does not hide', instead: 'another ground coat, looked at with lights off' },
  damp: { said: 'damp air or a part near its dew point', instead: 'three degrees above the dew point, drier air' },
  'no-tooth': { said: 'no tooth: not scuffed, or cleaner left on', instead: 'scuff and clean before it' },
};

export interface FaultCause {
  readonly id: CauseId;
  /** How often it is this one, before anything of the job is known; ours, editable as data. They come to 1 in each fault. */
  readonly prior: number;
}

/** A fault: what is seen, why, and what to do while it can still be mended and after. */
export interface Fault {
  readonly id: string;
  readonly name: string;
  /** Other words it is looked for by. */
  readonly words: readonly string[];
  /** How it is told from what looks like it. */
  readonly told: string;
  readonly causes: readonly FaultCause[];
  /** What to do before clear; null where it only shows after it. */
  readonly before: string | null;
  /** What to do under clear; null where it never gets that far. */
  readonly after: string | null;
  readonly never: string;
  readonly caution: string;
}

const SANDING = 'Sanding: dust mask, wet where it can be; old paint may hold lead or chromate: never dry-sand it.';
const SOLVENT = 'Solvent: exhaust on, no spark or flame, gloves and mask by its sheet.';
const TWO_PACK =
  'Two-pack: isocyanates; air-fed respirator, skin and eyes covered, exhaust on. The sheet and local rules come first.';
const HEAT = 'Heat: no solvent, rag or open can in the oven; vinyl, plastics and glued parts limit it.';

const of = (...causes: readonly (readonly [CauseId, number])[]): FaultCause[] =>
  causes.map(([id, prior]) => ({ id, prior }));

/** Faults a painter of layered finishes meets. Causes and ways are common practice (no source); shares of the causes are ours. */
export const FAULTS: readonly Fault[] = [
  {
    id: 'mottling',
    name: 'Mottling, clouds',
    words: ['mottle', 'cloudy', 'blotchy', 'patchy'],
    told: 'Light and dark clouds a hand wide, most at the face; they stay when the lamp moves.',
    causes: of(['too-heavy', 0.4], ['wet-below', 0.3], ['not-stirred', 0.2], ['uneven-pitch', 0.1]),
    before: 'Control coat from twice as far, over the whole side; else back to the ground there.',
    after: 'Re-ground to a break.',
    never: 'No further wet coat over it: it keeps the clouds and moves the colour.',
    caution: SOLVENT,
  },
  {
    id: 'stripes',
    name: 'Stripes',
    words: ['zebra', 'tiger', 'striping', 'banding'],
    told: 'Straight bands along the passes, as far apart as the pitch.',
    causes: of(['uneven-pitch', 0.55], ['too-close', 0.25], ['not-stirred', 0.12], ['too-heavy', 0.08]),
    before: 'Crossed or shifted light coats, if the window allows them.',
    after: 'Re-ground to a break.',
    never: 'Not the same passes once more: they land on the same bands.',
    caution: SOLVENT,
  },
  {
    id: 'dark-edges',
    name: 'Dark panel edges, dark body lines',
    words: ['dark edge', 'edge', 'line', 'doubled'],
    told: 'Edges and lines darker than the middle, where passes doubled.',
    causes: of(['panel-by-panel', 0.7], ['uneven-pitch', 0.2], ['too-close', 0.1]),
    before: 'Nothing there gets lighter: richen the rest to meet it, or re-ground.',
    after: 'Re-ground to a break.',
    never: 'No coat on the dark place.',
    caution: SOLVENT,
  },
  {
    id: 'light-zone',
    name: 'Light edge, light zone',
    words: ['light edge', 'pale', 'thin', 'weak spot'],
    told: 'A zone lighter than the rest, soft at its border.',
    causes: of(['missed-pass', 0.65], ['too-far', 0.25], ['low-pressure', 0.1]),
    before: 'A faded coat there alone, overspray away from what is right.',
    after: 'Sand, a faded coat, clear again.',
    never: 'Not a coat over all: the rest goes past its window.',
    caution: SOLVENT,
  },
  {
    id: 'halo',
    name: 'Halo at the blend',
    words: ['halo', 'ring', 'blend edge', 'tail'],
    told: 'A ring or line where the blend ends, of the ground’s colour.',
    causes: of(['reach', 0.85], ['dry-overspray', 0.15]),
    before: 'Extend the upper layers past it.',
    after: 'Sand and re-blend further out.',
    never: 'Not more ground: it widens the ring.',
    caution: SOLVENT,
  },
  {
    id: 'bleeding',
    name: 'Bleeding, washed-out white',
    words: ['bleed', 'washed out', 'migrate'],
    told: 'The colour below comes up through the coat, pinkish or grey.',
    causes: of(['wet-below', 0.7], ['thin-ground', 0.3]),
    before: 'Wait until it is dry, then more coats.',
    after: null,
    never: 'No clear over it: it goes on bleeding.',
    caution: SOLVENT,
  },
  {
    id: 'swimming',
    name: 'Pearl swimming into clear',
    words: ['swim', 'lifted flakes', 'moved', 'redissolved'],
    told: 'Flakes stand up or drift in the clear, the face goes grey.',
    causes: of(['wet-below', 0.75], ['too-heavy', 0.25]),
    before: null,
    after: 'Re-do effect and clear.',
    never: 'Not another clear to even it.',
    caution: TWO_PACK,
  },
  {
    id: 'dry-spray',
    name: 'Dry, gritty base',
    words: ['dry spray', 'gritty', 'rough', 'sandy'],
    told: 'Feels like fine sandpaper, looks dull under the lamp.',
    causes: of(['fast-reducer', 0.35], ['too-far', 0.35], ['dry-overspray', 0.3]),
    before: 'Tack, P1000 to P2000 by hand, dust another coat.',
    after: null,
    never: 'No effect over grit: every grain shows.',
    caution: SANDING,
  },
  {
    id: 'orange-peel',
    name: 'Orange peel',
    words: ['peel', 'texture', 'dimpled'],
    told: 'Even dimples like a peel, also in the reflection of a lamp.',
    causes: of(['low-pressure', 0.35], ['too-close', 0.25], ['cold', 0.2], ['too-heavy', 0.2]),
    before: 'Back away, or a quarter turn less.',
    after: 'Sand and polish when it is cured; match the neighbour’s texture, not perfection.',
    never: 'Not flatter than the maker’s own peel beside it.',
    caution: SANDING,
  },
  {
    id: 'run',
    name: 'Run, sag',
    words: ['run', 'sag', 'curtain', 'drip'],
    told: 'A drop or curtain that hangs, thick at its lower end.',
    causes: of(['too-heavy', 0.55], ['too-close', 0.25], ['panel-by-panel', 0.2]),
    before: 'Let it dry, sand it flat, coat again.',
    after: 'Sand and polish; in tinted clear it is a dark spot that never polishes out: back to the ground.',
    never: 'Do not wipe it wet.',
    caution: SANDING,
  },
  {
    id: 'fisheyes',
    name: 'Fisheyes',
    words: ['fish-eyes', 'craters', 'silicone', 'cissing'],
    told: 'Round holes with a rim, the coat draws back from a point.',
    causes: of(['grease', 0.9], ['damp', 0.1]),
    before: 'Stop at the mist coat, let it dry, clean, go on with thin dry coats.',
    after: 'Re-do locally.',
    never: 'No wet coat to fill them: they grow.',
    caution: SOLVENT,
  },
  {
    id: 'wrinkling',
    name: 'Wrinkling, lifting',
    words: ['wrinkle', 'lift', 'crinkle', 'raisin'],
    told: 'Skin like a raisin, minutes after the coat.',
    causes: of(['window-passed', 0.4], ['too-heavy', 0.35], ['thick-build', 0.25]),
    before: 'Let it dry through, sand, thin coats.',
    after: 'Let it dry through, sand, thin coats.',
    never: 'Nothing wet while it is soft.',
    caution: SANDING,
  },
  {
    id: 'peeling',
    name: 'Peeling clear',
    words: ['peel off', 'delaminate', 'flaking'],
    told: 'Clear comes off in sheets, often at edges, weeks later.',
    causes: of(['window-passed', 0.45], ['wet-below', 0.35], ['no-tooth', 0.2]),
    before: 'Bake or wait before clear, and keep to the window.',
    after: 'Strip it; the layers below hold no more.',
    never: 'Not glued down with another clear.',
    caution: SANDING,
  },
  {
    id: 'solvent-pop',
    name: 'Solvent pop, pinholes',
    words: ['pop', 'pinhole', 'bubbles', 'boil'],
    told: 'Fine holes or blisters after heat, most where film is thick.',
    causes: of(['short-standing', 0.55], ['thick-build', 0.25], ['fast-reducer', 0.2]),
    before: 'Longer standing before heat, thinner coats.',
    after: 'Sand below them, clear again.',
    never: 'No clear over open holes.',
    caution: HEAT,
  },
  {
    id: 'scratches',
    name: 'Scratches showing',
    words: ['scratch', 'sanding marks', 'swelling'],
    told: 'Lines of the sanding come up through a fine effect coat.',
    causes: of(['coarse-prep', 0.75], ['wet-below', 0.25]),
    before: 'Fill with ground, sand finer.',
    after: null,
    never: 'Effect does not hide them: each coat shows them more.',
    caution: SANDING,
  },
  {
    id: 'repair-edge',
    name: 'Visible repair edge',
    words: ['edge mapping', 'mapping', 'ring of primer', 'outline'],
    told: 'The outline of the primer shows as a line or a step.',
    causes: of(['hard-line', 0.8], ['wet-below', 0.2]),
    before: 'Feather it wider, from outside in.',
    after: null,
    never: 'No more film on the edge alone.',
    caution: SANDING,
  },
  {
    id: 'splatter',
    name: 'Splatter spot',
    words: ['spit', 'blob', 'spot', 'solvent spit'],
    told: 'A single wet spot, darker or lighter, with a sharp rim.',
    causes: of(['spitting-cap', 0.9], ['low-pressure', 0.1]),
    before: 'Thin ground over the spot, fan the effect out, control coat.',
    after: 'Sand, then as before clear.',
    never: 'Do not rub it: it spreads the flakes.',
    caution: SOLVENT,
  },
  {
    id: 'nibs',
    name: 'Dust nibs',
    words: ['dust', 'nib', 'dirt', 'bits'],
    told: 'Single grains that stand up, felt with the palm.',
    causes: of(['no-tack', 0.7], ['blown', 0.3]),
    before: 'Nib off, tack, dust a coat.',
    after: 'Nib and polish.',
    never: 'No tacking once clear has started.',
    caution: SANDING,
  },
  {
    id: 'dieback',
    name: 'Dieback',
    words: ['dull', 'loss of gloss', 'shrinkage', 'sinking'],
    told: 'Gloss that goes dull over days, texture comes up.',
    causes: of(['wet-below', 0.5], ['thick-build', 0.3], ['fast-reducer', 0.2]),
    before: 'Longer flash before clear.',
    after: 'Polish again later, when it has stopped.',
    never: 'Not polished while it still sinks.',
    caution: TWO_PACK,
  },
  {
    id: 'ground-shows',
    name: 'Ground not hidden',
    words: ['shows through', 'transparent', 'patchy ground', 'sealer shows'],
    told: 'With lights off what lies below shows as a shade, most at edges.',
    causes: of(['thin-ground', 0.8], ['missed-pass', 0.2]),
    before: 'Another ground coat before any effect; lights off again.',
    after: 'Re-ground to a break.',
    never: 'Effect coats do not hide it.',
    caution: SOLVENT,
  },
  {
    id: 'blushing',
    name: 'Blushing, milky film',
    words: ['blush', 'milky', 'haze', 'bloom'],
    told: 'A milky veil while it flashes, in damp air.',
    causes: of(['damp', 0.7], ['fast-reducer', 0.3]),
    before: 'Warm and dry the booth, let it flash out, a coat with slower reducer.',
    after: 'Polish when it is cured; else sand and clear again.',
    never: 'Not sealed in wet.',
    caution: SOLVENT,
  },
  {
    id: 'flakes-standing',
    name: 'Flakes standing up',
    words: ['flake edges', 'rough flake', 'spiky', 'not buried'],
    told: 'Sharp points under the hand, glitter that catches the cloth.',
    causes: of(['thick-build', 0.15], ['too-far', 0.35], ['not-stirred', 0.2], ['low-pressure', 0.3]),
    before: 'Lock them down, bury them in clear, then sand flat without reaching them.',
    after: 'More clear, then sand flat.',
    never: 'Never sand into the flakes.',
    caution: SANDING,
  },
];

/** @throws RangeError for none of the table */
export function findFault(id: string): Fault {
  const found = FAULTS.find((f) => f.id === id);
  if (!found) throw new RangeError(`There is no fault ${id}.`);
  return found;
}

/** Faults that a word is found in: by name, words, or how they are told; all for an empty one. */
export function searchFaults(text: string): readonly Fault[] {
  const wanted = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (!wanted.length) return FAULTS;
  const rate = (f: Fault): number => {
    const named = [f.name, ...f.words].join(' ').toLowerCase();
    const all = `${named} ${f.told} ${f.causes.map((c) => CAUSES[c.id].said).join(' ')}`.toLowerCase();
    if (!wanted.every((w) => all.includes(w))) return 0;
    return wanted.every((w) => named.includes(w)) ? 2 : 1;
  };
  return FAULTS.map((f) => ({ f, by: rate(f) }))
    .filter((r) => r.by > 0)
    .sort((a, b) => b.by - a.by)
    .map((r) => r.f);
}
