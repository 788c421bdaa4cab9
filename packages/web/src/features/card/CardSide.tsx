import { Box, Button, Typography, useTheme } from '@mui/material';
import { FIGURES } from '../../app/theme';
import { believedFilm } from '@steady-gleam/core/letdown';
import { Link } from 'react-router';
import { shopNow } from '../../shared/clock';
import { timeSaid } from '../../shared/timeOfDay';
import { countCoats, sayCoats, sayDone } from '../../shared/jobModel';
import type { PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';
import { SetUpNotes } from '../plan/SetUpPanel';
import { sayFit, sayHand } from './cardModel';
import { ChancesBars } from './ChancesBars';
import { sayPlans } from './eyeModel';
import { EyePicture } from './EyePicture';
import { HandSources } from './HandSources';
import type { CardCount } from './useCardCount';
import { FinishButton } from '../../shared/FinishButton';
import type { ReadingSet } from '@steady-gleam/contracts';
import type { Dispatch, SetStateAction } from 'react';

interface CardSideProps {
  readonly count: CardCount;
  readonly detail: PageDetail;
  readonly work: JobWorked;
  readonly warnings: readonly string[];
  readonly wet: readonly ReadingSet[];
  readonly nextRung: number | null;
  readonly setSelected: Dispatch<SetStateAction<number | null>>;
}

/** What the card taught, what is doubtful about it, and the way on. */
export function CardSide({ count, detail, work, warnings, wet, nextRung, setSelected }: CardSideProps) {
  const { tones } = useTheme();
  const { job, card, earlier } = detail;
  const { card: read, hand, scatter, advice, readings, bare } = count;
  const withTarget = count.target.length > 0;
  const fit = read?.fit ?? null;
  const eye = count.answer?.eye ?? null;
  const expected = believedFilm(earlier);
  const rows = [...(bare ? [bare] : []), ...readings];
  const figure = (name: string, value: string) => (
    <Box
      sx={{ display: 'flex', justifyContent: 'space-between', py: 0.6, borderBottom: `1px solid ${tones.hairline}` }}
    >
      <span>{name}</span>
      <Box component="span" sx={{ fontFamily: FIGURES, whiteSpace: 'nowrap' }}>
        {value}
      </Box>
    </Box>
  );
  const warning = (text: string) => (
    <Typography key={text} role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
      {text}
    </Typography>
  );

  return (
    <>
      {read && withTarget ? (
        <Box>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            {fit ? 'What the card taught' : expected ? 'From your earlier cards' : 'Before the card'}
          </Typography>
          {fit || expected ? (
            <Typography sx={{ mb: 0.5 }}>{sayHand(fit ?? { film: expected!, variations: [] })}.</Typography>
          ) : null}
          {figure(
            'film per coat',
            hand !== null
              ? hand.toFixed(2)
              : expected
                ? `${Math.exp(expected.mean).toFixed(2)}, expected`
                : 'not read yet',
          )}
          {figure(fit ? 'the card says' : 'any hand', `${read.card90[0].toFixed(1)} to ${read.card90[1].toFixed(1)}`)}
          {figure('on the piece', `${read.object90[0].toFixed(1)} to ${read.object90[1].toFixed(1)}`)}
          {read.nextRung && read.nextRung.leaves < 0.9
            ? figure(
                `doubt left by a rung of ${sayCoats(read.nextRung.coats)}`,
                `${Math.round(100 * read.nextRung.leaves)} %`,
              )
            : null}
          {figure('spots scatter by', scatter === null ? 'usual' : `${scatter.toFixed(2)} Lab`)}
          {fit ? (
            <Typography variant="body2" sx={{ mt: 0.75 }}>
              {sayFit(read, rows)}
            </Typography>
          ) : null}
        </Box>
      ) : null}
      <HandSources earlier={earlier} />
      {eye ? <EyePicture posterior={eye} /> : null}
      <SetUpNotes detail={detail} work={work} />
      {warnings.map(warning)}
      {wet.length
        ? warning(
            `The rung with ${wet.map((r) => countCoats(r.rungCoats!)).join(' and ')} was read wet, so it is kept but not used. Read it again under clear.`,
          )
        : null}
      {read && advice ? <ChancesBars card={read} spray={advice.spray} /> : null}
      {read ? <Typography variant="body2">{sayPlans(read)}</Typography> : null}
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 'auto' }}>
        {job.status === 'finished' ? (
          <Typography>
            {job.done ? `${sayDone(job.done, (at) => timeSaid(at, shopNow()))} ` : 'This job is finished. '}Its card
            stays here for next time.
          </Typography>
        ) : nextRung !== null ? (
          <Button variant="contained" sx={{ minHeight: 52 }} onClick={() => setSelected(nextRung)}>
            Enter the rung with {sayCoats(nextRung)}
          </Button>
        ) : !card ? null : (
          <>
            {advice ? (
              <Button component={Link} to={`/jobs/${job.id}/spray`} variant="contained" sx={{ minHeight: 52 }}>
                Go to the job
              </Button>
            ) : null}
            <FinishButton job={job} run={work} />
          </>
        )}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          A screen is not a proof. Look at the card itself, at face and flop.
        </Typography>
      </Box>
    </>
  );
}
