import { Box, Button, ButtonBase, Typography, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { widthOf, type Lesson, type PracticeGun } from '@steady-gleam/core/practice';
import { useMemo, useState, type ReactNode } from 'react';
import { FigureRows } from './FigureRows';
import { forgetPractised, readPractised } from '../../shared/practised';
import { figureRows, MOST_COATS, MOST_FILM, stripesSeen } from './practiceModel';
import { SpeedPicture } from './SpeedPicture';
import type { Coats } from './useCoats';

/** What the coat came to, the one thing to change, and what to do with it. */
export function CoatSide({
  lesson,
  gun,
  look,
  choices,
  lessons,
  coats,
  onShow,
  onWatch,
  onAgain,
  onNext,
}: {
  lesson: Lesson;
  gun: PracticeGun;
  look: readonly (readonly Lab[])[] | null;
  choices: ReactNode;
  lessons: ReactNode;
  coats: Coats;
  /** An arm lays the coat as it is meant. */
  onShow: () => void;
  onWatch: () => void;
  onAgain: () => void;
  onNext: () => void;
}) {
  const { tones } = useTheme();
  const { now, base, number } = coats;
  const seen = useMemo(() => {
    if (!now || !look) return null;
    const { film } = now.review;
    return stripesSeen(
      base.map((v, i) => v + film[i]!),
      look,
      MOST_FILM,
    );
  }, [now, look, base]);
  const [forgotten, setForgotten] = useState(false);
  const isLaid = !!now?.review.rows.length;
  const isGoal = isLaid && now.review.isCovered && lesson.passed(now.review.figures);
  const scores = readPractised().scores[lesson.id] ?? [];
  return (
    <>
      {lessons}
      {isLaid ? <Typography variant="h2">{number === 1 ? 'This coat' : `Coat ${number}`}</Typography> : null}
      {isLaid ? (
        <>
          <FigureRows rows={figureRows(now.review, seen)} />
          <SpeedPicture samples={now.samples} gun={gun} widthCm={widthOf(lesson)} />
          {now.habit ? (
            <Box
              sx={{ borderLeft: `4px solid ${tones.ink}`, pl: 1.25, fontSize: 15, lineHeight: 1.35 }}
              data-testid="habit"
            >
              One thing first: {now.habit.how} It takes away {Math.round(100 * now.habit.takesAway)} % of what is off.
            </Box>
          ) : null}
        </>
      ) : (
        <>
          {choices}
          <Typography>{lesson.goal}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {gun.fanCm} cm fan at {gun.distanceCm} cm, {gun.speedCmS} cm/s, half over half: that lays the coat. Passes{' '}
            {Number((gun.fanCm * (1 - gun.overlap)).toFixed(1))} cm apart, trigger{' '}
            {lesson.marginCm ? `on and off ${lesson.marginCm} cm past the edge` : 'on and off at the edge'}.
          </Typography>
        </>
      )}
      {scores.length && !forgotten && !isLaid ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Points on this device: {scores.slice(-6).join(', ')}.{' '}
          <ButtonBase
            onClick={() => {
              forgetPractised();
              setForgotten(true);
            }}
            sx={{ textDecoration: 'underline', font: 'inherit', minHeight: 24 }}
          >
            Forget them
          </ButtonBase>
        </Typography>
      ) : null}
      <Box sx={{ mt: 'auto', display: 'flex', flexDirection: 'column', gap: 1.25 }}>
        {isLaid ? (
          <>
            <Button variant="outlined" onClick={onWatch}>
              Watch it again
            </Button>
            <Button variant={isGoal ? 'outlined' : 'contained'} onClick={onAgain}>
              Lay it again
            </Button>
            {number < MOST_COATS ? (
              <Button variant={isGoal ? 'contained' : 'outlined'} onClick={onNext}>
                Next coat
              </Button>
            ) : null}
          </>
        ) : (
          <Button variant="outlined" onClick={onShow}>
            Show me how
          </Button>
        )}
      </Box>
    </>
  );
}
