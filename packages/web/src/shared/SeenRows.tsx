import { Box } from '@mui/material';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { focusRow, walkRows, type LongListProps } from './rows';

/** Rows drawn beyond what is seen, so that scrolling never meets an empty place. */
const BEYOND = 8;

/** A list of any length that scrolls with the page: only what is seen is drawn. */
export function SeenRows({ label, total, height, keyOf, draw, onLook }: LongListProps) {
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
  const go = (target: number) => {
    rows.scrollToIndex(target, { align: 'auto' });
    // The row may have to be drawn first.
    requestAnimationFrame(() => requestAnimationFrame(() => focusRow(list.current, target)));
  };
  return (
    <Box
      component="ul"
      ref={list}
      aria-label={label}
      onKeyDown={(e) => walkRows(e, total, go)}
      sx={{ listStyle: 'none', m: 0, p: 0, position: 'relative' }}
      style={{ height: rows.getTotalSize() }}
    >
      {items.map((item) => (
        <li
          key={keyOf(item.index)}
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
