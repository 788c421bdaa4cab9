import { Button } from '@mui/material';
import type { Mixing } from '@steady-gleam/contracts';
import type { PieceStack } from '@steady-gleam/core/finishes';
import type { Library } from '@steady-gleam/core/materials';
import { flakeVolumes, withFlakeDose, type FlakeLayer, poursOf, type MixGroup } from '@steady-gleam/core/mixing';
import { cupOf, type Product } from '@steady-gleam/core/products';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Notice } from '../../shared/Notice';
import { useChangeJob, type PageDetail } from '../../shared/useJob';
import { FlakePanel } from './FlakePanel';
import type { MixSettings } from './mixModel';

/** What flake may lie in: binder or clear. */
const CARRIES: readonly Product['kind'][] = ['flake carrier', 'intercoat', 'mid coat', 'clear'];

/** The flake of the job: dosed, and taken into cup, layers and plan in one step. */
export function FlakeTool({
  detail: { job },
  mixing,
  flake,
  stacks,
  groups,
  shelf,
  library,
  areaM2: area,
  settingsOf,
  tabs,
}: {
  detail: PageDetail;
  mixing: Mixing;
  flake: FlakeLayer | null;
  stacks: readonly PieceStack[];
  groups: readonly MixGroup[];
  shelf: readonly Product[];
  library: Library;
  areaM2: number;
  settingsOf: (group: MixGroup) => MixSettings;
  tabs: ReactNode;
}) {
  /** Apart from the mixing, so that it says of itself whether it was kept. */
  const shape = useChangeJob(job.id);
  const layers = stacks.flatMap((s) => s.layers);
  // The product that was chosen for the layer, else the shop's flake carrier.
  const carriers = shelf.filter((p) => CARRIES.includes(p.kind));
  const named = flake ? mixing.products[flake.layer.id] : undefined;
  const carrier = carriers.find((p) => p.id === named) ?? carriers.find((p) => p.kind === 'flake carrier') ?? null;
  if (!flake?.ground)
    return (
      <Notice
        title="There is no flake among the layers."
        text="Lay an effect with a lock-down clear over it, and a ground below it: its dose, its cover and the clear that buries it are worked out here."
      >
        <Button component={Link} to={`/jobs/${job.id}/layers`} variant="contained">
          Open the layers
        </Button>
      </Notice>
    );
  const { ground } = flake;
  return (
    <FlakePanel
      jobId={job.id}
      kept={mixing.flake}
      found={{ ...flake, ground }}
      carrier={carrier}
      carriers={carriers}
      onCarrier={(id) =>
        shape.mutate({
          version: job.version,
          mixing: { ...mixing, products: { ...mixing.products, [flake.layer.id]: id } },
        })
      }
      areaM2={area}
      tabs={tabs}
      using={{ busy: shape.isPending, fault: shape.error?.message ?? null }}
      onUse={({ flake: said, dose, filmUm, mix, name, inMix }) => {
        const products = carrier ? { ...mixing.products, [flake.layer.id]: carrier.id } : mixing.products;
        const cup = cupOf(flake.layer, layers);
        const group = groups.find((g) => g.id === cup)!;
        // A nudge stays in the cup; a dose of before is replaced.
        const nudged = (mixing.added?.[cup] ?? []).filter((a) => !a.dry);
        // The mix ready to spray, told to one part of what is poured first.
        const { pours } = poursOf({
          group,
          product: carrier,
          library,
          settings: settingsOf(group),
          temperatureC: mixing.temperatureC,
          areaM2: area,
          sameHardener: null,
          added: nudged,
        });
        const litre = pours.reduce((sum, p) => sum + p.parts, 0) / pours[0]!.parts;
        const volumes = flakeVolumes(mix, dose.gramsPerLitre);
        const added = mix.map((f, i) => ({
          name: `${name} ${(f.sizeUm / 1000).toFixed(1)} mm`,
          ratio: volumes[i]! * litre,
          density: f.density,
          dry: true,
        }));
        shape.mutate({
          version: job.version,
          stacks: stacks.map((s) => ({
            ...s,
            layers: withFlakeDose(s.layers, flake, { coats: dose.coats, filmUm }, said.buryCoats),
          })),
          mixing: {
            ...mixing,
            products,
            flake: said,
            added: { ...mixing.added, [cup]: inMix ? nudged : [...nudged, ...added] },
          },
        });
      }}
    />
  );
}
