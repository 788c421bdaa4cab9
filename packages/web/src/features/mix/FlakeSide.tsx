import { Button, Typography } from '@mui/material';
import { MeasureField } from '../../shared/MeasureField';
import { useUnits } from '../../shared/units';
import type { FlakeForm, FlakeUse } from './useFlakeForm';

/** The clear that buries the flake, and the way into cup, layers and plan. */
export function FlakeSide({
  state,
  groundName,
  coats,
  using,
  onUse,
}: {
  state: FlakeForm;
  groundName: string;
  coats: string;
  using: { readonly busy: boolean; readonly fault: string | null };
  onUse: (use: FlakeUse) => void;
}) {
  const units = useUnits();
  const { form, change, faults, plan, dose, flake, filmUm, mix, pigment, isIn } = state;
  return (
    <>
      <Typography variant="h2">Bury it</Typography>
      <Typography variant="body2">Over {groundName.toLowerCase()}, as the layers are kept.</Typography>
      {plan ? (
        <Typography>
          {plan.coats} coats of clear. The flakes stand about {units.say('film', plan.riseUm)} high; after sanding{' '}
          {units.say('film', plan.leftUm)} is left above them.
        </Typography>
      ) : null}
      <MeasureField
        measure="film"
        label="Clear, film of a coat"
        value={form.film}
        onValue={(film) => change({ film })}
        error={faults['film']}
      />
      <MeasureField
        measure="film"
        label="Sanding takes off"
        value={form.sand}
        onValue={(sand) => change({ sand })}
        error={faults['sand']}
      />
      <MeasureField
        measure="film"
        label="Left above at least"
        value={form.keep}
        onValue={(keep) => change({ keep })}
        error={faults['keep']}
      />
      {dose && flake ? (
        <Button
          variant="contained"
          disabled={using.busy}
          onClick={() =>
            onUse({
              flake,
              dose,
              filmUm,
              mix: mix.filter((f) => f.parts > 0),
              inMix: state.inMix,
              name: pigment.name.replace(/ \d.*$/, '').toLowerCase(),
            })
          }
        >
          Take it into the job
        </Button>
      ) : null}
      {isIn ? (
        <Typography role="status">
          In the cup, the layers and the plan: {coats} of flake, {plan?.coats} clears before it is sanded flat.
        </Typography>
      ) : null}
      {using.fault ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {using.fault}
        </Typography>
      ) : null}
      <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
        Flake dust is not to be breathed, and aluminium dust burns: pour it gently, away from sparks, mask on. Dry
        sanding the buried film: dust mask, and no flake may show. The product’s sheet and your local rules come first.
      </Typography>
    </>
  );
}
