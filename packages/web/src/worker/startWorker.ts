import { wrap, type Remote } from 'comlink';
import type { Compute } from './computeTypes';

/** A thread of its own that computes. */
export const startWorker = (): Remote<Compute> =>
  wrap<Compute>(new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }));
