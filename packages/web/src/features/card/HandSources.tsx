import { Box, Button, Typography } from '@mui/material';
import { cardsApi, type EarlierHand } from '@steady-gleam/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../shared/apiClient';
import { daySaid } from '../../shared/timeOfDay';

/** Cards whose hand this one is told of: the same gun, style and family. One that is odd can be left out. */
export function HandSources({ earlier }: { earlier: readonly EarlierHand[] }) {
  const client = useQueryClient();
  const leave = useMutation({
    mutationFn: (cardId: string) => call(cardsApi.setHand, { params: { id: cardId }, body: { teaches: false } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  if (!earlier.length) return null;
  return (
    <Box component="section" aria-label="Where the hand is known from">
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The hand with this gun, style and family is known from:
      </Typography>
      {earlier.map((h) => (
        <Box key={h.cardId} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            <Link to={`/bank/${h.finishId}`} style={{ color: 'inherit' }}>
              {h.finishName}
            </Link>
            , {daySaid(h.at)}
          </Typography>
          <Button
            variant="text"
            color="inherit"
            disabled={leave.isPending}
            onClick={() => leave.mutate(h.cardId)}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            Leave it out
          </Button>
        </Box>
      ))}
      {leave.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {leave.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}
