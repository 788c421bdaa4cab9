import { Box, Button, Typography, useTheme } from '@mui/material';
import type { FinishSummary } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Field } from '../../shared/Field';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { cssOf } from '../../shared/screenColour';
import { useFinishes } from '../../shared/useFinishes';
import { answersTo, sayKnown, sayMade } from './bankModel';

/** Every finish of the shop, also those whose jobs are gone: what was matched, what makes it, and how well it is known. */
export function BankPage() {
  const { library } = useLibrary();
  const { data, error, isPending, refetch } = useFinishes();
  const [typed, setTyped] = useState('');
  if (isPending) return <Notice title="Opening the bank …" />;
  if (error)
    return (
      <Notice title="The bank could not be opened." text={error.message}>
        <Button variant="contained" onClick={() => void refetch()}>
          Try again
        </Button>
      </Notice>
    );
  const found = data.filter((f) => answersTo(f, typed.trim(), library));
  const proven = data.filter((f) => f.proven > 0).length;
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer why="A finish stays here with its target and its cards when its jobs are done and gone.">
        {data.length === 0
          ? 'The bank is empty. A new job puts its finish here.'
          : `${data.length === 1 ? 'One finish' : `${data.length} finishes`}, ${proven === 0 ? 'none held on a finished job yet' : `${proven} held on finished jobs`}.`}
      </Answer>
      <Box sx={{ maxWidth: 420, mb: 1.5 }}>
        <Field
          label="Find by name, code, mix or piece"
          type="search"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </Box>
      {found.length === 0 && data.length > 0 ? <Typography>Nothing here answers to “{typed}”.</Typography> : null}
      <Box component="ul" aria-label="Finishes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {found.map((f) => (
          <FinishRow key={f.id} finish={f} made={sayMade(f, library)} />
        ))}
      </Box>
    </Box>
  );
}

function FinishRow({ finish, made }: { finish: FinishSummary; made: string }) {
  const { tones } = useTheme();
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${tones.hairline}` }}>
      <Box
        component={Link}
        to={`/bank/${finish.id}`}
        sx={{
          display: 'grid',
          gridTemplateColumns: '96px minmax(180px, 1fr) minmax(220px, 1.4fr) minmax(150px, 0.9fr)',
          gap: 2,
          alignItems: 'center',
          minHeight: 64,
          color: 'inherit',
          textDecoration: 'none',
          '&:hover': { background: tones.panel },
        }}
      >
        <Swatch lab={finish.lab} />
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h3" component="div" noWrap title={finish.name}>
            {finish.name}
          </Typography>
          <Typography variant="body2" noWrap sx={{ fontFamily: FIGURES, color: 'text.secondary' }}>
            {finish.code || (finish.invented ? 'demo' : 'no code')}
          </Typography>
        </Box>
        <Typography sx={{ py: 0.5 }}>{made}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', py: 0.5 }}>
          {sayKnown(finish)}
        </Typography>
      </Box>
    </Box>
  );
}

/** The target's colour at 45 degrees; open where nothing was read. */
export function Swatch({ lab, height = 63 }: { lab: readonly number[] | null; height?: number }) {
  const { tones } = useTheme();
  return (
    <Box
      role="img"
      aria-label={lab ? 'Target at 45°' : 'No target read'}
      sx={{
        height,
        background: lab ? cssOf(lab as unknown as Lab) : 'transparent',
        borderRight: `1px solid ${tones.hairline}`,
      }}
    />
  );
}
