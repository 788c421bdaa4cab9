import { Menu, MenuItem } from '@mui/material';
import { type Job, REMOVED_DAYS } from '@steady-gleam/contracts';
import { useState } from 'react';
import type { JobMenuProps } from './jobMenuProps';
import { FinishDialog, Question } from './FinishDialog';
import { CopyDialog, RenameDialog } from './JobDialogs';
import { useChangeJob } from './useJob';

type Asked = 'rename' | 'copy' | 'finish' | 'reopen' | 'remove';

interface SheetProps extends JobMenuProps {
  /** What was tapped; null while the menu is shut. */
  readonly anchor: HTMLElement | null;
  readonly setAnchor: (anchor: HTMLElement | null) => void;
}

/** The menu of a job and what it asks, fetched when it is first opened. */
export function JobMenuSheet({ job, open, onDone, anchor, setAnchor }: SheetProps) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const change = useChangeJob(job.id);
  const ask = (what: Asked) => {
    setAnchor(null);
    change.reset();
    setAsked(what);
  };
  // What is done may take this menu off the page: the promise outlives it.
  const act = (
    body: { status: Job['status'] } | { removed: boolean },
    said: string,
    undo: Parameters<typeof onDone>[1],
  ) =>
    void change.mutateAsync({ version: job.version, ...body }).then(
      () => {
        setAsked(null);
        setAnchor(null);
        onDone(said, undo);
      },
      () => undefined,
    );
  return (
    <>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => ask('rename')}>Rename</MenuItem>
        <MenuItem onClick={() => ask('copy')}>Copy it</MenuItem>
        {job.status === 'away' ? (
          <MenuItem onClick={() => act({ status: 'open' }, `${job.piece} is back.`, { status: 'away' })}>
            Bring it back
          </MenuItem>
        ) : (
          <MenuItem onClick={() => act({ status: 'away' }, `${job.piece} was put away.`, { status: job.status })}>
            Put it away
          </MenuItem>
        )}
        {job.status === 'away' ? null : job.status === 'finished' ? (
          <MenuItem onClick={() => ask('reopen')}>Open it again</MenuItem>
        ) : (
          <MenuItem onClick={() => ask('finish')}>Finish this job</MenuItem>
        )}
        <MenuItem onClick={() => ask('remove')}>Take it out</MenuItem>
      </Menu>
      {asked === 'rename' ? <RenameDialog job={job} onClose={() => setAsked(null)} /> : null}
      {asked === 'copy' ? <CopyDialog job={job} onClose={() => setAsked(null)} /> : null}
      {asked === 'finish' ? (
        <FinishDialog job={job} open={open} onClose={() => setAsked(null)} onDone={onDone} />
      ) : null}
      {asked === 'remove' ? (
        <Question
          title={`Take ${job.piece} out of the list?`}
          text={`It stands below the list under “Taken out” and can be put back for ${REMOVED_DAYS} days; then it is gone.`}
          act="Take it out"
          busy={change.isPending}
          fault={change.error?.message ?? null}
          onClose={() => setAsked(null)}
          onAct={() => act({ removed: true }, `${job.piece} was taken out.`, { removed: false })}
        />
      ) : null}
      {asked === 'reopen' ? (
        <Question
          title={`Open ${job.piece} again?`}
          text="It goes back among the open jobs, with everything that was entered."
          act="Open it"
          busy={change.isPending}
          fault={change.error?.message ?? null}
          onClose={() => setAsked(null)}
          onAct={() => act({ status: 'open' }, `${job.piece} is open again.`, { status: 'finished' })}
        />
      ) : null}
    </>
  );
}
