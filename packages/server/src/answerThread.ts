import { parentPort } from 'node:worker_threads';
import type { Answered, Asked } from './thread';

/** The other end of a thread: answers what it is asked by some work. */
export function answerThread<Q, A>(work: (ask: Q) => A | Promise<A>): void {
  parentPort!.on('message', ({ id, ask }: Asked<Q>) => {
    const say = (said: Answered<A>) => parentPort!.postMessage(said);
    Promise.resolve()
      .then(() => work(ask))
      .then(
        (answer) => say({ id, answer }),
        (error: unknown) => say({ id, fault: error instanceof Error ? error.message : String(error) }),
      );
  });
}
