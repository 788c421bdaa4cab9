import { Box, Button, Typography } from '@mui/material';
import { countOutcome, type CountRound } from '@steady-gleam/core/practice';
import { useState } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useLibrary } from '../../shared/library';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { TouchingStrip } from '../../shared/TouchingStrip';
import { useCompute } from '../../worker/useCompute';
import { keepScore, readPractised } from '../../shared/practised';
import { coatsOf, sayRound, sayScore } from './countModel';
import { Toggles } from '../../shared/Toggles';
import { VIEWS, type View } from './views';

/** A simulated painter's card, rung by rung: say when to stop, then see the truth. */
export function CountRoom() {
  const [seed, setSeed] = useState(() => Math.floor(Date.now() / 1000) % 1_000_000);
  const { value: round, error, stale } = useCompute(JSON.stringify(['card', seed]), (c) => c.practiceCard(seed));
  if (!round || stale)
    return (
      <Box sx={{ p: '18px 22px' }}>
        <Answer>{error ?? 'Another painter sprays a card …'}</Answer>
      </Box>
    );
  return <CountCard key={round.seed} round={round} onNext={() => setSeed(seed + 1)} />;
}

function CountCard({ round, onNext }: { round: CountRound; onNext: () => void }) {
  const { library } = useLibrary();
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState<number | null>(null);
  const [view, setView] = useState<View>('2');
  const [light, setLight] = useState('0');
  const g = Number(view);
  const lit = round.lights[Number(light)]!;
  const rung = lit.rungs[at]!;
  const [exposure] = exposuresByAngle([[lit.wanted[g]!], ...lit.rungs.map((r) => [r[g]!])]);
  const mix = library.systems.find((m) => m.id === round.mixId)?.name ?? 'A mix';
  const isOver = said !== null;
  const { value: advice } = useCompute(isOver ? JSON.stringify(['advice', round.seed, at]) : null, (c) =>
    c.practiceAdvice(round, at + 1),
  );
  const stop = (n: number) => {
    keepScore('count', countOutcome(round, n) === 'inside' ? 1 : 0);
    setSaid(n);
  };
  const last = at === round.rungs.length - 1;
  const { answer, why } = sayRound(round, { rung: round.rungs[at]!, said, advice, mix });
  return (
    <Bench
      standalone
      side={
        <>
          <Typography variant="h2">The card so far</Typography>
          <Box component="ol" aria-label="Rungs" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {round.rungs.slice(0, at + 1).map((n, i) => (
              <Box component="li" key={n} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
                <Box sx={{ width: 92, fontSize: 14, whiteSpace: 'nowrap' }}>{coatsOf(n)}</Box>
                <Box sx={{ flex: 1 }}>
                  <TouchingStrip
                    over={lit.wanted}
                    under={lit.rungs[i]}
                    height={40}
                    label={`Wanted over ${coatsOf(n)}, face to flop`}
                  />
                </Box>
              </Box>
            ))}
          </Box>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Wanted above, rung below, from face to flop. {sayScore(readPractised().scores.count ?? [])}
          </Typography>
          <Box sx={{ mt: 'auto', display: 'flex', flexDirection: 'column', gap: 1.25 }}>
            {isOver ? (
              <Button variant="contained" onClick={onNext}>
                Another card
              </Button>
            ) : (
              <>
                <Button variant="outlined" disabled={last} onClick={() => setAt(at + 1)}>
                  Too light: half a coat more
                </Button>
                <Button variant="contained" onClick={() => stop(round.rungs[at]!)}>
                  There: stop at {coatsOf(round.rungs[at]!)}
                </Button>
                <Button
                  variant="outlined"
                  disabled={at === 0}
                  onClick={() => stop((round.rungs[at]! + round.rungs[at - 1]!) / 2)}
                >
                  Too dark: between the last two
                </Button>
              </>
            )}
          </Box>
        </>
      }
    >
      <Answer why={why}>{answer}</Answer>
      <Box sx={{ display: 'flex', flex: 1, minHeight: 300 }} data-testid="halves">
        {[
          ['wanted', lit.wanted[g]!],
          [coatsOf(round.rungs[at]!), rung[g]!],
        ].map(([name, lab]) => (
          <Box
            key={name as string}
            role="img"
            aria-label={`${name as string}, ${lit.name}`}
            sx={{ flex: 1, background: cssOf(lab as (typeof rung)[number], exposure) }}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', fontSize: 14, py: 0.5 }}>
        <span>wanted</span>
        <span>{coatsOf(round.rungs[at]!)} of the card</span>
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, mt: 1 }}>
        <Toggles label="Seen at" value={view} choices={VIEWS} onPick={setView} />
        <Toggles
          label="Light"
          value={light}
          choices={round.lights.map((l, i) => [String(i), l.name] as const)}
          onPick={setLight}
        />
      </Box>
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Another hand than the program’s laid this card, and a third what is wanted. Nothing leaves this device.
      </Typography>
    </Bench>
  );
}
