import { Box, Button, Typography } from '@mui/material';
import { sayCoats } from '../../shared/jobModel';
import { useRecallCard, useRetireCard, type PageDetail } from '../../shared/useJob';
import { useUnits } from '../../shared/units';

/** A card that turned out wrong is put aside, not thrown away: it keeps all that was read, and can be put in force again. */
export function EarlierCards({ detail }: { detail: PageDetail }) {
  const units = useUnits();
  const { job, card, finish } = detail;
  const retire = useRetireCard(job);
  const recall = useRecallCard();
  const failure = retire.error ?? recall.error;
  return (
    <Box component="section" aria-label="Cards of this finish">
      {finish.cards.length ? (
        <>
          <Typography variant="h3" component="h2">
            Earlier cards
          </Typography>
          {finish.cards.map((c) => (
            <Box key={c.id} sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
              <Typography variant="body2" sx={{ flex: 1 }}>
                {c.gun}, {units.say('pressure', c.pressureBar)}; rungs {c.rungs.map(sayCoats).join(', ')}; {c.rungsRead}{' '}
                read
              </Typography>
              <Button
                variant="text"
                color="inherit"
                disabled={recall.isPending}
                onClick={() => recall.mutate(c.id)}
                sx={{ px: 0.5, textDecoration: 'underline' }}
              >
                Put it in force
              </Button>
            </Box>
          ))}
        </>
      ) : null}
      {card ? (
        <Button
          variant="text"
          color="inherit"
          disabled={retire.isPending}
          onClick={() => retire.mutate(card.version)}
          sx={{ px: 0.5, textDecoration: 'underline' }}
        >
          Put this card aside, begin a new one
        </Button>
      ) : null}
      {failure ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {failure.message}
        </Typography>
      ) : null}
    </Box>
  );
}
