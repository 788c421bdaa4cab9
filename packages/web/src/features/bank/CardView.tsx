import { Box, Button, Typography, useTheme } from '@mui/material';
import { cardsApi, type CardOfFinish } from '@steady-gleam/contracts';
import { largestDifference, sharedAngles, type AngleLab } from '@steady-gleam/core/bank';
import { sayFrom, type EyeView } from '@steady-gleam/core/letdown';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { call } from '../../shared/apiClient';
import { TouchingStrip } from '../../shared/TouchingStrip';
import { useUnits } from '../../shared/units';
import { askedOf, sayRung } from './bankModel';

/** A card of a finish: with what it was sprayed, its rungs over the target, what the eye said of them, and the hand it showed. */
export function CardView({
  of,
  strip,
  finishId,
}: {
  of: CardOfFinish;
  strip: readonly AngleLab[];
  /** Whose card it is, where its own page is offered. */
  finishId?: string;
}) {
  const units = useUnits();
  const client = useQueryClient();
  const { card, rungs, verdicts, photos, retiredAt, teaches } = of;
  const setHand = useMutation({
    mutationFn: (to: boolean) => call(cardsApi.setHand, { params: { id: card.id }, body: { teaches: to } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const counts = [...new Set([...rungs.map((r) => r.rungCoats!), ...verdicts.map((v) => v.coats)])].sort(
    (a, b) => a - b,
  );
  const s = card.settings;
  const setUp = [
    card.gun,
    units.say('pressure', card.pressureBar),
    s.distanceCm === null ? '' : units.say('distance', s.distanceCm),
    s.tipMm === null ? '' : `${s.tipMm} mm tip`,
    s.turns === null ? '' : `${s.turns} turns`,
    s.overlap === null ? '' : `${Math.round(s.overlap * 100)} % overlap`,
    s.sealer,
    s.groundCoats && `ground ${s.groundCoats}`,
    s.reducer,
    s.temperatureC === null ? '' : units.say('temperature', s.temperatureC),
    card.onStand ? 'on a stand' : 'in the hand',
  ].filter(Boolean);
  return (
    <Box component="section" aria-label={retiredAt === null ? 'Card in force' : 'Earlier card'}>
      <Typography variant="h2">
        {retiredAt === null ? 'Card in force' : 'Earlier card'}
        {card.firstStop === null ? '' : `: on the piece stop first at ${sayRung(card.firstStop)} coats`}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        {setUp.join(', ')}
        {finishId ? (
          <>
            {'; '}
            <Link to={`/bank/${finishId}/cards/${card.id}`} style={{ color: 'inherit' }}>
              the card by itself{of.before.length ? `, ${of.before.length} read before` : ''}
            </Link>
          </>
        ) : null}
      </Typography>
      {counts.length ? (
        <RungList counts={counts} rungs={rungs} strip={strip} verdicts={verdicts} photos={photos} />
      ) : (
        <Typography sx={{ color: 'text.secondary' }}>No rung was read or judged yet.</Typography>
      )}
      {teaches === null ? null : (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
          <Typography variant="body2">
            {teaches
              ? 'Cards of the same gun, style and family are told of the hand it showed.'
              : 'Its hand is left out: no other card is told of it.'}
          </Typography>
          <Button
            variant="text"
            color="inherit"
            disabled={setHand.isPending}
            onClick={() => setHand.mutate(!teaches)}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            {teaches ? 'Leave it out' : 'Take it in again'}
          </Button>
        </Box>
      )}
      {setHand.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {setHand.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}

interface RungListProps {
  readonly counts: number[];
  readonly rungs: CardOfFinish['rungs'];
  readonly strip: readonly AngleLab[];
  readonly verdicts: CardOfFinish['verdicts'];
  readonly photos: CardOfFinish['photos'];
}

/** Rungs of a card as they were read, each beside what it is compared with. */
function RungList({ counts, rungs, strip, verdicts, photos }: RungListProps) {
  const { tones } = useTheme();
  return (
    <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {counts.map((coats) => {
        const set = rungs.find((r) => r.rungCoats === coats);
        const angles = set ? askedOf(set.readings) : [];
        const both = sharedAngles(angles, strip);
        const max = largestDifference(strip, angles);
        const seen = verdicts.filter((v) => v.coats === coats);
        const photo = photos.find((p) => p.coats === coats);
        return (
          <Box
            component="li"
            key={coats}
            sx={{
              display: 'grid',
              gridTemplateColumns: '48px 220px 120px 1fr 72px',
              gap: 1.5,
              alignItems: 'center',
              borderTop: `1px solid ${tones.hairline}`,
              minHeight: 56,
            }}
          >
            <Typography sx={{ fontFamily: FIGURES, fontSize: 19 }}>{sayRung(coats)}</Typography>
            {both.length ? (
              <TouchingStrip
                over={both.map((b) => b.lab)}
                under={both.map((b) => b.other)}
                height={46}
                label={`Rung ${sayRung(coats)} over the target`}
              />
            ) : angles.length ? (
              <TouchingStrip over={angles.map((g) => g.lab)} height={46} label={`Rung ${sayRung(coats)}`} />
            ) : (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                judged by eye
              </Typography>
            )}
            <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
              {max === null ? '' : `max ${max.toFixed(1)} dE00`}
            </Typography>
            <Typography variant="body2">
              {seen.map((v) => `${v.verdict} ${sayFrom(v.view as EyeView)}`).join('; ')}
            </Typography>
            {photo ? (
              <Box
                component="img"
                src={`/api/photos/${photo.id}`}
                alt={`Rung ${sayRung(coats)}, photographed`}
                loading="lazy"
                sx={{ width: 72, height: 46, objectFit: 'cover' }}
              />
            ) : (
              <span />
            )}
          </Box>
        );
      })}
    </Box>
  );
}
