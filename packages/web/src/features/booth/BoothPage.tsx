import { Box, Button, ThemeProvider, Typography, useTheme } from '@mui/material';
import { libraryOf, photoPath, START_PLAN, workOfJob } from '@steady-gleam/contracts';
import { foldRun, potState, sayCoat, SCUFFED, STYLES, taskKey, type PlannedCoat } from '@steady-gleam/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { createSteadyTheme, FIGURES } from '../../app/theme';
import { FileButton } from '../../shared/FileButton';
import { choiceOf, sayCoats } from '../../shared/jobModel';
import { cssOf } from '../../shared/screenColour';
import { sendBytes } from '../../shared/apiClient';
import { sayClock } from '../../app/PotClocks';
import { useNow } from '../../shared/useNow';
import { useBatches } from '../../shared/useShop';
import { useUnits } from '../../shared/units';
import { useCompute } from '../../worker/useCompute';
import { shrinkPhoto } from '../card/shrinkPhoto';
import type { BoothSnapshot } from './boothStore';
import { useBooth, type Booth } from './useBooth';
import { beep, speak, useAwake, useSignals } from './useSignals';
import { newId } from '../../shared/newId';
import { shopIso } from '../../shared/clock';
import { HereNotes } from '../../shared/HereNotes';
import { timeSaid } from '../../shared/timeOfDay';

const dim = createSteadyTheme('dim');
const TALL = { minHeight: 76, fontSize: 22, borderRadius: '2px' } as const;

