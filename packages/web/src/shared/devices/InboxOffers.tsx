import { Box, Button, Typography, useTheme } from '@mui/material';
import type { OfferedFile } from '@steady-gleam/contracts';
import { shopNow } from '../clock';
import { useNow } from '../useNow';
import { sayOffered, useInbox, usePutFile } from './useInbox';

/** Offered at once: the newest of them. */
const SHOWN = 3;

/** Files of the watched folder, offered where readings are wanted; each is taken once, and kept if it is not wanted. */
export function InboxOffers({ wanted, onTake }: { wanted: string; onTake: (file: OfferedFile) => void }) {
  const { tones } = useTheme();
  const inbox = useInbox();
  const put = usePutFile();
  useNow(5_000);
  if (!inbox?.watched) return null;
  const { files, total, unfinished, fault } = inbox;
  if (!files.length && !unfinished.length && !fault) return null;
  return (
    <Box
      role="group"
      aria-label="From the watched folder"
      sx={{ borderLeft: `4px solid ${tones.pick}`, pl: 1.25, mb: 2, maxWidth: 720 }}
    >
      {fault ? <Typography role="alert">{fault}</Typography> : null}
      {files.slice(0, SHOWN).map((file) => (
        <Box key={file.id} sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', py: 0.5 }}>
          <Typography sx={{ flex: 1, minWidth: 200 }}>
            {sayOffered(file, shopNow())}
            {file.fault ? `. ${file.fault}` : `: for ${wanted}?`}
          </Typography>
          {file.fault ? null : (
            <Button variant="contained" onClick={() => onTake(file)}>
              Take it
            </Button>
          )}
          <Button variant="outlined" onClick={() => put.mutate({ id: file.id, state: 'aside' })}>
            {file.fault ? 'Lay it aside' : 'Not this'}
          </Button>
        </Box>
      ))}
      {total > SHOWN ? (
        <Typography variant="body2">{total - SHOWN} more wait in the folder, the newest stand here.</Typography>
      ) : null}
      {unfinished.map((u) => (
        <Typography key={u.name} role="status" variant="body2">
          {u.said}
        </Typography>
      ))}
      {put.error ? <Typography role="alert">{put.error.message}</Typography> : null}
    </Box>
  );
}
