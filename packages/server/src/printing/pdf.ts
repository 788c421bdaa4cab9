import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { ApiError } from '../errors';
import { render } from './render';

/** Points in a millimetre. */
export const MM = 72 / 25.4;

/** What is asked of the thread that draws papers, and what it answers. */
export interface PdfAsked {
  readonly id: number;
  readonly document: TDocumentDefinitions;
}
export type PdfDrawn = { readonly id: number } & (
  { readonly bytes: Uint8Array; readonly fault?: undefined } | { readonly fault: string }
);

/** A paper that takes longer is given up, ms; and papers that may wait for their turn. */
const [LONGEST_MS, MOST_WAITING] = [30_000, 40] as const;

interface Waiting {
  readonly done: (bytes: Buffer) => void;
  readonly failed: (error: unknown) => void;
  readonly timer: ReturnType<typeof setTimeout>;
}

/** A thread that draws one paper after the other, so that nobody else waits for it. */
function createDrawer(path: string) {
  const waiting = new Map<number, Waiting>();
  let worker: Worker | null = null;
  let made = 0;
  const fail = (error: unknown) => {
    for (const { failed, timer } of waiting.values()) {
      clearTimeout(timer);
      failed(error);
    }
    waiting.clear();
    worker = null;
  };
  const start = (): Worker => {
    const own = new Worker(path);
    own.on('message', (drawn: PdfDrawn) => {
      const asked = waiting.get(drawn.id);
      if (!asked) return;
      clearTimeout(asked.timer);
      waiting.delete(drawn.id);
      if (drawn.fault === undefined) asked.done(Buffer.from(drawn.bytes));
      else asked.failed(new Error(drawn.fault));
      if (!waiting.size) own.unref();
    });
    own.on('error', (error) => (worker === own ? fail(error) : undefined));
    own.on('exit', () => (worker === own ? fail(new Error('The thread that draws papers ended.')) : undefined));
    return own;
  };
  return (document: TDocumentDefinitions): Promise<Buffer> =>
    new Promise((done, failed) => {
      if (waiting.size >= MOST_WAITING) {
        failed(new ApiError('busy', undefined, 'Many papers are being drawn just now. Try again in a moment.', 5));
        return;
      }
      worker ??= start();
      worker.ref();
      const id = ++made;
      const timer = setTimeout(() => {
        const stuck = worker;
        fail(new ApiError('notWorkable', undefined, 'There is too much for one paper here.'));
        void stuck?.terminate();
      }, LONGEST_MS);
      waiting.set(id, { done, failed, timer });
      const asked: PdfAsked = { id, document };
      try {
        worker.postMessage(asked);
      } catch (error) {
        // Something in it is no plain data: nobody waits for it.
        clearTimeout(timer);
        waiting.delete(id);
        failed(error);
      }
    });
}

const THREAD = fileURLToPath(new URL('./pdfWorker.js', import.meta.url));
/** The built program draws in a thread of its own; from its source, as in tests, it draws where it is asked. */
const draw = existsSync(THREAD)
  ? createDrawer(THREAD)
  : async (d: TDocumentDefinitions) => Buffer.from(await render(d));

/** A document as PDF bytes. */
export const toPdf = (document: TDocumentDefinitions): Promise<Buffer> => draw(document);