/** Minutes and seconds, as a clock across the booth shows them. */
function countdown(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

/** The booth: full screen, dim, one coat and one clock; works while the server is away. */
export function BoothPage() {
  const { id = '' } = useParams();
  const booth = useBooth(id);
  return (
    <ThemeProvider theme={dim}>
      <Box
        component="main"
        sx={{
          position: 'fixed',
          inset: 0,
          overflowY: 'auto',
          background: dim.tones.page,
          color: dim.tones.ink,
          display: 'flex',
          flexDirection: 'column',
        }}
      >
        {booth.snapshot ? (
          <Run jobId={id} booth={booth} snapshot={booth.snapshot} />
        ) : (
          <Box sx={{ m: 'auto', p: 4, textAlign: 'center' }}>
            <Typography variant="h1">
              {booth.failure ? 'The booth could not be opened.' : 'Opening the booth …'}
            </Typography>
            {booth.failure ? (
              <>
                <Typography sx={{ mt: 1, mb: 2 }}>
                  {booth.failure} A job that was open in the booth before opens without the server too.
                </Typography>
                <Button component={Link} to="/" variant="contained" sx={TALL}>
                  Back to the jobs
                </Button>
              </>
            ) : null}
          </Box>
        )}
      </Box>
    </ThemeProvider>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Cups of this job that are setting. */
function BoothPots({ jobId, now }: { jobId: string; now: number }) {
  const { tones } = useTheme();
  const { data = [] } = useBatches();
  return data
    .filter((b) => b.jobId === jobId && b.endedAt === null && b.potMinutes !== null)
    .map((b) => {
      const pot = potState(new Date(b.mixedAt).getTime(), b.potMinutes, now);
      return (
        <Typography
          key={b.id}
          role={pot.state === 'fresh' ? undefined : 'status'}
          sx={{ fontSize: 20, color: pot.state === 'over' ? tones.danger : 'inherit', whiteSpace: 'nowrap' }}
        >
          {b.name}: {pot.state === 'over' ? 'pot life over, do not spray' : `${sayClock(pot.minutesLeft!)} left`}
        </Typography>
      );
    });
}

function workOfSnapshot({ detail: { job }, own, products, guns }: BoothSnapshot) {
  return workOfJob({
    job,
    library: libraryOf(own.map((m) => m.material)),
    products: products.map((p) => p.product),
    guns: guns.map((g) => g.gun),
    choice: choiceOf(job),
  })!;
}

function Run({ jobId, booth, snapshot }: { jobId: string; booth: Booth; snapshot: BoothSnapshot }) {
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow();
  useAwake();
  const [signals, setSignals] = useSignals();
  const [note, setNote] = useState<string | null>(null);
  const [swap, setSwap] = useState(false);
  const [photoFault, setPhotoFault] = useState('');
  const { job } = snapshot.detail;
  // The clock draws this page every second; the plan behind it changes with the snapshot only.
  const { layers, plan: work } = useMemo(() => workOfSnapshot(snapshot), [snapshot]);
  const state = foldRun(work.runs, booth.events, (e) => booth.own.has(e.id));
  const coatOf = (coatId: string): PlannedCoat => work.coats.find((c) => c.id === coatId)!;
  const pieceOf = (pieceId: string) => work.order.find((p) => p.id === pieceId)!;
  const coat = state.next ? coatOf(state.next.coatId) : null;
  const piece = state.next ? pieceOf(state.next.pieceId) : null;
  const wait = state.readyAt === null ? 0 : state.readyAt - now;
  const mayGo = wait <= 0 || state.isDull;
  const late = state.closesAt !== null && now > state.closesAt;
  const { value: looks } = useCompute(JSON.stringify(['layers', layers.map((l) => ({ ...l, id: '' }))]), (c) =>
    c.layerColours(layers),
  );

  // The cue is given once, when a clock that ran ends while the page is open.
  const ran = useRef<number | null>(null);
  const { sound, voice } = signals;
  const spoken = coat && piece ? `${piece.name}: ${coat.name} may go on. Look that it is dull.` : '';
  useEffect(() => {
    if (state.readyAt === null) return;
    if (wait > 0) ran.current = state.readyAt;
    else if (ran.current === state.readyAt) {
      ran.current = null;
      if (sound) beep();
      if (voice) speak(spoken);
    }
  }, [state.readyAt, wait, sound, voice, spoken]);

  const say = (c: PlannedCoat) => capital(sayCoat(c));
  const upcoming = work.runs.filter((r) => !state.sprayed.has(taskKey(r)) && r !== state.next);
  const others = state.next ? upcoming.filter((r) => r.coatId === state.next!.coatId) : [];
  const filled = (c: PlannedCoat) =>
    work.order.filter((p) => state.sprayed.has(taskKey({ coatId: c.id, pieceId: p.id }))).length /
    Math.max(1, work.order.length);
  const total = work.coats.reduce((s, c) => s + c.filmUm, 0);
  const colour = (c: PlannedCoat): string => {
    const i = layers.findIndex((l) => l.id === c.layerId);
    const lab = looks?.[i];
    return lab && (c.kind === 'ground' || c.kind === 'effect')
      ? cssOf(lab)
      : c.kind === 'clear'
        ? '#c9c9c9'
        : '#85847e';
  };
  const takePhoto = async (file: File) => {
    setPhotoFault('');
    try {
      const id = newId();
      const bytes = await shrinkPhoto(file);
      await sendBytes(photoPath(jobId, { id, kind: 'job', coats: null, takenAt: shopIso() }), bytes);
      booth.tap({ kind: 'photo', coatId: state.next?.coatId ?? null, pieceId: state.next?.pieceId ?? null, text: id });
    } catch (error) {
      setPhotoFault(error instanceof Error ? error.message : String(error));
    }
  };
  const big = { fontFamily: 'h1.fontFamily', fontStretch: '82%', fontWeight: 700, lineHeight: 1.04 } as const;
  return (
    <>
      <Box component="header" sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 3, pt: 1.5 }}>
        <Typography variant="h2" component="div" sx={{ flex: 1 }} noWrap>
          {job.piece}
        </Typography>
        <BoothPots jobId={jobId} now={now} />
        <Typography role="status" data-testid="queue" sx={{ fontSize: 17 }}>
          {booth.away || booth.unsent
            ? `${booth.away ? 'Server away' : 'Sending'}: ${booth.unsent} ${booth.unsent === 1 ? 'tap' : 'taps'} kept here`
            : 'Everything is kept'}
        </Typography>
        <Button component={Link} to={`/jobs/${jobId}/plan?show=time`} variant="outlined" sx={{ ...TALL, fontSize: 18 }}>
          Leave the booth
        </Button>
      </Box>
      <HereNotes sx={{ fontSize: 17, px: 3, pt: 0.5 }} />
      <Box
        role="img"
        aria-label={`Film section: ${work.coats.map((c) => `${say(c)} ${Math.round(filled(c) * 100)} % sprayed`).join('; ')}`}
        sx={{ display: 'flex', mx: 3, mt: 1.5, height: 46 }}
      >
        {work.coats.map((c) => (
          <Box
            key={c.id}
            sx={{
              flex: `${c.filmUm} 1 0`,
              minWidth: 8,
              position: 'relative',
              outline: c.id === state.next?.coatId ? `3px solid ${tones.pick}` : 'none',
              outlineOffset: -3,
              zIndex: c.id === state.next?.coatId ? 1 : 0,
              background: `repeating-linear-gradient(135deg, ${colour(c)} 0 3px, ${tones.page} 3px 9px)`,
            }}
          >
            <Box
              sx={{ position: 'absolute', inset: '0 auto 0 0', width: `${filled(c) * 100}%`, background: colour(c) }}
            />
          </Box>
        ))}
      </Box>
      <Typography sx={{ mx: 3, mt: 0.5, fontFamily: FIGURES }}>
        {units.say(
          'film',
          work.coats.reduce((s, c) => s + c.filmUm * filled(c), 0),
        )}{' '}
        of {units.say('film', total)}
      </Typography>
      {coat && piece && state.next ? (
        <Box
          sx={{
            flex: 1,
            display: 'grid',
            gridTemplateColumns: 'minmax(0, 1.25fr) minmax(330px, 1fr)',
            gap: 3,
            px: 3,
            pt: 1,
            pb: 2,
          }}
        >
          <Box>
            <Typography component="h1" data-testid="coat" sx={{ ...big, fontSize: 58 }}>
              {say(coat)}
            </Typography>
            <Typography component="p" data-testid="piece" sx={{ ...big, fontSize: 40, color: tones.inkSoft }}>
              on {piece.name}
            </Typography>
            <Typography sx={{ fontSize: 30, lineHeight: 1.25, mt: 1 }}>
              {STYLES[coat.style].name}, {Math.round(coat.overlap * 100)} % overlap
              {coat.walk ? ', walk the whole side' : ''}
            </Typography>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: 'repeat(3, auto)',
                columnGap: 4,
                rowGap: 0.5,
                mt: 1.5,
                justifyContent: 'start',
              }}
            >
              {[
                [units.say('distance', coat.distanceCm), 'away'],
                [units.say('pressure', coat.pressureBar), 'at the gun'],
                [`${coat.turns}`, 'turns open'],
                [`${coat.tipMm} mm`, 'tip'],
                [units.say('speed', coat.speedCmS), 'speed'],
                [units.say('film', coat.filmUm), 'dry'],
              ].map(([value, name]) => (
                <Box key={name}>
                  <Box sx={{ fontFamily: FIGURES, fontSize: 32, lineHeight: 1.1 }}>{value}</Box>
                  <Box sx={{ fontSize: 17, color: tones.inkSoft }}>{name}</Box>
                </Box>
              ))}
            </Box>
            <Typography
              sx={{ mt: 1.5, fontSize: 18, borderLeft: `4px solid ${tones.danger}`, pl: 1.5, maxWidth: '60ch' }}
            >
              {coat.caution}
            </Typography>
            {swap ? (
              <Box
                role="group"
                aria-label="Pieces left in this coat"
                sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}
              >
                {others.map((o) => (
                  <Button
                    key={o.pieceId}
                    variant="outlined"
                    sx={TALL}
                    onClick={() => {
                      setSwap(false);
                      booth.tap({ kind: 'swap', coatId: o.coatId, pieceId: o.pieceId, text: '' });
                    }}
                  >
                    {pieceOf(o.pieceId).name}
                  </Button>
                ))}
              </Box>
            ) : null}
            {note === null ? null : (
              <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 2 }}>
                <Box
                  component="input"
                  aria-label="Note"
                  value={note}
                  maxLength={400}
                  onChange={(e) => setNote(e.target.value)}
                  sx={{
                    flex: 1,
                    minWidth: 180,
                    minHeight: 76,
                    fontSize: 20,
                    px: 1.5,
                    font: 'inherit',
                    background: tones.raised,
                    color: 'inherit',
                    border: `1px solid ${tones.hairline}`,
                  }}
                />
                <Button
                  variant="outlined"
                  disabled={!note.trim()}
                  sx={TALL}
                  onClick={() => {
                    booth.tap({ kind: 'note', coatId: coat.id, pieceId: piece.id, text: note.trim() });
                    setNote(null);
                  }}
                >
                  Keep
                </Button>
                <FileButton
                  variant="outlined"
                  sx={TALL}
                  label="Photo from the booth"
                  accept="image/*"
                  capture="environment"
                  onFile={(file) => void takePhoto(file)}
                >
                  Photo
                </FileButton>
                {photoFault ? <Typography role="alert">{photoFault}</Typography> : null}
              </Box>
            )}
          </Box>
          <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
            <Box data-testid="clock" sx={{ fontFamily: FIGURES, fontSize: 116, lineHeight: 1, fontWeight: 600 }}>
              {state.started === null
                ? '–:––'
                : late
                  ? 'late'
                  : state.readyAt === null
                    ? 'go'
                    : wait > 0
                      ? countdown(wait)
                      : 'go'}
            </Box>
            <Typography
              role={late ? 'alert' : undefined}
              sx={{
                fontSize: 20,
                minHeight: 52,
                ...(late ? { borderLeft: `4px solid ${tones.danger}`, pl: 1.5 } : {}),
              }}
            >
              {state.started === null
                ? 'Mask, tack, exhaust on; then start.'
                : late
                  ? `Too late as it is: the recoat window of the coat below on ${piece.name} closed at ${timeSaid(state.closesAt!, now)}. Scuff it, or do as its sheet says, clean and tack; then spray.`
                  : state.readyAt === null
                    ? 'Nothing has to flash below it.'
                    : wait > 0
                      ? `Flash of the coat below on ${piece.name}. ${state.isDull ? 'You said it is dull.' : 'Wait, or tick it dull.'}`
                      : state.isDull
                        ? 'The clock is over and it is dull.'
                        : 'The clock is over. Look that it is evenly dull.'}
            </Typography>
            {state.started === null ? (
              <Button
                variant="contained"
                sx={{ ...TALL, minHeight: 110, fontSize: 32 }}
                onClick={() => booth.tap({ kind: 'start', coatId: null, pieceId: null, text: '' })}
              >
                Start the run
              </Button>
            ) : (
              <>
                <Button
                  variant="contained"
                  disabled={!mayGo}
                  sx={{ ...TALL, minHeight: 104, fontSize: 32 }}
                  onClick={() => {
                    setSwap(false);
                    booth.tap({ kind: 'sprayed', coatId: coat.id, pieceId: piece.id, text: late ? SCUFFED : '' });
                  }}
                >
                  {late ? 'Scuffed and sprayed: next' : 'Sprayed: next'}
                </Button>
                <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.25 }}>
                  <Button
                    variant="outlined"
                    aria-pressed={state.isDull}
                    disabled={!state.below || state.isDull}
                    sx={TALL}
                    onClick={() =>
                      booth.tap({ kind: 'dull', coatId: state.below!.coatId, pieceId: state.below!.pieceId, text: '' })
                    }
                  >
                    {state.isDull ? 'Dull: ticked' : 'It is dull'}
                  </Button>
                  <Button
                    variant="outlined"
                    disabled={!others.length}
                    aria-expanded={swap}
                    sx={TALL}
                    onClick={() => {
                      setSwap(!swap);
                      setNote(null);
                    }}
                  >
                    Another piece
                  </Button>
                  <Button
                    variant="outlined"
                    disabled={!state.undoable}
                    sx={TALL}
                    onClick={() => booth.tap({ kind: 'undo', coatId: null, pieceId: null, text: state.undoable!.id })}
                  >
                    Undo last tap
                  </Button>
                  <Button
                    variant="outlined"
                    aria-expanded={note !== null}
                    sx={TALL}
                    onClick={() => {
                      setNote(note === null ? '' : null);
                      setSwap(false);
                    }}
                  >
                    Note or photo
                  </Button>
                </Box>
              </>
            )}
          </Box>
        </Box>
      ) : (
        <Box sx={{ flex: 1, px: 3, pt: 3 }}>
          <Typography component="h1" data-testid="coat" sx={{ ...big, fontSize: 58 }}>
            Every coat is on.
          </Typography>
          <Typography sx={{ fontSize: 26, mt: 1 }}>
            {work.coats.length} coats on {work.order.length} {work.order.length === 1 ? 'piece' : 'pieces'}.{' '}
            {(job.plan ?? START_PLAN).bake
              ? 'Let it stand 15 min at the least, then bake as the sheet says; cautions for heat and fire stand.'
              : 'Let it cure as the sheet says.'}{' '}
            Keep the leftover {work.coats.find((c) => c.kind === 'effect')?.name ?? 'paint'} until the job is accepted.
          </Typography>
          <Button
            variant="outlined"
            disabled={!state.undoable}
            sx={{ ...TALL, mt: 3 }}
            onClick={() => booth.tap({ kind: 'undo', coatId: null, pieceId: null, text: state.undoable!.id })}
          >
            Undo last tap
          </Button>
        </Box>
      )}
      <Box
        component="footer"
        sx={{
          display: 'flex',
          gap: 2,
          alignItems: 'center',
          px: 3,
          py: 1.5,
          mt: 'auto',
          borderTop: `1px solid ${tones.hairline}`,
        }}
      >
        <Typography sx={{ flex: 1, fontSize: 20 }} data-testid="after">
          {upcoming.length
            ? `Then: ${say(coatOf(upcoming[0]!.coatId))} on ${pieceOf(upcoming[0]!.pieceId).name}. ${state.done} of ${work.runs.length} sprays done.`
            : `${state.done} of ${work.runs.length} sprays done.`}
          {state.notes.length ? ` ${sayCoats(state.notes.length)} ${state.notes.length === 1 ? 'note' : 'notes'}.` : ''}
          {state.strays
            ? ` ${state.strays} ${state.strays === 1 ? 'spray is' : 'sprays are'} of coats or pieces that left the plan; the log keeps them.`
            : ''}
          {booth.refused.length
            ? ` ${booth.refused.length === 1 ? 'One tap was' : `${booth.refused.length} taps were`} refused and count for nothing: ${booth.refused[0]!.reason}`
            : ''}
          {booth.failure ? ` ${booth.failure}` : ''}
        </Typography>
        {(['sound', 'voice'] as const).map((s) => (
          <Button
            key={s}
            variant="outlined"
            aria-pressed={signals[s]}
            sx={{ ...TALL, fontSize: 18 }}
            onClick={() => setSignals({ ...signals, [s]: !signals[s] })}
          >
            {s === 'sound' ? 'Sound' : 'Voice'} {signals[s] ? 'on' : 'off'}
          </Button>
        ))}
      </Box>
    </>
  );
}
