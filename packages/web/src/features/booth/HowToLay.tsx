import { Box, Button, Typography, useTheme } from '@mui/material';
import { STYLES, TEXTURES, type Texture } from '@steady-gleam/core/finishes';
import {
  ENOUGH,
  isMend,
  sayReach,
  LET_DOWN,
  letDownMl,
  type CellState,
  type JobPlan,
  enoughTold,
  extraTold,
} from '@steady-gleam/core/jobs';
import { sayCoat } from '@steady-gleam/core/spraying';
import { FIGURES } from '../../app/theme';
import { useUnits } from '../../shared/units';
import { newId } from '../../shared/newId';
import { capital } from '../../shared/capital';
import { BIG, TALL } from './boothStyles';
import { areaName, type StepProps } from './stepProps';

/** The coat in words and figures across the booth, and where it ends. */
export function HowToLay({ plan, at, texture }: { plan: JobPlan; at: CellState; texture: Texture | null }) {
  const { tones } = useTheme();
  const units = useUnits();
  const { cell } = at;
  const { coat } = cell;
  const peel = coat.kind === 'clear' ? TEXTURES.find((t) => t.id === texture) : undefined;
  const reach = sayReach(cell.reach, {
    area: (v) => units.say('area', v),
    distance: (v) => units.say('distance', v),
  });
  return (
    <>
      <Typography component="h1" data-testid="coat" sx={{ ...BIG, fontSize: 58 }}>
        {capital(
          at.isExtra && !isMend(cell) ? `${STYLES[coat.style].name.toLowerCase()} more of ${coat.name}` : sayCoat(coat),
        )}
      </Typography>
      <Typography component="p" data-testid="piece" sx={{ ...BIG, fontSize: 40, color: tones.inkSoft }}>
        on {areaName(plan, cell.areaId)}
      </Typography>
      {reach ? (
        <Typography
          data-testid="reach"
          sx={{ fontSize: 26, lineHeight: 1.2, mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.5 }}
        >
          {capital(reach)}
        </Typography>
      ) : null}
      {coat.name.endsWith(LET_DOWN) ? (
        <Typography
          data-testid="let-down"
          sx={{ fontSize: 24, lineHeight: 1.2, mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.5 }}
        >
          Let {units.say('volume', letDownMl(cell, plan.gun.transfer))} of the cup down with as much of its carrier or
          reducer, stir, strain.
        </Typography>
      ) : null}
      <Typography sx={{ fontSize: 30, lineHeight: 1.25, mt: 1 }}>
        {STYLES[coat.style].name}, {Math.round(coat.overlap * 100)} % overlap
        {cell.reach.kind !== 'all' ? '' : coat.led ? `, ${coat.led}` : coat.walk ? ', walk the whole side' : ''}
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
      {peel ? (
        <Typography data-testid="peel" sx={{ fontSize: 20, mt: 1, maxWidth: '56ch' }}>
          Its peel is {peel.id}: {peel.matchedBy}.
        </Typography>
      ) : null}
      <Typography sx={{ mt: 1.5, fontSize: 18, borderLeft: `4px solid ${tones.danger}`, pl: 1.5, maxWidth: '60ch' }}>
        {coat.caution}
      </Typography>
    </>
  );
}

/** A coat more of this than is planned, or none of it any more. */
export function MoreOf({
  plan,
  state,
  log,
  at,
  onDone,
}: Pick<StepProps, 'plan' | 'state' | 'log'> & { at: CellState; onDone: () => void }) {
  const { layerId, areaId, objectId } = at.cell;
  const areas = plan.areas.filter((a) => a.objectId === objectId).map((a) => a.id);
  const extra = (coats: number) => {
    log.tell(...extraTold(state, [layerId], [areaId], coats, false, newId));
    onDone();
  };
  const left = enoughTold(state, [layerId], areas, ENOUGH);
  return (
    <Box role="group" aria-label="More or enough" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
      <Button variant="outlined" sx={TALL} onClick={() => extra(1)}>
        One coat more here
      </Button>
      <Button variant="outlined" sx={TALL} onClick={() => extra(0.5)}>
        Half a coat more here
      </Button>
      <Button
        variant="outlined"
        sx={TALL}
        disabled={!left.length}
        onClick={() => {
          log.tell(...left);
          onDone();
        }}
      >
        Enough {at.cell.coat.name}, go on
      </Button>
    </Box>
  );
}
