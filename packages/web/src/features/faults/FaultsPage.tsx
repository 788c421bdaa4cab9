import { Box, ButtonBase, Typography, useTheme } from '@mui/material';
import { FAULTS, searchFaults } from '@steady-gleam/core/faults';
import { useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { FaultCard } from './FaultCard';
import { FaultPicture } from './FaultPicture';

/** Faults by word and by picture: what they are, why, and what to do. */
export function FaultsPage() {
  const { tones } = useTheme();
  const [params, setParams] = useSearchParams();
  const text = params.get('find') ?? '';
  const found = searchFaults(text);
  const open = found.find((f) => f.id === params.get('fault')) ?? found[0] ?? null;
  const set = (more: Record<string, string>) =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old);
        for (const [k, v] of Object.entries(more)) {
          if (v) next.set(k, v);
          else next.delete(k);
        }
        return next;
      },
      { replace: true },
    );
  const said = !open
    ? `No fault is called “${text}”.`
    : text.trim()
      ? `${open.name}: ${open.before ?? open.after ?? ''}`
      : 'What do you see?';
  return (
    <Bench
      standalone
      side={
        open ? (
          <>
            <Typography variant="h2">{open.name}</Typography>
            <FaultPicture id={open.id} name={`${open.name}, drawn`} size={148} />
            <FaultCard fault={open} evidence={null} />
          </>
        ) : (
          <Typography>Another word, or go by the pictures.</Typography>
        )
      }
    >
      <Answer why="Tap the picture that is like it, or say it in a word. In the booth the same pictures stand behind “A fault”, and the job’s own log says which cause it was.">
        {said}
      </Answer>
      <Box sx={{ maxWidth: 380, mb: 1.5 }}>
        <Field
          label="In a word"
          value={text}
          onChange={(e) => set({ find: e.target.value, fault: '' })}
          hint="For instance: zebra, dust, milky"
        />
      </Box>
      <Box
        role="group"
        aria-label="Faults"
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(232px, 1fr))', gap: 1 }}
      >
        {(text.trim() ? found : FAULTS).map((f) => (
          <ButtonBase
            key={f.id}
            aria-pressed={open?.id === f.id}
            onClick={() => set({ fault: f.id })}
            sx={{
              justifyContent: 'flex-start',
              gap: 1.25,
              textAlign: 'left',
              font: 'inherit',
              borderBottom: `1px solid ${tones.hairline}`,
              background: open?.id === f.id ? tones.panel : 'none',
              pr: 1,
            }}
          >
            <FaultPicture id={f.id} name="" />
            <Typography variant="h3" component="span">
              {f.name}
            </Typography>
          </ButtonBase>
        ))}
      </Box>
    </Bench>
  );
}
