import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { Field } from '../../ui/Field';
import { useLibrary } from '../../shared/library';
import { pickOf } from '../../shared/jobModel';
import type { useChangeJob } from '../../shared/useJob';
import { type PageDetail } from '../../shared/useJob';
import { STYLES, type StyleId } from '@steady-gleam/core/finishes';

/** Ways an effect coat is laid on a card. */
const LAID: readonly StyleId[] = ['wet', 'medium', 'light'];

interface CardGroundProps {
  readonly groundId: string;
  readonly change: ReturnType<typeof useChangeJob>;
  readonly job: PageDetail['job'];
  readonly detail: PageDetail;
}

/** The ground of a card without a target. */
export function CardGround({ groundId, change, job, detail }: CardGroundProps) {
  const { library } = useLibrary();
  return (
    <Box sx={{ mt: 2, maxWidth: 380 }}>
      <Field
        label="Ground on the card"
        value={groundId}
        select
        onChange={(e) =>
          change.mutate({
            version: job.version,
            finishId: detail.about,
            pick: { ...pickOf(job), groundId: e.target.value },
          })
        }
      >
        {library.grounds.map((g) => (
          <option key={g.id} value={g.id}>
            {g.name}
          </option>
        ))}
      </Field>
      <Typography variant="h3" component="div" sx={{ mt: 1.5, mb: 0.5 }} id="laid-label">
        Effect coats are laid
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={pickOf(job).style}
        aria-labelledby="laid-label"
        onChange={(_, style: StyleId | null) =>
          style && change.mutate({ version: job.version, finishId: detail.about, pick: { ...pickOf(job), style } })
        }
      >
        {LAID.map((s) => (
          <ToggleButton key={s} value={s}>
            {STYLES[s].name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Typography variant="body2" sx={{ mt: 0.5, color: 'text.secondary' }}>
        Wet and light coats lay flakes and film differently: card and job are laid alike.
      </Typography>
    </Box>
  );
}
