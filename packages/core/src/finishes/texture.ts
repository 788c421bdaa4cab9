/** How much peel a finish has. */
export type Texture = 'flat' | 'slight' | 'marked' | 'strong';

/** One step of peel: its dimples as they are drawn, and what lays the same; common practice (no source). */
export interface TextureRow {
  readonly id: Texture;
  /** How it is told. */
  readonly told: string;
  /** Dimples across, mm, and how deep they look, 0..1; ours, for the drawing. */
  readonly dimpleMm: number;
  readonly depth: number;
  /** What matches it: clear coats, air, reducer, and what is done when it is cured. */
  readonly matchedBy: string;
}

export const TEXTURES: readonly TextureRow[] = [
  {
    id: 'flat',
    told: 'a lamp is mirrored with straight edges',
    dimpleMm: 0,
    depth: 0,
    matchedBy: 'three clears, slow reducer, then sanded P1500 to P3000 and polished',
  },
  {
    id: 'slight',
    told: 'a lamp’s edge waves a little',
    dimpleMm: 2,
    depth: 0.35,
    matchedBy: 'two full wet clears at the sheet’s pressure with a slow reducer; polished only where a nib was',
  },
  {
    id: 'marked',
    told: 'a lamp’s edge breaks up, dimples as fine sand',
    dimpleMm: 3,
    depth: 0.65,
    matchedBy: 'two clears with the middle reducer, a tenth of a bar less or a little further; not sanded all over',
  },
  {
    id: 'strong',
    told: 'no edge of a lamp is left, dimples as lentils',
    dimpleMm: 5,
    depth: 1,
    matchedBy: 'two clears with a fast reducer, a fifth of a bar less, a quarter turn more; not polished flatter',
  },
];

/** Whether an area is cleared: with gloss, satin, or not at all, as hidden ones often are. */
export type ClearState = 'cleared' | 'satin' | 'uncleared';
export const CLEAR_STATES: readonly ClearState[] = ['cleared', 'satin', 'uncleared'];
