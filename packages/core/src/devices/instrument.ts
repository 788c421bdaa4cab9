import type { Reading } from '../formats/readings';

/** Why an instrument gave no reading. */
export type InstrumentFault = 'moved' | 'dark' | 'away' | 'wrong angle';

/** What an instrument answers when it is told to read. */
export type InstrumentAnswer =
  | { readonly is: 'read'; readonly readings: readonly Reading[] }
  | { readonly is: 'wants white' }
  | { readonly is: 'failed'; readonly why: InstrumentFault };

const SAID: Readonly<Record<InstrumentFault, string>> = {
  moved: 'The instrument was moved while it read. Hold it flat and still, and read again; nothing was taken.',
  dark: 'The instrument saw no light of its own. Let it warm up, read its white tile, and read again; nothing was taken.',
  away: 'The instrument does not answer. See that it is on and near; nothing was taken.',
  'wrong angle':
    'What came is of another angle than it says. Set the instrument flat and read again; nothing was taken.',
};

/** An answer that is no reading, as a sentence with what to do; null for a reading. */
export function sayInstrument(answer: InstrumentAnswer): string | null {
  if (answer.is === 'read') return null;
  return answer.is === 'wants white' ? 'The instrument wants its white tile first.' : SAID[answer.why];
}
