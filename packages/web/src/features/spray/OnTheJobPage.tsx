import AddIcon from '@mui/icons-material/Add';
import RemoveIcon from '@mui/icons-material/Remove';
import { Box, Button, IconButton, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { interpolateLabs, liveState, type EyeView, type Verdict } from '@steady-gleam/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { FlopStrip } from '../../shared/FlopStrip';
import { choiceOf, countCoats, mixOf, sayCoats } from '../../shared/jobModel';
import { Notice } from '../../shared/Notice';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddReadings, useAddVerdict, useJob } from '../../shared/useJob';
import { useCardCount } from '../card/useCardCount';
import { VerdictRows } from '../card/RungPanel';
import { PatchGauge } from '../card/PatchGauge';
import { evidenceOf, sayLive, saySpot } from './sprayModel';
import { newId } from '../../shared/newId';
import { shopIso } from '../../shared/clock';
import { FAMILIES } from '@steady-gleam/core';
import { FinishButton } from '../../shared/FinishButton';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';

/** On the object itself: after every coat look, spot by spot, and hear what is left and what can't be taken back. */
export function OnTheJobPage() {
  const detail = useJob();
  const { job, card, spots, verdicts } = detail;
  const { target, assessment, error, best, aim, inside, advice } = useCardCount(detail);
  const { tones } = useTheme();
  const add = useAddReadings(job.id);
  const say = useAddVerdict(job.id);
  const { took, note } = useTakenOut(job.id);
  const mix = mixOf(job);
  const choice = choiceOf(job);
  const planned = card?.rungs ?? [];
  const jobLooks = verdicts.filter((v) => v.place === 'job');
  const lastSprayed = Math.max(0, ...spots.map((s) => s.rungCoats ?? 0), ...jobLooks.map((v) => v.coats));
  const [sprayed, setSprayed] = useState(lastSprayed);
  const [spot, setSpot] = useState('');
  const [by, setBy] = useState<'eye' | 'readings'>('eye');
  if (error) return <Notice title="The card could not be worked out." text={error} />;
  const finish = <FinishButton job={job} />;
  if (!card || best === null || !aim || !advice) {
    return (
      <Notice
        title={target.length && job.choice && !assessment ? 'Reading the card …' : 'Spray the card first.'}
        text="What is left to spray follows from the card: its count, its window and your hand."
      >
        <Button component={Link} to={`/jobs/${job.id}/card`} variant="contained">
          Open the card
        </Button>
        {finish}
      </Notice>
    );
  }
  const evidence = evidenceOf(spots, verdicts, assessment, target, best);
  const window = aim;
  const state = liveState(best, window, sprayed, evidence);
  const said = sayLive(state, sprayed, advice.spray, best, inside);
  const name = spot.trim() || 'all over';
  const shownFilm = Number(
    Math.min(
      assessment?.counts.at(-1) ?? 8,
      sprayed > 0 ? sprayed * state.session : Math.max(0.5, advice.spray),
    ).toFixed(1),
  );
  const event = (view: EyeView, verdict: Verdict | null, patch: number | null = null) =>
    say.mutate({
      patch,
      id: newId(),
      place: 'job',
      coats: sprayed,
      spot: name,
      view,
      verdict,
      takenAt: shopIso(),
    });
  const widest = Math.max(window[1] * 1.3, ...state.spots.map((s) => s.film * 1.1), sprayed * state.session * 1.1);
  const x = (n: number) => `${(100 * n) / widest}%`;

  return (
    <Bench
      side={
        <>
          <Typography variant="h2">
            {sprayed > 0 ? `A look after ${countCoats(sprayed)}` : 'Say how much is on, then look'}
          </Typography>
          <Field
            label="Where"
            value={spot}
            onChange={(e) => setSpot(e.target.value)}
            hint="For instance: nose, left side; empty for all over"
          />
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={by}
            aria-label="How it is judged"
            onChange={(_, v: typeof by | null) => v && setBy(v)}
          >
            <ToggleButton value="eye">By eye</ToggleButton>
            <ToggleButton value="readings" disabled={!target.length}>
              Readings
            </ToggleButton>
          </ToggleButtonGroup>
          {sprayed <= 0 ? (
            <Typography>Nothing has been sprayed yet.</Typography>
          ) : by === 'eye' ? (
            <>
              <Typography variant="body2">Wet or under a cleared patch, against what has to be matched:</Typography>
              <VerdictRows verdicts={jobLooks.filter((v) => v.coats === sprayed && v.spot === name)} onSay={event} />
              {FAMILIES[job.family].patches && card.settings.patches ? (
                <Box role="group" aria-label="Contrast patch looks like the card’s at">
                  <Typography variant="h3" component="div">
                    the patch beside it looks like the card’s at
                  </Typography>
                  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
                    {planned.map((n) => (
                      <ToggleButton
                        key={n}
                        value={n}
                        aria-label={`${sayCoats(n)} coats`}
                        selected={jobLooks.some((v) => v.coats === sprayed && v.spot === name && v.patch === n)}
                        onChange={() => event('lamp', null, n)}
                      >
                        {sayCoats(n)}
                      </ToggleButton>
                    ))}
                  </Box>
                </Box>
              ) : null}
              {say.error ? (
                <Typography role="alert" sx={{ color: 'error.main' }}>
                  {say.error.message}
                </Typography>
              ) : null}
            </>
          ) : (
            <ReadingsForm
              key={`${sprayed}/${name}`}
              kind="spot"
              rungCoats={sprayed}
              label={name}
              angles={target.map((t) => t.aspecular)}
              saveLabel="Keep this look"
              narrow
              known={spots}
              onSave={(s) => add.mutateAsync(s)}
            />
          )}
          <Box sx={{ mt: 'auto', display: 'flex', flexDirection: 'column' }}>{finish}</Box>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Effect coats in solvent or two-pack carrier: air-fed respirator and exhaust, no ignition source, as the
            product’s sheet and your local rules say.
          </Typography>
        </>
      }
    >
      <Answer why={said.why}>{said.answer}</Answer>
      <Box role="group" aria-label="Sprayed so far" sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mb: 2 }}>
        <Typography variant="h2">Sprayed so far</Typography>
        <IconButton
          aria-label="A quarter coat less"
          sx={STEP}
          disabled={sprayed <= 0}
          onClick={() => setSprayed(sprayed - 0.25)}
        >
          <RemoveIcon />
        </IconButton>
        <Box component="output" sx={{ typography: 'h1', minWidth: 84, textAlign: 'center' }}>
          {sayCoats(sprayed)}
        </Box>
        <IconButton
          aria-label="A quarter coat more"
          sx={STEP}
          disabled={sprayed >= 20}
          onClick={() => setSprayed(sprayed + 0.25)}
        >
          <AddIcon />
        </IconButton>
        <Button variant="outlined" onClick={() => setSprayed(sprayed + 1)}>
          + 1 coat
        </Button>
        <Button variant="outlined" onClick={() => setSprayed(sprayed + 0.5)}>
          + ½
        </Button>
      </Box>
      <Box
        role="img"
        aria-label={`Film in coats of the card: window ${window[0].toFixed(1)} to ${window[1].toFixed(1)}, best ${best.toFixed(1)}; ${state.spots.map((s) => `${s.spot} ${s.film.toFixed(1)}`).join(', ') || `about ${(sprayed * state.session).toFixed(1)} sprayed`}`}
        sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 1 }}
      >
        {(state.spots.length
          ? state.spots
          : [{ spot: 'all over', film: sprayed * state.session, sd: state.sessionSd, zone: 'again' as const }]
        ).map((s) => (
          <Box
            key={s.spot}
            sx={{ display: 'grid', gridTemplateColumns: '130px 1fr 74px', alignItems: 'center', minHeight: 52 }}
          >
            <Typography variant="h3" component="span" noWrap>
              {s.spot}
            </Typography>
            <Box sx={{ position: 'relative', height: 46, background: tones.panel }}>
              <Box
                sx={{
                  position: 'absolute',
                  left: x(window[0]),
                  width: x(window[1] - window[0]),
                  top: -6,
                  bottom: -6,
                  border: `2px solid ${tones.pick}`,
                }}
              />
              <Box
                sx={{
                  position: 'absolute',
                  inset: '0 auto 0 0',
                  width: x(s.film),
                  background: s.zone === 'over' ? tones.danger : tones.ink,
                  opacity: s.zone === 'short' ? 0.6 : 1,
                }}
              />
              <Box
                sx={{
                  position: 'absolute',
                  left: x(Math.max(0, s.film * (1 - s.sd))),
                  width: x(2 * s.film * s.sd),
                  top: 13,
                  height: 4,
                  background: tones.raised,
                }}
              />
            </Box>
            <Box sx={{ fontFamily: FIGURES, textAlign: 'right' }}>{s.film.toFixed(1)}</Box>
          </Box>
        ))}
        <Box sx={{ display: 'grid', gridTemplateColumns: '130px 1fr 74px' }} aria-hidden>
          <span />
          <Box sx={{ position: 'relative', height: 24, fontFamily: FIGURES, fontSize: 13.5 }}>
            {Array.from({ length: Math.floor(widest) + 1 }, (_, n) => (
              <span key={n} style={{ position: 'absolute', left: x(n), transform: n ? 'translateX(-50%)' : 'none' }}>
                {n}
              </span>
            ))}
          </Box>
        </Box>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          film in coats of the card; framed: {window[0].toFixed(1)} to {window[1].toFixed(1)},{' '}
          {inside ? 'where it matches' : 'where it comes closest: no count passes at every angle'}; pale: how sure it is
        </Typography>
      </Box>
      {target.length && assessment ? (
        <Box sx={{ mt: 2, maxWidth: 720 }}>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            What it should look like at {countCoats(shownFilm)} of the card
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
            target above, what should be seen now below
          </Typography>
          <FlopStrip
            angles={target.map((t) => t.aspecular)}
            target={target.map((t) => t.lab)}
            sample={interpolateLabs(assessment.counts, assessment.labs, shownFilm)}
            height={150}
            label="Target over what should be seen now, from face to flop"
          />
        </Box>
      ) : null}
      {state.spots.length ? (
        <Box component="ul" aria-label="Spots" sx={{ listStyle: 'none', p: 0, mt: 2, maxWidth: 720 }}>
          {state.spots.map((s) => (
            <Box component="li" key={s.spot} sx={{ borderTop: `1px solid ${tones.hairline}`, py: 0.75 }}>
              <b>{s.spot}</b>, {saySpot(s)}{' '}
              {spots
                .filter((r) => r.label === s.spot)
                .map((r) => (
                  <TakeOut
                    key={r.id}
                    jobId={job.id}
                    set={r}
                    what={`Take the reading at ${countCoats(r.rungCoats ?? 0)} out`}
                    onTaken={() => took(r, `The reading of ${s.spot}`)}
                  />
                ))}
              {[...new Set(jobLooks.filter((v) => v.spot === s.spot).map((v) => v.coats))].map((coats) => (
                <Button
                  key={coats}
                  variant="text"
                  color="inherit"
                  sx={{ px: 0.5, minHeight: 44 }}
                  onClick={() =>
                    jobLooks
                      .filter((v) => v.spot === s.spot && v.coats === coats)
                      .forEach((v) => say.mutate({ ...v, id: newId(), verdict: null, patch: null, takenAt: shopIso() }))
                  }
                >
                  Take back what was said at {countCoats(coats)}
                </Button>
              ))}
            </Box>
          ))}
        </Box>
      ) : null}
      {note}
      {FAMILIES[job.family].patches && card.settings.patches ? (
        <PatchGauge mix={mix} groundId={choice.groundId} rungs={planned} />
      ) : null}
    </Bench>
  );
}

const STEP = { width: 52, height: 52, borderRadius: '2px', color: 'text.primary' } as const;
