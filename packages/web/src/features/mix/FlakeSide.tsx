import { Button, Typography } from '@mui/material';
import { MeasureField } from '../../ui/MeasureField';
import { layerFilmUm, type StackLayer } from '@steady-gleam/core/finishes';
import { useUnits, type Units } from '../../shared/units';
import type { FlakeForm, FlakeUse } from './useFlakeForm';

/** Film above the flakes by the job's own lock-down and clears, before they are sanded flat and after all of them. */
function sayBuried(above: readonly StackLayer[], riseUm: number, sandUm: number, units: Pick<Units, 'say'>): string {
  const second = above.findIndex((l, i) => l.kind === 'clear' && above.slice(0, i).some((o) => o.kind === 'clear'));
  const film = (layers: readonly StackLayer[]) => layers.reduce((sum, l) => sum + layerFilmUm(l), 0);
  const first = film(second < 0 ? above : above.slice(0, second)) - riseUm - sandUm;
  const all = film(above) - riseUm - sandUm;
  return first < 0
    ? `By the layers as they are kept sanding would reach the flakes: ${units.say('film', -first)} of clear are missing before it.`
    : `By the layers as they are kept ${units.say('film', first)} of clear is left above the flakes after sanding, ${units.say('film', all)} in the end.`;
}

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
  const { form, change, faults, plan, dose, flake, filmUm, mix, pigment, isIn, bury, above } = state;
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
      {plan ? <Typography variant="body2">{sayBuried(above, plan.riseUm, bury.sandUm, units)}</Typography> : null}
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
