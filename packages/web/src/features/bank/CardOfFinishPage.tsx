import { Box, Button, Typography } from '@mui/material';
import { Link, useParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { useFinish } from '../../shared/useFinishes';
import { sayMade, sayRung } from './bankModel';
import { CardView } from './CardView';
import { ReadBefore } from './ReadBefore';

/** One card of a finish, in force or put aside: its set-up, its rungs over the target, and everything that was read of it. */
export function CardOfFinishPage() {
  const { id = '', cardId = '' } = useParams();
  const { library } = useLibrary();
  const { data, error } = useFinish(id);
  const of = data?.cards.find((c) => c.card.id === cardId);
  const back = (
    <Button component={Link} to={`/bank/${id}`} variant={of ? 'outlined' : 'contained'}>
      To the finish
    </Button>
  );
  if (error || (data && !of))
    return (
      <Notice title="This card is not here." text={error?.message}>
        {back}
      </Notice>
    );
  if (!data || !of) return <Notice title="Opening the card …" />;
  const { firstStop } = of.card;
  return (
    <Box sx={{ p: '18px 28px 28px', maxWidth: 980, display: 'grid', gap: 2 }}>
      <Answer why={`${data.finish.name}: ${sayMade(data.finish, library)}.`}>
        {firstStop === null
          ? 'This card has not said a count yet.'
          : `This card says: on the piece stop first at ${sayRung(firstStop)} coats, and look.`}
      </Answer>
      <CardView of={of} strip={data.finish.strip} />
      <ReadBefore before={of.before} now={of.rungs} what="The card" />
      {of.before.length ? null : (
        <Typography sx={{ color: 'text.secondary' }}>No rung was read twice, and none was taken out.</Typography>
      )}
      <Box>{back}</Box>
    </Box>
  );
}
