import MoreVertIcon from '@mui/icons-material/MoreVert';
import { IconButton } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import type { JobMenuProps } from './jobMenuProps';

const Sheet = lazy(async () => ({ default: (await import('./JobMenuSheet')).JobMenuSheet }));

/** What can be done with a job as a whole: rename it, finish it or open it again, take it out of the list. */
export function JobMenu(props: JobMenuProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [opened, setOpened] = useState(false);
  return (
    <>
      <IconButton
        aria-label={`More for ${props.job.piece}`}
        aria-haspopup="menu"
        onClick={(e) => {
          setAnchor(e.currentTarget);
          setOpened(true);
        }}
        sx={{ width: 44, height: 44, borderRadius: '2px', color: 'text.primary' }}
      >
        <MoreVertIcon />
      </IconButton>
      {opened ? (
        <Suspense>
          <Sheet {...props} anchor={anchor} setAnchor={setAnchor} />
        </Suspense>
      ) : null}
    </>
  );
}
