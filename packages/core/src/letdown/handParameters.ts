/** What a card may have said of a hand; the last four stand in rows of earlier programs and are not used. */
export type HandParameter = 'film' | 'flake' | 'spread' | 'edge' | 'hueNm' | 'groundL' | 'groundA' | 'groundB';
export const HAND_PARAMETERS: readonly HandParameter[] = [
  'film',
  'flake',
  'spread',
  'edge',
  'hueNm',
  'groundL',
  'groundA',
  'groundB',
];
