import { Worker } from 'node:worker_threads';
import { ApiError } from './errors';

/** What a thread is asked, and what it answers. */
export interface Asked<Q> {
  readonly id: number;
  readonly ask: Q;
}

export type Answered<A> = { readonly id: number } & (
  { readonly answer: A; readonly fault?: undefined } | { readonly fault: string }
);

interface Waiting<A> {
  readonly done: (answer: A) => void;
  readonly failed: (error: unknown) => void;
  readonly timer: ReturnType<typeof setTimeout>;
}

export interface ThreadLimits {
  /** What takes longer is given up, ms. */
  readonly longestMs: number;
  /** What may wait for its turn. */
  readonly mostWaiting: number;
  /** Said to whom finds too many waiting, and where something took too long. */
  readonly crowded: string;
  readonly tooLong: string;
}

/** A thread that does one thing after the other, so that nobody else waits for it. It is begun when it is first asked. */
export function createThread<Q, A>(path: string, limits: ThreadLimits): (ask: Q) => Promise<A> {
  const waiting = new Map<number, Waiting<A>>();
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
    own.on('message', (said: Answered<A>) => {
      const asked = waiting.get(said.id);
      if (!asked) return;
      clearTimeout(asked.timer);
      waiting.delete(said.id);
      if (said.fault === undefined) asked.done(said.answer);
      else asked.failed(new Error(said.fault));
      if (!waiting.size) own.unref();
    });
    own.on('error', (error) => (worker === own ? fail(error) : undefined));
    own.on('exit', () => (worker === own ? fail(new Error('A thread of the program ended.')) : undefined));
    return own;
  };
  return (ask) =>
    new Promise((done, failed) => {
      if (waiting.size >= limits.mostWaiting) {
        failed(new ApiError('busy', undefined, limits.crowded, 5));
        return;
      }
      worker ??= start();
      worker.ref();
      const id = ++made;
      const timer = setTimeout(() => {
        const stuck = worker;
        fail(new ApiError('notWorkable', undefined, limits.tooLong));
        void stuck?.terminate();
      }, limits.longestMs);
      waiting.set(id, { done, failed, timer });
      const asked: Asked<Q> = { id, ask };
      try {
        worker.postMessage(asked);
      } catch (error) {
        // Something in it is no plain data: nobody waits for it.
        clearTimeout(timer);
        waiting.delete(id);
        failed(error instanceof Error ? error : new Error(String(error)));
      }
    });
}
