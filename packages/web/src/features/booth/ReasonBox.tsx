import { Box, Button } from '@mui/material';
import { TALL } from './boothStyles';
import { TextLine } from './NoteBox';

/** Faults a painter sees at a check; common practice (no source). */
const FAULTS = ['dust or nib', 'run', 'mottle', 'stripe', 'dry spray', 'fish-eyes', 'shows through', 'edge or tail'];
const REASONS = ['not needed here', 'no lamp here', 'done before', 'no time'];

/** Which fault, or why something is left out: a tap, or a line of one's own. */
export function ReasonBox({ kind, onSay }: { kind: 'fault' | 'skip'; onSay: (text: string) => void }) {
  return (
    <Box role="group" aria-label={kind === 'fault' ? 'Which fault' : 'Why it is left out'} sx={{ mt: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {(kind === 'fault' ? FAULTS : REASONS).map((text) => (
          <Button key={text} variant="outlined" sx={TALL} onClick={() => onSay(text)}>
            {text}
          </Button>
        ))}
      </Box>
      <TextLine
        label={kind === 'fault' ? 'Another fault' : 'Another reason'}
        act={kind === 'fault' ? 'It is this' : 'Leave it out'}
        onKeep={onSay}
      />
    </Box>
  );
}
