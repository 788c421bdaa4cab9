import type { Job } from '@steady-gleam/contracts';

export interface JobMenuProps {
  readonly job: Pick<Job, 'id' | 'piece' | 'matching' | 'status' | 'version'>;
  /** What is still open on it, a clause each; said before it is finished. Null while that is not known. */
  readonly open: readonly string[] | null;
  /** Something was done that can be undone. */
  readonly onDone: (said: string, undo: { readonly status?: Job['status']; readonly removed?: boolean }) => void;
}
