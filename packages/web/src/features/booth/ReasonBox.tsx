import { Box, Button } from '@mui/material';
import { FAULTS } from '@steady-gleam/core/faults';
import { FaultPicture } from '../faults/FaultPicture';
import { TALL } from './boothStyles';
import { TextLine } from './NoteBox';

const REASONS = ['not needed here', 'no lamp here', 'done before', 'no time'];

/** Which fault, or why something is left out: a tap, or a line of one's own. */
export function ReasonBox({ kind, onSay }: { kind: 'fault' | 'skip'; onSay: (text: string) => void }) {
  return (
    <Box role="group" aria-label={kind === 'fault' ? 'Which fault' : 'Why it is left out'} sx={{ mt: 2 }}>
      {kind === 'fault' ? (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(196px, 1fr))', gap: 0.75 }}>
          {FAULTS.map((f) => (
            <Button
              key={f.id}
              variant="outlined"
              sx={{ justifyContent: 'flex-start', gap: 1, p: 0, pr: 1, textAlign: 'left', lineHeight: 1.1 }}
              onClick={() => onSay(f.name)}
            >
              <FaultPicture id={f.id} name="" />
              {f.name}
            </Button>
          ))}
        </Box>
      ) : (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          {REASONS.map((text) => (
            <Button key={text} variant="outlined" sx={TALL} onClick={() => onSay(text)}>
              {text}
            </Button>
          ))}
        </Box>
      )}
      <TextLine
        label={kind === 'fault' ? 'Another fault' : 'Another reason'}
        act={kind === 'fault' ? 'It is this' : 'Leave it out'}
        onKeep={onSay}
      />
    </Box>
  );
}
