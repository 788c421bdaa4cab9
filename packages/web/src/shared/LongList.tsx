import { Box } from '@mui/material';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';

/** Rows drawn beyond what is seen, so that scrolling never meets an empty place. */
const BEYOND = 8;
/** Page up and page down go so many rows. */
const PAGE_ROWS = 8;

/**
 * A list of any length that scrolls with the page: only what is seen is drawn. Arrow keys, page keys, Home and End walk it; what has
 * the focus in a row is the first link or button there.
 */
export function LongList({
  label,
  total,
  height,
  draw,
  onLook,
}: {
  label: string;
  total: number;
  /** Of a row, px. */
  height: number;
  /** What stands in a row. */
  draw: (at: number) => ReactNode;
  /** Which rows are seen. */
  onLook?: (from: number, to: number) => void;
}) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    const at = list.current;
    if (at) setTop(at.getBoundingClientRect().top + window.scrollY);
  }, [total]);
  const rows = useWindowVirtualizer({
    count: total,
    // The same function each time, or every row is measured anew.
    estimateSize: useCallback(() => height, [height]),
    overscan: BEYOND,
    scrollMargin: top,
    useFlushSync: false,
  });
  const items = rows.getVirtualItems();
  const from = items[0]?.index ?? 0;
  const to = items.at(-1)?.index ?? 0;
  useEffect(() => onLook?.(from, to), [onLook, from, to]);
  const go = (at: number) => {
    const target = Math.min(total - 1, Math.max(0, at));
    rows.scrollToIndex(target, { align: 'auto' });
    // The row may have to be drawn first.
    requestAnimationFrame(() =>
      requestAnimationFrame(() =>
        list.current?.querySelector<HTMLElement>(`[data-row="${target}"] :is(a, button)`)?.focus(),
      ),
    );
  };
  const onKey = (e: KeyboardEvent) => {
    const row = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!row || (e.target as HTMLElement).closest('input, select, textarea, [role=menu]')) return;
    const at = Number(row.dataset['row']);
    const to_ = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      PageDown: at + PAGE_ROWS,
      PageUp: at - PAGE_ROWS,
      Home: 0,
      End: total - 1,
    }[e.key];
    if (to_ === undefined) return;
    e.preventDefault();
    go(to_);
  };
  return (
    <Box
      component="ul"
      ref={list}
      aria-label={label}
      onKeyDown={onKey}
      sx={{ listStyle: 'none', m: 0, p: 0, position: 'relative' }}
      style={{ height: rows.getTotalSize() }}
    >
      {items.map((item) => (
        <li
          key={item.key}
          data-row={item.index}
          aria-setsize={total}
          aria-posinset={item.index + 1}
          style={{
            position: 'absolute',
            insetInline: 0,
            top: 0,
            height,
            contain: 'strict',
            transform: `translateY(${item.start - top}px)`,
          }}
        >
          {draw(item.index)}
        </li>
      ))}
    </Box>
  );
}
