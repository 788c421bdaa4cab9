import type { KeyboardEvent, ReactNode } from 'react';

export interface LongListProps {
  readonly label: string;
  readonly total: number;
  /** Of a row, px. */
  readonly height: number;
  /** Of what stands in a row: a menu that is open there stays with it when the list is sorted anew. */
  readonly keyOf: (at: number) => string | number;
  /** What stands in a row. */
  readonly draw: (at: number) => ReactNode;
  /** Which rows are seen. */
  readonly onLook?: (from: number, to: number) => void;
}

/** Page up and page down go so many rows. */
const PAGE_ROWS = 8;

/** Puts the focus on the first link or button of a row that is drawn. */
export const focusRow = (list: HTMLElement | null, at: number): void =>
  list?.querySelector<HTMLElement>(`[data-row="${at}"] :is(a, button)`)?.focus();

/** Arrow keys, page keys, Home and End walk a list; keys in its fields and menus are theirs. */
export function walkRows(e: KeyboardEvent, total: number, go: (target: number) => void): void {
  const row = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
  if (!row || (e.target as HTMLElement).closest('input, select, textarea, [role=menu]')) return;
  const at = Number(row.dataset['row']);
  const to = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    PageDown: at + PAGE_ROWS,
    PageUp: at - PAGE_ROWS,
    Home: 0,
    End: total - 1,
  }[e.key];
  if (to === undefined) return;
  e.preventDefault();
  go(Math.min(total - 1, Math.max(0, to)));
}
