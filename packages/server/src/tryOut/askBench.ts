import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createThread } from '../thread';
import { createBench, type BenchAnswer, type BenchAsk } from './bench';

const THREAD = fileURLToPath(new URL('./benchWorker.js', import.meta.url));
const here = createBench();

export type AskBench = (ask: BenchAsk) => Promise<BenchAnswer>;

/** Asks the hidden world: in a thread of its own where the program is built, else where it is asked. */
export const askBench: AskBench = existsSync(THREAD)
  ? createThread<BenchAsk, BenchAnswer>(THREAD, {
      longestMs: 60_000,
      mostWaiting: 12,
      crowded: 'The simulated instrument is being asked from many places just now. Try again in a moment.',
      tooLong: 'The simulated instrument took too long. Read again.',
    })
  : async (ask) => here(ask);
