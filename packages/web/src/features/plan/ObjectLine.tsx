import type { CardSaid } from '@steady-gleam/core/letdown';
import { Button, Typography } from '@mui/material';
import type { JobObjectRow } from '@steady-gleam/contracts';
import type { JobFinish } from '@steady-gleam/core/jobs';
import { sayCoats } from '../../shared/jobModel';
import { ofObject, type PageDetail } from '../../shared/useJob';
import { spoke } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';

/** The nearest half step that can be planned. */
const toPlan = (best: number): number => Math.max(0.5, Math.round(best * 2) / 2);

/** What the finish's card says of one object by its own target, and one tap that plans it. */
export function ObjectLine({
  detail,
  object,
  finish,
  planned,
  onPlan,
}: {
  detail: PageDetail;
  object: JobObjectRow;
  finish: JobFinish;
  /** Effect coats it gets. */
  planned: number;
  onPlan: (coats: number, lookAfter: number | null) => void;
}) {
  const own = detail.objectTargets.some((s) => s.objectId === object.id);
  const count = useCardCount(ofObject(detail, object.id));
  const said = count.best !== null && spoke(count);
  const lay = said ? toPlan(count.best) : null;
  return (
    <Typography component="div" sx={{ display: 'flex', alignItems: 'center', gap: 1.5, minHeight: 44 }}>
      <b>{object.name}</b>
      <span>
        {said
          ? `${own ? 'own target' : 'the job’s target'}: the card says ${count.best.toFixed(1)}${sayWindow(count.card)}`
          : own
            ? 'own target read; the card has not spoken yet'
            : 'no target of its own'}
      </span>
      {lay !== null && Math.abs(lay - planned) > 1e-6 && detail.job.status === 'open' ? (
        <Button
          variant="outlined"
          sx={{ ml: 'auto', flex: 'none' }}
          onClick={() => onPlan(lay, count.advice && count.advice.spray > 0 ? Math.min(count.advice.spray, lay) : null)}
          aria-label={`Plan ${sayCoats(lay)} of ${finish.name} on ${object.name}`}
        >
          Plan {sayCoats(lay)}
        </Button>
      ) : null}
    </Typography>
  );
}

/** The window of an object's count, or what comes closest, after the count. */
function sayWindow(card: CardSaid | null): string {
  if (!card) return '';
  const [lo, hi] = card.window.counts;
  return `, ${card.window.inside ? 'window' : 'closest'} ${lo.toFixed(1)} to ${hi.toFixed(1)}`;
}
