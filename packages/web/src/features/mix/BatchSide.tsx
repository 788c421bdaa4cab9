import { Box, Button, Checkbox, FormControlLabel, Typography, useTheme } from '@mui/material';
import type { Batch } from '@steady-gleam/contracts';
import { FIGURES } from '../../app/theme';
import { sayClock } from '../../app/PotClocks';
import { useUnits } from '../../shared/units';
import type { BatchPanelProps } from './batchProps';
import { CupPicture } from '../../shared/CupPicture';

/** The cup with its marks, what is known of the mix, and the button that says it is mixed. */
export function BatchSide({
  inUse,
  blocked,
  ...props
}: BatchPanelProps & {
  /** The cup that is in use. */
  readonly inUse: Batch | undefined;
  /** Its pot life is over. */
  readonly blocked: boolean;
}) {
  const { mixing, notes } = props;
  const { pours, plan } = props.work;
  const { tones } = useTheme();
  const units = useUnits();
  return (
    <>
      <Typography variant="h2">In the cup</Typography>
      {plan?.cup ? (
        <CupPicture parts={plan.parts} cup={plan.cup} ml={plan.ml} />
      ) : plan ? (
        <Typography>
          No cup here holds {units.say('volume', plan.ml)}. Mix it in parts, and pour them together before the last
          coat, so that they are one colour.
        </Typography>
      ) : null}
      {plan ? (
        <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '1fr auto', m: 0, rowGap: 0.25 }}>
          {[
            [
              'pot life',
              plan.potMinutes === null
                ? 'does not set'
                : `${sayClock(plan.potMinutes)} h at ${units.say('temperature', mixing.temperatureC)}`,
            ],
            ['VOC of the mix', plan.voc ? units.say('voc', plan.voc.actual) : 'not known'],
            ['less water, exempt', plan.voc ? units.say('voc', plan.voc.coating) : 'not known'],
            ['material', plan.cost === null ? 'not known' : plan.cost.toFixed(1)],
          ].map(([name, value]) => (
            <Box key={name} sx={{ display: 'contents' }}>
              <Box component="dt" sx={{ borderTop: `1px solid ${tones.hairline}`, py: 0.25 }}>
                {name}
              </Box>
              <Box
                component="dd"
                sx={{
                  m: 0,
                  borderTop: `1px solid ${tones.hairline}`,
                  py: 0.25,
                  fontFamily: FIGURES,
                  textAlign: 'right',
                }}
              >
                {value}
              </Box>
            </Box>
          ))}
        </Box>
      ) : null}
      <FormControlLabel
        control={<Checkbox checked={notes.onCard} onChange={(e) => props.onNotes({ onCard: e.target.checked })} />}
        label="Also for the let-down card"
        sx={{ minHeight: 44 }}
      />
      <Button
        variant={inUse && !blocked ? 'outlined' : 'contained'}
        sx={{ minHeight: 56 }}
        disabled={!plan || !!pours.ratioFault || blocked || props.keeping}
        onClick={props.onMixed}
      >
        {inUse && !blocked ? 'Another cup is mixed' : 'Mixed: start its clock'}
      </Button>
      {props.keepFault ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {props.keepFault}
        </Typography>
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {pours.pours.some((p) => p.role === 'hardener')
          ? 'Hardener holds isocyanates: air-fed respirator, gloves and goggles while it is poured. '
          : ''}
        Solvents away from sparks, cans bonded, air moving. The product’s sheet and your local rules come first.
      </Typography>
    </>
  );
}
