import { Box, Button, Typography, useTheme } from '@mui/material';
import { findGround, findSystem, STYLES } from '@steady-gleam/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { choiceOf, countCoats, mixOf, rungReadingsOf, sayCoats, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddReadings, useChangeJob, useJob } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { CardPlanForm } from './CardPlanForm';
import { sayCard, sayMisread } from './cardModel';
import { ChancesBars } from './ChancesBars';
import { LadderPicture } from './LadderPicture';

/** The let-down card: plan it, enter its rungs, read off the coat count of this hand. */
export function CardPage() {
  const { job, target: set, card, rungs } = useJob();
  const { tones } = useTheme();
  const { library } = useLibrary();
  const add = useAddReadings(job.id);
  const change = useChangeJob(job.id);
  const [selected, setSelected] = useState<number | null>(null);
  const [planning, setPlanning] = useState(false);
  const target = targetOf(set);
  const choice = choiceOf(job);
  const mix = mixOf(job);
  const planned = card?.rungs ?? [];
  const readings = rungReadingsOf(rungs, target).filter((r) => planned.includes(r.coats));
  const last = Math.max(6, ...planned) + 1;
  const handHeld = card?.onStand === false;
  const ready = target.length > 0 && job.choice !== null;
  const { value: assessment, error } = useCompute(
    ready ? JSON.stringify([mix, choice.groundId, target, readings, last, handHeld]) : null,
    (c) => c.assess(mix, choice.groundId, target, readings, last, handHeld),
  );

  if (!ready) {
    const to = target.length ? 'map' : 'target';
    return (
      <Notice
        title={target.length ? 'Pick a ground first.' : 'Read the target first.'}
        text={
          target.length
            ? 'The card is sprayed over the ground you will use, so the match map comes before it.'
            : 'The card is compared with what you have to match.'
        }
      >
        <Button component={Link} to={`/jobs/${job.id}/${to}`} variant="contained">
          {target.length ? 'Open the match map' : 'Read the target'}
        </Button>
      </Notice>
    );
  }
  if (error) return <Notice title="The card could not be worked out." text={error} />;
  if (!assessment) return <Notice title="Reading the card …" />;

  const { answer, why } = sayCard(assessment);
  const { calibration, hand, bestSd, advice, stop } = assessment;
  const misread = calibration ? sayMisread(calibration.misread) : null;
  const recipe = `${findSystem(job.systemId, library.systems).name} at ${choice.strength.toFixed(2)}×, ${STYLES[choice.style].name.toLowerCase()}${choice.controlCoat ? ' and a control coat' : ''}, over ${findGround(choice.groundId, library.grounds).name.toLowerCase()}`;
  const nextRung = planned.find((n) => !readings.some((r) => r.coats === n)) ?? null;

  const figure = (name: string, value: string) => (
    <Box
      sx={{ display: 'flex', justifyContent: 'space-between', py: 0.6, borderBottom: `1px solid ${tones.hairline}` }}
    >
      <span>{name}</span>
      <Box component="span" sx={{ fontFamily: FIGURES }}>
        {value}
      </Box>
    </Box>
  );

  const side =
    selected !== null ? (
      <>
        <Box>
          <Typography variant="h2">The rung with {countCoats(selected)}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Cleared and dry; read where the coat is even.
          </Typography>
        </Box>
        <ReadingsForm
          key={selected}
          kind="rung"
          rungCoats={selected}
          angles={target.map((t) => t.aspecular)}
          saveLabel="Keep this rung"
          narrow
          onCancel={() => setSelected(null)}
          onSave={async (s) => {
            await add.mutateAsync(s);
            setSelected(null);
          }}
        />
      </>
    ) : (
      <>
        <Box>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            {calibration ? 'What the card taught' : 'Before the card'}
          </Typography>
          {figure(
            'film per coat',
            calibration ? `${hand.film.toFixed(2)} ± ${(hand.film * calibration.sd.film).toFixed(2)}` : 'nominal',
          )}
          {calibration?.free.includes('spread')
            ? figure('flake spread', `${hand.spread.toFixed(2)} ± ${(hand.spread * calibration.sd.spread).toFixed(2)}`)
            : null}
          {figure('coats to match', `${stop.best.coats.toFixed(1)} ± ${bestSd.toFixed(bestSd < 0.095 ? 2 : 1)}`)}
        </Box>
        {misread ? (
          <Typography role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
            {misread}
          </Typography>
        ) : null}
        {advice ? <ChancesBars advice={advice} /> : null}
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 'auto' }}>
          {job.status === 'finished' ? (
            <Typography>This job is finished; its card stays here for next time.</Typography>
          ) : nextRung !== null ? (
            <Button variant="contained" sx={{ minHeight: 52 }} onClick={() => setSelected(nextRung)}>
              Enter the rung with {sayCoats(nextRung)}
            </Button>
          ) : !card ? null : (
            <Button
              variant="contained"
              sx={{ minHeight: 52 }}
              disabled={change.isPending}
              onClick={() => change.mutate({ version: job.version, status: 'finished' })}
            >
              Mark this job finished
            </Button>
          )}
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            A screen is not a proof. Look at the card itself, at face and flop.
          </Typography>
        </Box>
      </>
    );

  return (
    <Bench side={side}>
      <Answer why={why}>{answer}</Answer>
      {card && !planning ? (
        <>
          <LadderPicture
            assessment={assessment}
            target={target}
            rungs={planned}
            readings={readings}
            selected={selected}
            onSelect={setSelected}
          />
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1.5 }}>
            <Button variant="outlined" onClick={() => setPlanning(true)} sx={{ flex: 'none' }}>
              Change the plan
            </Button>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Upper half: rung as read, hatched where predicted; lower half: target; figures dE00. {recipe}. {card.gun},{' '}
              {card.pressureBar} bar{card.onStand ? '' : ', in the hand'}.
            </Typography>
          </Box>
        </>
      ) : (
        <CardPlanForm job={job} card={card} {...(card ? { onDone: () => setPlanning(false) } : {})} />
      )}
    </Bench>
  );
}
