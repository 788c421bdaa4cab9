import { Box } from '@mui/material';
import { lazy, Suspense, useEffect, useRef } from 'react';
import { focusRow, walkRows, type LongListProps } from './rows';

const SeenRows = lazy(async () => ({ default: (await import('./SeenRows')).SeenRows }));

/** A list this long is drawn whole, without what draws long ones. */
const WHOLE_ROWS = 40;

/** A list of any length: arrow keys, page keys, Home and End walk it; what has the focus in a row is the first link or button there. */
export function LongList(props: LongListProps) {
  return props.total <= WHOLE_ROWS ? (
    <AllRows {...props} />
  ) : (
    <Suspense fallback={<Box sx={{ minHeight: '100vh' }} />}>
      <SeenRows {...props} />
    </Suspense>
  );
}

function AllRows({ label, total, height, keyOf, draw, onLook }: LongListProps) {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => onLook?.(0, Math.max(0, total - 1)), [onLook, total]);
  return (
    <Box
      component="ul"
      ref={list}
      aria-label={label}
      onKeyDown={(e) => walkRows(e, total, (target) => focusRow(list.current, target))}
      sx={{ listStyle: 'none', m: 0, p: 0 }}
    >
      {Array.from({ length: total }, (_, at) => (
        <li
          key={keyOf(at)}
          data-row={at}
          aria-setsize={total}
          aria-posinset={at + 1}
          style={{ height, contain: 'strict' }}
        >
          {draw(at)}
        </li>
      ))}
    </Box>
  );
}
