import { Box, ButtonBase, Typography, useTheme } from '@mui/material';
import { useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import { onPost, postNow, waitingIn } from '../shared/log/post';
import { takeNewBuild } from '../shared/newBuild';
import { sayStanding } from '../shared/standing';
import { useReach } from '../shared/reach';
import { useSession } from '../shared/useSession';

/** At the foot of the rail, on every page: what waits on this device, and whether the server is there. */
export function Standing() {
  const { tones } = useTheme();
  const { isAway, newBuild } = useReach();
  const post = useSyncExternalStore(onPost, postNow);
  const { data: session } = useSession();
  const lines = sayStanding({ isAway, waiting: waitingIn(post), setAside: post.setAside.length });
  const line = {
    px: '14px',
    py: 0.75,
    fontSize: 15,
    lineHeight: 1.25,
    borderTop: `1px solid ${tones.hairline}`,
  } as const;
  return (
    <>
      {newBuild ? (
        <ButtonBase
          onClick={() => void takeNewBuild()}
          sx={{ ...line, minHeight: 48, textAlign: 'left', display: 'block', width: '100%', background: tones.raised }}
        >
          A new version is here. <b>Take it</b>
        </ButtonBase>
      ) : null}
      {session?.can === 'look' ? <Typography sx={line}>Looking only</Typography> : null}
      {lines.length ? (
        <Box
          component={Link}
          to="/shop#here"
          role="status"
          data-testid="standing"
          sx={{
            ...line,
            display: 'block',
            minHeight: 44,
            color: 'inherit',
            textDecoration: 'none',
            borderLeft: `5px solid ${isAway || post.setAside.length ? tones.danger : 'transparent'}`,
            pl: '9px',
          }}
        >
          {lines.map((l) => (
            <Box key={l} component="span" sx={{ display: 'block' }}>
              {l}
            </Box>
          ))}
        </Box>
      ) : null}
    </>
  );
}
