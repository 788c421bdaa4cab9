import { Box } from '@mui/material';

/** Stands wherever something is not of the world: nothing of the shop's own is learned from it. */
export function Simulated({ children = 'simulated' }: { children?: string }) {
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-block',
        border: '2px dashed currentColor',
        px: 0.75,
        fontSize: 14,
        lineHeight: '20px',
        fontWeight: 640,
        whiteSpace: 'nowrap',
      }}
    >
      {children}
    </Box>
  );
}
