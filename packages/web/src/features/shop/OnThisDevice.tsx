import { Box, Button, Typography } from '@mui/material';
import { useSyncExternalStore } from 'react';
import { download } from '../../shared/download';
import { forget, onPost, postNow, waitingIn, type SetAside } from '../../shared/log/post';
import { useReach } from '../../shared/reach';
import { sayKept } from './shopModel';
import { Row } from './Row';

/** Hands out what was refused: a photo as itself, everything else with why it was refused. */
function save({ id, what, reason, jobId, content }: SetAside): void {
  if ('path' in content && typeof content.body !== 'string')
    download(new Blob([content.body], { type: content.type }), `refused-${id}.${content.type.split('/')[1] ?? 'bin'}`);
  else {
    const text = JSON.stringify({ what, reason, jobId, content }, null, 2);
    download(new Blob([text], { type: 'application/json' }), `refused-${id}.json`);
  }
}

/** What waits on this device, and what the server refused: read, saved as a file, let go. */
export function OnThisDevice() {
  const post = useSyncExternalStore(onPost, postNow);
  const { isAway } = useReach();
  const { setAside } = post;
  return (
    <>
      <Typography>{sayKept(waitingIn(post), setAside.length, isAway)}</Typography>
      {post.fault ? <Typography role="alert">{post.fault}</Typography> : null}
      {setAside.length ? (
        <>
          <Box component="ul" aria-label="Refused" sx={{ listStyle: 'none', m: 0, mt: 1, p: 0 }}>
            {setAside.map((s) => (
              <Row key={s.id}>
                <Typography sx={{ flex: 1 }}>
                  {s.what}: {s.reason}
                </Typography>
                <Button variant="text" color="inherit" onClick={() => save(s)}>
                  Save it as a file
                </Button>
                <Button variant="text" color="inherit" onClick={() => void forget(s)}>
                  Let it go
                </Button>
              </Row>
            ))}
          </Box>
        </>
      ) : null}
    </>
  );
}
