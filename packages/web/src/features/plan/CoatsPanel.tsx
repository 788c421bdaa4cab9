import type { JobWorked } from '../../shared/useJobWork';
import { Box, Checkbox, FormControlLabel, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { START_MIXING, type Mixing, type Job, type SprayPlan } from '@steady-gleam/contracts';
import { wayOf, wayTells, type Gun } from '@steady-gleam/core/products';
import { filmOfSettings, type CoatEdit, type PlannedCoat, type School, sayCoat } from '@steady-gleam/core/spraying';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { useUnits } from '../../shared/units';
import { useBatches, transferOf } from '../../shared/useShop';
import { useChangeJob } from '../../shared/useJob';
import { CardCoats } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';
import type { PlanPanelProps } from './planPanel';
import { countCoats } from '../../shared/jobModel';
import { CoatTable } from './CoatTable';

/** Settings that lay a film within this share of it are left alone. */
const NEAR_ENOUGH = 0.1;

/** Every coat and how it is laid: from the recipe, in either school, and changed as the painter does it. */
export function CoatsPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const { data: batches = [] } = useBatches(job.id);
  const count = useCardCount(detail);
  const { rows, order } = work.plan;
  const coats = rows.map((r) => r.coat);
  const { gun, state } = work;
  // Another school, a grip or a tack coat makes other coats of them: what was sprayed would count for nothing.
  const begun = state.done > 0 && state.next !== null;
  const mixing = job.mixing ?? START_MIXING;
  const effect = coats.find((c) => c.kind === 'effect' && c.counted);
  // What its batches taught of the gun counts here; the settings themselves follow from what the gun is said to lay.
  const taught = { ...gun, transfer: transferOf(gun, batches).mean };
  const laysOf = (coat: PlannedCoat) => filmOfSettings(taught, coat, coat.volumeSolids);
  const off = coats.filter((c) => Math.abs(laysOf(c) / c.filmUm - 1) > NEAR_ENOUGH);
  const hand = count.hand;
  const effectCount = coats.filter((c) => c.kind === 'effect' && c.counted).length;
  const way = wayOf(gun);
  const clears = coats.filter((c) => c.kind === 'clear' && c.counted).length;
  const wayNotes = way ? wayTells(way, clears, coats) : [];
  const minutes = rows.reduce((sum, r) => sum + r.waitMinutes, 0);
  const edit = (coat: PlannedCoat, key: keyof CoatEdit, value: number) =>
    set({ edits: { ...plan.edits, [coat.id]: { ...plan.edits[coat.id], [key]: value } } });
  /** What a coat's settings lay where that is not its film, and the speed that lays it. */
  const laid = (coat: PlannedCoat) =>
    off.includes(coat) ? (
      <Box
        component="div"
        sx={{ color: 'error.main', fontFamily: 'body1.fontFamily', fontSize: 13.5, lineHeight: 1.15 }}
      >
        lays {units.say('film', laysOf(coat), 1)}: {laysOf(coat) > coat.filmUm ? 'faster' : 'slower'},
        <br />
        about {units.say('speed', (coat.speedCmS * laysOf(coat)) / coat.filmUm)}
      </Box>
    ) : null;
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">What the gun lays</Typography>
          {effect ? (
            <Typography>
              {gun.name} at {units.say('speed', effect.speedCmS)}, {units.say('distance', effect.distanceCm)} away and{' '}
              {Math.round(effect.overlap * 100)} % overlap lays about {units.say('film', laysOf(effect), 1)} dry a coat;
              the plan counts on {units.say('film', effect.filmUm, 1)}
              {hand ? `, your card says you lay ${hand.toFixed(2)} of what is nominal` : ''}.{' '}
              {off.length === 0
                ? 'Every coat’s settings lay its film within a tenth.'
                : `${off.length === 1 ? `${sayCoat(off[0]!)} does not lay its film` : `${off.length} coats do not lay their film`}: see the marked figures.`}
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            How the film follows needle, distance and pressure is a default of ours; your card and your batches correct
            it.
          </Typography>
          <GunChoice mixing={mixing} change={change} job={job} gun={gun} work={work} />
          <FormControlLabel
            disabled={begun}
            control={<Checkbox checked={plan.grip} onChange={(e) => set({ grip: e.target.checked })} />}
            label="Grip coat before the effect, not counted"
          />
          <FormControlLabel
            disabled={begun}
            control={<Checkbox checked={plan.tack} onChange={(e) => set({ tack: e.target.checked })} />}
            label="Tack coat before the clear"
          />
          <FormControlLabel
            control={<Checkbox checked={plan.blown} onChange={(e) => set({ blown: e.target.checked })} />}
            label="Air moved over drying base; never over two-pack"
          />
          {[...new Set(coats.map((c) => c.caution))].map((c) => (
            <Typography key={c} variant="body2" sx={{ color: 'text.secondary' }}>
              {c}
            </Typography>
          ))}
        </>
      }
    >
      <Answer
        why={`${plan.school === 'wet' ? 'Full wet coats: fewer dry blotches, flakes tumble a little.' : 'Light coats from further away: finer control, flakes lie flatter, brighter face and darker flop.'} Waits in all about ${Math.round(minutes)} min at ${units.say('temperature', mixing.temperatureC)}.`}
      >
        {effectCount > 0
          ? `${coats.length} coats, ${effectCount} of them effect: ${coats.find((c) => c.led)?.led ?? 'walk the whole side'}.`
          : `${countCoats(coats.length)}, none of them effect.`}
      </Answer>
      {tabs}
      {wayNotes.map((text) => (
        <Typography key={text} role="note" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25, mb: 1 }}>
          {text}
        </Typography>
      ))}
      <CardCoats detail={detail} count={count} />
      <SchoolChoice plan={plan} begun={begun} set={set} />
      {begun ? (
        <Typography variant="body2" sx={{ mb: 1 }}>
          The run has begun: school, grip and tack coat stay as they are until it is over.
        </Typography>
      ) : null}
      <Box sx={{ overflowX: 'auto' }}>
        <CoatTable rows={rows} order={order} work={work} laid={laid} edit={edit} />
      </Box>
    </Bench>
  );
}

interface GunChoiceProps {
  readonly mixing: Mixing;
  readonly change: ReturnType<typeof useChangeJob>;
  readonly job: Job;
  readonly gun: Gun;
  readonly work: JobWorked;
}

/** Which gun lays it. */
function GunChoice({ mixing, change, job, gun, work }: GunChoiceProps) {
  return (
    <Field
      label="Gun"
      select
      value={mixing.gunId ?? ''}
      onChange={(e) => change.mutate({ version: job.version, mixing: { ...mixing, gunId: e.target.value || null } })}
    >
      <option value="">{gun.name}</option>
      {work.guns.map((g) => (
        <option key={g.id} value={g.id}>
          {g.name}
        </option>
      ))}
    </Field>
  );
}

interface SchoolChoiceProps {
  readonly plan: SprayPlan;
  readonly begun: boolean;
  readonly set: PlanPanelProps['set'];
}

/** Full wet coats, or mist first. */
function SchoolChoice({ plan, begun, set }: SchoolChoiceProps) {
  return (
    <ToggleButtonGroup
      exclusive
      value={plan.school}
      disabled={begun}
      aria-label="School"
      onChange={(_, v: School | null) => v && set({ school: v })}
      sx={{ mb: 1 }}
    >
      <ToggleButton value="wet">Wet coats</ToggleButton>
      <ToggleButton value="mist">Mist coats</ToggleButton>
    </ToggleButtonGroup>
  );
}
