/** A value with what it was before and what was undone. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
}

export type HistoryAction<T> =
  | { readonly do: 'set'; readonly value: T }
  | { readonly do: 'undo' }
  | { readonly do: 'redo' }
  | { readonly do: 'reset'; readonly value: T };

/** Steps that can be taken back. */
const MOST = 100;

export function historyReducer<T>(state: History<T>, action: HistoryAction<T>): History<T> {
  switch (action.do) {
    case 'set':
      return { past: [...state.past, state.present].slice(-MOST), present: action.value, future: [] };
    case 'undo': {
      const last = state.past.at(-1);
      if (last === undefined) return state;
      return { past: state.past.slice(0, -1), present: last, future: [state.present, ...state.future] };
    }
    case 'redo': {
      const [next, ...rest] = state.future;
      if (next === undefined) return state;
      return { past: [...state.past, state.present], present: next, future: rest };
    }
    case 'reset':
      return { past: [], present: action.value, future: [] };
  }
}

export function begin<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}
