import { Typography, type TypographyProps } from '@mui/material';
import { useSyncExternalStore } from 'react';
import { clockOffset, onClock } from './clock';
import { storageFault, type StorageFault } from './log/device';
import { onPost } from './log/post';

/** A device's clock off by more than this is worth a word, ms. */
const WORTH_SAYING_MS = 30_000;

/** How far a clock is off, as it is said. */
export function sayOff(ms: number): string {
  const seconds = Math.round(Math.abs(ms) / 1000);
  if (seconds < 100) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 100 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
}

/**
 * What is different on this device, a line each; nothing where all is well.
 * @param secure whether the browser trusts the address @param storage why nothing told here outlasts the page
 */
export function notesHere(offset: number, secure: boolean, storage: StorageFault | null): string[] {
  return [
    ...(Math.abs(offset) > WORTH_SAYING_MS
      ? [
          `This device’s clock is ${sayOff(offset)} ${offset < 0 ? 'ahead of' : 'behind'} the shop’s. The shop’s time is used; set the clock all the same.`,
        ]
      : []),
    ...(secure
      ? []
      : [
          'By plain http from another device everything can be entered, but the booth does not reopen while the server is away and the screen may go dark: leave the page open, and set the screen to stay on.',
        ]),
    ...(storage === null
      ? []
      : [
          storage === 'newer'
            ? 'A newer version keeps the entries of this device now: reload the page. Until then what is told here is sent, but not kept should the page close.'
            : 'This browser lets the page keep nothing: what is told here is sent, but not kept should the page close.',
        ]),
  ];
}

/** One line for each thing that is different on this device: a clock that is off, an address the browser does not trust. */
export function HereNotes(props: TypographyProps) {
  const offset = useSyncExternalStore(onClock, clockOffset);
  const storage = useSyncExternalStore(onPost, storageFault);
  return notesHere(offset, isSecureContext, storage).map((note) => (
    <Typography key={note} role="note" variant="body2" {...props}>
      {note}
    </Typography>
  ));
}
