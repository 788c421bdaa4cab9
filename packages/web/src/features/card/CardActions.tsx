import { Box, Button, Typography } from '@mui/material';
import { labelPath, type StoredCard, type Batch } from '@steady-gleam/contracts';
import { type FitSaid } from '@steady-gleam/core/letdown';
import { ownZone } from '../../shared/clock';
import type { PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';
import { useUnits } from '../../shared/units';
import { CardRun } from './CardRun';
import type { useCardCount } from './useCardCount';
import type { Dispatch, SetStateAction } from 'react';

const LABELS = [
  { size: 'card', name: 'Label, card size' },
  { size: 'a6', name: 'Label, A6' },
] as const;

interface CardActionsProps {
  readonly setPlanning: Dispatch<SetStateAction<boolean>>;
  readonly withTarget: boolean;
  readonly selected: number | null;
  readonly setSelected: Dispatch<SetStateAction<number | null>>;
  readonly bare: ReturnType<typeof useCardCount>['bare'];
  readonly detail: PageDetail;
  readonly work: JobWorked;
  readonly fit: FitSaid | null;
  readonly figures: boolean;
  readonly setFigures: Dispatch<SetStateAction<boolean>>;
  readonly recipe: string;
  readonly card: StoredCard;
  readonly onCard: Batch[];
}

/** Papers of the card, and the ways on from it. */
export function CardActions({
  setPlanning,
  withTarget,
  selected,
  setSelected,
  bare,
  detail,
  work,
  fit,
  figures,
  setFigures,
  recipe,
  card,
  onCard,
}: CardActionsProps) {
  const units = useUnits();
  const { job } = detail;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', columnGap: 1, rowGap: 0, mt: 1.5, flexWrap: 'wrap' }}>
      <Button variant="outlined" onClick={() => setPlanning(true)} sx={{ flex: 'none' }}>
        Change the plan
      </Button>
      {withTarget ? (
        <Button variant="outlined" aria-pressed={selected === 0} onClick={() => setSelected(0)} sx={{ flex: 'none' }}>
          {bare ? 'Bare ground, read' : 'Bare ground: enter'}
        </Button>
      ) : null}
      <CardRun detail={detail} work={work} />
      {LABELS.map(({ size, name }) => (
        <Button
          key={size}
          component="a"
          href={labelPath(job.id, size, units.system, ownZone())}
          target="_blank"
          rel="noreferrer"
          variant="text"
          color="inherit"
          sx={{ px: 1 }}
        >
          {name}
        </Button>
      ))}
      {fit ? (
        <Button
          variant="text"
          color="inherit"
          aria-expanded={figures}
          onClick={() => setFigures(!figures)}
          sx={{ px: 1 }}
        >
          {figures ? 'Hide the figures' : 'The figures'}
        </Button>
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary', flexBasis: '100%', mt: 0.5 }}>
        {withTarget ? 'Upper half: rung as read, hatched where predicted; lower half: target; figures dE00. ' : ''}
        {recipe}. {card.gun}, {units.say('pressure', card.pressureBar)}
        {card.onStand ? '' : ', in the hand'}.
        {onCard.length
          ? ` Sprayed from ${onCard.map((b) => `${b.name}${b.parts.some((p) => p.lot) ? ` (lots ${b.parts.flatMap((p) => p.lot || []).join(', ')})` : ''}`).join('; ')}.`
          : ''}
      </Typography>
    </Box>
  );
}
