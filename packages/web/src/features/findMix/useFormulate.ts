import type { FormulateStep } from '@steady-gleam/core/formulate';
import { proxy } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { FormulaFound, FormulateAsk } from '../../worker/computeTypes';
import { computeRemote } from '../../worker/useCompute';

export interface Formulating {
  /** Share that is done and the best so far, while it runs; null when it does not. */
  readonly step: FormulateStep | null;
  readonly found: FormulaFound | null;
  readonly error: string | null;
  /** s the last search took. */
  readonly tookS: number | null;
}

const NOTHING: Formulating = { step: null, found: null, error: null, tookS: null };

let tickets = 0;

/** A search for a mix: begun anew by every `start`, ended by `stop` or on leaving. */
export function useFormulate() {
  const [state, setState] = useState<Formulating>(NOTHING);
  const running = useRef<number | null>(null);
  const stop = useCallback(() => {
    const ticket = running.current;
    running.current = null;
    if (ticket === null) return;
    void computeRemote(1).stopSearch(ticket);
    setState((old) => ({ ...old, step: null }));
  }, []);
  useEffect(() => stop, [stop]);
  const start = useCallback(
    (ask: FormulateAsk) => {
      stop();
      // No search of a recipe has a ticket below nothing.
      const ticket = -++tickets;
      running.current = ticket;
      const began = performance.now();
      setState({ ...NOTHING, step: { done: 0, best: null } });
      computeRemote(1)
        .formulate(
          ask,
          ticket,
          proxy((step: FormulateStep) => {
            if (running.current === ticket) setState((old) => ({ ...old, step }));
          }),
        )
        .then(
          (found) => {
            if (running.current !== ticket) return;
            running.current = null;
            setState({ step: null, found, error: null, tookS: (performance.now() - began) / 1000 });
          },
          (error: unknown) => {
            if (running.current !== ticket) return;
            running.current = null;
            setState({ ...NOTHING, error: error instanceof Error ? error.message : String(error) });
          },
        );
    },
    [stop],
  );
  return { ...state, start, stop };
}
