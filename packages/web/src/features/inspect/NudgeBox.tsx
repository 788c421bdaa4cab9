import { Box, Button, Typography, useTheme } from '@mui/material';
import { de2000, type Lab } from '@steady-gleam/core/colour';
import type { JobPlan, JobState, SeenSpot } from '@steady-gleam/core/jobs';
import type { JobDetail } from '@steady-gleam/contracts';
import { findMix, type Library } from '@steady-gleam/core/materials';
import { nudgePours, remarkToLabs, weakerBy, type Remark } from '@steady-gleam/core/matching';
import { cupOf } from '@steady-gleam/core/products';
import { mendTold, type Moment } from '@steady-gleam/core/recovery';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';
import type { JobLog } from '../../shared/log/useLog';
import { mixOf, pickOf } from '../../shared/jobModel';
import { useUnits } from '../../shared/units';
import { useBatches } from '../../shared/useShop';
import { useCompute } from '../../worker/useCompute';
import { sayPours } from '../recipes/recipesModel';
import type { Live } from '../spray/useLive';
import { sayOff, type Place } from './inspectModel';

const VIEW: Readonly<Record<SeenSpot['view'], Remark['view']>> = {
  'sun face': 'face',
  'sun flop': 'flop',
  shade: 'all over',
  'low light': 'all over',
  lamp: 'face',
  'shop light': 'all over',
};
/** Words beside a verdict that a mix can answer. */
const OFFS: Readonly<Record<string, Remark['off']>> = {
  redder: 'redder',
  yellower: 'yellower',
  greener: 'greener',
  bluer: 'bluer',
  weaker: 'weaker',
  deeper: 'stronger',
};

/** What looks said of its hue, as remarks on a card. */
function remarksOf(looks: readonly SeenSpot[]): Remark[] {
  return looks.flatMap((l): Remark[] => {
    const off = OFFS[l.hue ?? ''];
    return off ? [{ view: VIEW[l.view], off, amount: l.verdict?.startsWith('much') ? 'clearly' : 'a touch' }] : [];
  });
}

/** A hue that is off: what to add to the cup that stands there, half first, for the coats still to come. */
export function NudgeBox({
  detail,
  plan,
  state,
  live,
  log,
  library,
  place,
  moment,
}: {
  detail: JobDetail;
  plan: JobPlan;
  state: JobState;
  live: Live;
  log: JobLog;
  library: Library;
  place: Place & { readonly looks: readonly SeenSpot[] };
  moment: Moment | null;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { data: batches = [] } = useBatches();
  const { job } = detail;
  const target = live.count.answer?.card.sought.read.angles ?? [];
  const pick = pickOf(job);
  const mix = mixOf(job);
  const said = remarksOf(place.looks);
  const on = live.at(place.name);
  const coming = state.cells
    .filter(
      (s) =>
        place.areaIds.includes(s.cell.areaId) &&
        live.layerIds.includes(s.cell.layerId) &&
        s.sprayedAt === null &&
        s.leftOut === null,
    )
    .reduce((sum, s) => sum + s.cell.coats, 0);
  const card = said.length && target.length ? remarkToLabs(target, said) : null;
  const asks = card !== null && moment !== 'finished' && coming > 0;
  const { value } = useCompute(asks ? JSON.stringify(['nudge', mix, pick.groundId, on + coming, card]) : null, (c) =>
    c.nudge(mix, pick.groundId, on + coming, target, card!, weakerBy(said)).then((nudge) => ({ nudge })),
  );
  const heading = <Typography variant="h2">The hue there</Typography>;
  if (!card) return null;
  if (!asks)
    return (
      <Box sx={{ mt: 1.5 }}>
        {heading}
        <Typography>
          {moment === 'finished' ? 'Under clear nothing is tinted any more' : 'No effect coat is to come on it'}: a tint
          in the cup changes only what is still laid. It is the ground again, or the next job.
        </Typography>
      </Box>
    );
  if (!value) return <Typography sx={{ mt: 1.5 }}>Working the tint out …</Typography>;
  const { nudge } = value;
  if (!nudge)
    return (
      <Box sx={{ mt: 1.5 }}>
        {heading}
        <Typography>No toner of this mix brings it nearer: a dye can only take light away.</Typography>
      </Box>
    );
  const effect = plan.layers.find((l) => l.id === live.layerIds[0]);
  const cupId = effect ? cupOf(effect, plan.layers) : null;
  const cup = batches.find((b) => b.jobId === job.id && b.layerId === cupId && b.endedAt === null);
  const ml = cup?.parts.find((p) => p.role === 'product')?.ml ?? null;
  const pours = sayPours(nudgePours(findMix(job.mixId, library.systems), nudge.half, library.dyes), ml ?? 100);
  const dose = `${ml === null ? `To each ${units.say('volume', 100)} of carrier` : `To the ${units.say('volume', ml)} that stand there`}: ${pours}`;
  // What is on keeps its hue: only the coats to come are tinted.
  const share = coming / (on + coming);
  const after = card.map(([l, a, b], g): Lab => {
    const to = nudge.half.labs[g]!;
    return [l + share * (to[0] - l), a + share * (to[1] - a), b + share * (to[2] - b)];
  });
  return (
    <Box
      component="section"
      aria-label="The hue there"
      sx={{ mt: 1.5, border: `1px solid ${tones.hairline}`, p: 1.25 }}
    >
      {heading}
      <Typography sx={{ my: 0.5 }}>
        <b>{dose}</b>. That is half; then a look, then as much again. Try it on the card first. It tints the{' '}
        {Number(coming.toFixed(2))} coats to come; what is on keeps its hue, and nothing takes a toner out of the cup.
      </Typography>
      <FlopStrip
        angles={target}
        target={target.map((t) => t.lab)}
        sample={after}
        height={70}
        label="What has to be matched above, after half the tint below"
      />
      <TintButton log={log} state={state} place={place} job={job} dose={dose} pours={pours} />
      <Box sx={{ fontFamily: FIGURES, mt: 0.5 }}>
        dE00 {target.map((t, g) => de2000(t.lab, card[g]!).toFixed(1)).join(' ')} now,{' '}
        {target.map((t, g) => de2000(t.lab, after[g]!).toFixed(1)).join(' ')} after
      </Box>
    </Box>
  );
}

interface TintButtonProps {
  readonly log: JobLog;
  readonly state: JobState;
  readonly place: Place & { readonly looks: readonly SeenSpot[] };
  readonly job: JobDetail['job'];
  readonly dose: string;
  readonly pours: string;
}

/** Puts the tint into the run. */
function TintButton({ log, state, place, job, dose, pours }: TintButtonProps) {
  return (
    <Button
      variant="outlined"
      sx={{ mt: 1, minHeight: 52, width: '100%' }}
      onClick={() =>
        log.tell(
          mendTold(
            state,
            place.areaIds,
            {
              ...{ way: 'tint' as const, spot: place.name, views: [] },
              off: sayOff(job.family, place.looks).slice(0, 120),
              steps: [
                {
                  is: 'work',
                  kind: 'tint',
                  text: `${dose}. Stir, strain, try it on the card.`.slice(0, 300),
                  minutes: 0,
                },
              ],
            },
            `Tint the cup with ${pours}`.slice(0, 400),
          ),
        )
      }
    >
      Put it into the run
    </Button>
  );
}
