import type { Remote } from 'comlink';
import { createCompute } from '../worker/compute';
import type { Compute } from '../worker/computeTypes';

/** Stands in for the thread that computes: the same answers, later but on this one. */
export function startWorker(): Remote<Compute> {
  const compute = createCompute();
  const answers: object = new Proxy(compute, {
    get:
      (of, name) =>
      async (...given: unknown[]) => {
        await new Promise((later) => setTimeout(later));
        return (of[name as keyof Compute] as (...g: unknown[]) => unknown)(...given);
      },
  });
  return answers as Remote<Compute>;
}
