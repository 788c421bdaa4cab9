import { Box, Button, Typography } from '@mui/material';
import { type Job } from '@steady-gleam/contracts';
import { andControl, FAMILIES, STYLES } from '@steady-gleam/core/finishes';
import {
  knownHandOf,
  type CardSaid,
  type EyePosterior,
  type FitSaid,
  type RungReading,
  type VariationId,
} from '@steady-gleam/core/letdown';
import { findGround, findMix } from '@steady-gleam/core/materials';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { pickOf, mixOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { putHand, useJob } from '../../shared/useJob';
import { useJobWork } from '../../shared/useJobWork';
import { useBatches } from '../../shared/useShop';
import { CardPlanForm } from './CardPlanForm';
import { sayCard, sayDoubtful, sayNarrow, saySwapped } from './cardModel';
import { sayDisagree, sayEye, sayOutOfOrder } from './eyeModel';
import { EarlierCards } from './EarlierCards';
import { EyeLadder } from './EyeLadder';
import { LadderPicture } from './LadderPicture';
import { PatchGauge } from './PatchGauge';
import { RungPanel } from './RungPanel';
import { useCardCount, type CardCount } from './useCardCount';
import { sayAngle } from '../../shared/angles';
import { CardActions } from './CardActions';
import { CardSide } from './CardSide';

const FitChart = lazy(async () => ({ default: (await import('./FitChart')).FitChart }));

/** The let-down card: plan it, enter its rungs by instrument or by eye, read off the coat count of this hand. */
export function CardPage() {
  const detail = useJob();
  const { job, card, rungs } = detail;
  const count = useCardCount(detail);
  const { target, readings, bare, said, answer: found, card: read, error, advice } = count;
  const { data: mixed = [] } = useBatches(detail.job.id);
  const onCard = mixed.filter((b) => b.jobId === job.id && b.onCard);
  const { library } = useLibrary();
  const work = useJobWork(detail);
  const [selected, setSelected] = useState<number | null>(null);
  const [planning, setPlanning] = useState(false);
  const [figures, setFigures] = useState(false);
  const choice = pickOf(job);
  const mix = mixOf(job);
  const planned = card?.rungs ?? [];
  const wet = rungs.filter((r) => r.state === 'wet' && planned.includes(r.rungCoats ?? -1));
  const withTarget = target.length > 0;
  const picked = job.pick !== null;
  useKeepHand(job, mix, read, advice?.spray ?? null, card?.firstStop ?? null);

  if (withTarget && !picked) {
    return (
      <Notice
        title="Pick a ground first."
        text="The card is sprayed over the ground you will use, so the match map comes before it."
      >
        <Button component={Link} to={`/jobs/${job.id}/map`} variant="contained">
          Open the match map
        </Button>
      </Notice>
    );
  }
  if (error) return <Notice title="The card could not be worked out." text={error} />;
  if (withTarget && !read) return <Notice title="Reading the card …" />;

  const eye = found?.eye ?? null;
  const answer = headlineOf(card !== null, eye, advice, read);
  const fit = read?.fit ?? null;
  const rows = [...(bare ? [bare] : []), ...readings];
  const warnings = [
    ...(read ? [sayNarrow(read), saySwapped(read), sayDoubtful(read)] : []),
    sayOutOfOrder(said),
    sayDisagree(eye, said),
  ].filter((w): w is string => w !== null);
  const recipe = `${findMix(job.mixId, library.systems).name} at ${choice.strength.toFixed(2)}×, ${STYLES[choice.style].name.toLowerCase()}${andControl(choice.controlCoats)}, over ${findGround(choice.groundId, library.grounds).name.toLowerCase()}`;
  const judged = (n: number) => readings.some((r) => r.coats === n) || said.some((v) => v.coats === n);
  const nextRung = planned.find((n) => !judged(n)) ?? null;

  // What is kept late closes its own rung only, not the one that was opened meanwhile.
  const leave = () => setSelected((now) => (now === selected ? null : now));
  const side =
    selected !== null ? (
      <RungPanel key={selected} detail={detail} coats={selected} target={target} onDone={leave} />
    ) : (
      <CardSide
        count={count}
        detail={detail}
        work={work}
        warnings={warnings}
        wet={wet}
        nextRung={nextRung}
        setSelected={setSelected}
      />
    );

  return (
    <Bench side={side}>
      <Answer why={answer.why}>{answer.answer}</Answer>
      {card && !planning ? (
        <>
          {withTarget && read ? (
            <LadderPicture
              card={read}
              target={target}
              rungs={planned}
              readings={readings}
              selected={selected}
              onSelect={setSelected}
            />
          ) : (
            <EyeLadder rungs={planned} verdicts={said} selected={selected} onSelect={setSelected} />
          )}
          {FAMILIES[job.family].patches ? <PatchGauge mix={mix} groundId={choice.groundId} rungs={planned} /> : null}
          {figures && fit && read ? <FittedFigures read={read} fit={fit} rows={rows} target={target} /> : null}
          <CardActions
            setPlanning={setPlanning}
            withTarget={withTarget}
            selected={selected}
            setSelected={setSelected}
            bare={bare}
            detail={detail}
            work={work}
            fit={fit}
            figures={figures}
            setFigures={setFigures}
            recipe={recipe}
            card={card}
            onCard={onCard}
          />
        </>
      ) : (
        <CardPlanForm
          detail={detail}
          card={card}
          hasTarget={withTarget}
          bracket={withTarget && read ? read.best : null}
          {...(card ? { onDone: () => setPlanning(false) } : {})}
        />
      )}
      <EarlierCards detail={detail} />
    </Bench>
  );
}

const VARIATIONS: Readonly<Record<VariationId, string>> = {
  flake: 'flake share',
  spread: 'flake spread',
  edge: 'edge scatter',
  layers: 'flake layers',
  hue: 'dye shift',
  band: 'dye band',
  pigment: 'pigment',
  groundL: 'ground L*',
  groundA: 'ground a*',
  groundB: 'ground b*',
  underTilt: 'ground flakes’ tilt',
  underEdge: 'ground flakes’ edges',
  underCover: 'ground flakes’ cover',
  underTint: 'ground tint',
};

/** What was fitted, in one line; figures that trade places with others stand without a plus or minus. */
function sayFigures({ variations, chi }: FitSaid): string {
  const members = variations.map(({ id, mean }) => {
    const linear = id === 'hue' || id.startsWith('ground');
    return `${VARIATIONS[id]} ${(linear ? mean : Math.exp(mean)).toFixed(2)}${id === 'hue' ? ' nm' : ''}`;
  });
  return `${members.join(' · ')} · chi ${chi.toFixed(1)} (about 1 for a card that lies on its ladder)`;
}

/** Keeps what the card says, once it has settled: of the hand for the next card, of the first stop for the plan. */
function useKeepHand(
  { id, finishId }: Pick<Job, 'id' | 'finishId'>,
  mix: { style: string; mixId: string },
  read: CardSaid | null,
  firstStop: number | null,
  known: number | null,
): void {
  const client = useQueryClient();
  const said = read && { ...(read.fit ? knownHandOf(read.fit) : { mean: {}, sd: {} }), firstStop };
  const text = said ? JSON.stringify({ ...said, style: mix.style, mixId: mix.mixId }) : null;
  const moved = firstStop !== known;
  useEffect(() => {
    if (!text) return;
    // Not shown anywhere on this page; the next look at the card sends it again if this fails.
    void putHand({ id, finishId }, JSON.parse(text) as Parameters<typeof putHand>[1])
      .then(() => (moved ? client.invalidateQueries({ queryKey: ['jobs'] }) : undefined))
      .catch(() => undefined);
  }, [id, finishId, text, moved, client]);
}

/** What the page leads with: by eye, by readings, or how to begin. */
function headlineOf(
  hasCard: boolean,
  eye: EyePosterior | null,
  advice: CardCount['advice'],
  read: CardSaid | null,
): { readonly answer: string; readonly why: string } {
  return eye && advice && read
    ? sayEye(eye, advice, read)
    : read && advice
      ? sayCard(read, advice)
      : {
          answer: hasCard ? 'Judge the rungs by eye.' : 'Without an instrument: plan a card and judge it by eye.',
          why: hasCard
            ? 'Hold each cleared rung beside what has to be matched, in the sun at face and flop, in the shade, and under a lamp.'
            : 'Spray rungs as you will spray the job; each verdict narrows the count. No figures are needed.',
        };
}

interface FittedFiguresProps {
  readonly read: CardSaid;
  readonly fit: FitSaid;
  readonly rows: readonly RungReading[];
  readonly target: CardCount['target'];
}

/** Curves through what was read, and what was fitted to it. */
function FittedFigures({ read, fit, rows, target }: FittedFiguresProps) {
  return (
    <Box component="section" aria-label="The figures" sx={{ mt: 2 }}>
      <Suspense fallback={null}>
        <FitChart card={read} readings={rows} target={target} />
      </Suspense>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        Lines: the model in this hand, solid at {sayAngle(target[0]!)}, then {target.slice(1).map(sayAngle).join(', ')}{' '}
        in ever shorter dashes. Points: as read.
      </Typography>
      <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
        {sayFigures(fit)}
      </Typography>
    </Box>
  );
}
