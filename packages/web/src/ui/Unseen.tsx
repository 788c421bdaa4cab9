import { styled } from '@mui/material/styles';

/** Said by a screen reader, not shown. */
export const Unseen = styled('span')({
  position: 'absolute',
  width: 1,
  height: 1,
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
});
