import { Box, Button, Typography, useTheme } from '@mui/material';
import { finishFilePath, passportPath } from '@steady-gleam/contracts';
import type { AngleLab, NearestFinish } from '@steady-gleam/core/bank';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { ownZone } from '../../shared/clock';
import { useLibrary } from '../../shared/library';
import { TouchingStrip } from '../../shared/TouchingStrip';
import { useFinish } from '../../shared/useFinishes';
import { useUnits } from '../../shared/units';
import { askedAt, familyName, sayKnown, sayMade, sayRung } from './bankModel';
import { CardCurve } from './CardCurve';
import { isCount, newJobLink } from '../../shared/newJobLink';

/** The finish that is picked: what makes it, how it was proven, and what can be done with it. */
export function FinishAside({
  id,
  near,
  asked,
}: {
  id: string;
  /** Where it is nearest to what was looked for; null where nothing was. */
  near: NearestFinish | null;
  asked: readonly AngleLab[] | null;
}) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const units = useUnits();
  const { data, error } = useFinish(id);
  const frame = {
    width: { xs: 280, lg: 330 },
    flex: 'none',
    borderLeft: `1px solid ${tones.hairline}`,
    background: tones.panel,
    p: 2,
    position: 'sticky',
    top: 0,
    height: '100vh',
    overflowY: 'auto',
    display: 'flex',
    flexDirection: 'column',
    gap: 1.25,
  } as const;
  if (error || !data)
    return (
      <Box component="aside" aria-label="The finish" sx={frame}>
        <Typography role={error ? 'alert' : 'status'}>{error?.message ?? 'Opening the finish …'}</Typography>
      </Box>
    );
  const { finish, cards } = data;
  const card = cards.find((c) => c.card.id === near?.cardId) ?? cards[0] ?? null;
  const canSpray = finish.mixId !== null && finish.family !== null;
  const rows: [string, string][] = [
    ['family', familyName(finish.family)],
    ...(card
      ? ([
          ['gun', card.card.gun],
          ['pressure', units.say('pressure', card.card.pressureBar)],
          ...(card.card.settings.distanceCm
            ? [['distance', units.say('distance', card.card.settings.distanceCm)] as [string, string]]
            : []),
          ['stop first at', card.card.firstStop === null ? 'not said yet' : `${sayRung(card.card.firstStop)} coats`],
        ] as [string, string][])
      : []),
    ['used by', finish.jobs.length === 1 ? 'one job' : `${finish.jobs.length} jobs`],
  ];
  return (
    <Box component="aside" aria-label="The finish" sx={frame}>
      <Box>
        <Typography variant="h2">{finish.name}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', fontFamily: FIGURES }}>
          {finish.codes.join(', ') || 'no code yet'}
        </Typography>
      </Box>
      {near && asked ? (
        <TouchingStrip
          over={near.angles.map((g) => g.lab)}
          under={askedAt(asked, near.angles)}
          height={72}
          label="Proven over what you look for"
        />
      ) : finish.strip.length ? (
        <TouchingStrip over={finish.strip.map((g) => g.lab)} height={48} label="Target, face to flop" />
      ) : null}
      <Typography variant="body2">
        {sayMade(finish, library)}; {sayKnown(finish)}.
      </Typography>
      {near && asked && card && card.rungs.length > 1 ? (
        <CardCurve rungs={card.rungs} asked={asked} at={near.coats} />
      ) : null}
      <Facts rows={rows} />
      <Box sx={{ flex: 1, px: 1, whiteSpace: 'nowrap' }} />
      {near && isCount(near.coats) && canSpray && finish.pick ? (
        <Button component={Link} variant="contained" {...newJobLink(finish.id, near.coats, asked)}>
          New job: this card, rung {sayRung(near.coats)}
        </Button>
      ) : canSpray ? (
        <Button component={Link} variant="contained" {...newJobLink(finish.id, null, null)}>
          New job with it, as it is
        </Button>
      ) : null}
      <Button component={Link} to={`/bank/${finish.id}`} variant="outlined">
        Cards and history
      </Button>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          component="a"
          href={passportPath(finish.id, units.system, ownZone())}
          target="_blank"
          variant="outlined"
          sx={{ flex: 1, px: 1, whiteSpace: 'nowrap' }}
        >
          Passport
        </Button>
        <Button
          component="a"
          href={finishFilePath(finish.id)}
          download
          variant="outlined"
          sx={{ flex: 1, px: 1, whiteSpace: 'nowrap' }}
        >
          Save as file
        </Button>
      </Box>
    </Box>
  );
}

interface FactsProps {
  readonly rows: [string, string][];
}

/** Names and values, one below the other. */
function Facts({ rows }: FactsProps) {
  const { tones } = useTheme();
  return (
    <Box component="dl" sx={{ m: 0 }}>
      {rows.map(([name, value]) => (
        <Box
          key={name}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            gap: 1.5,
            borderBottom: `1px solid ${tones.hairline}`,
            py: 0.6,
          }}
        >
          <Typography component="dt" variant="body2" sx={{ color: 'text.secondary' }}>
            {name}
          </Typography>
          <Typography component="dd" variant="body2" sx={{ m: 0, fontFamily: FIGURES, textAlign: 'right' }}>
            {value}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
