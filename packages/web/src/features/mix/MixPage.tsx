import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { Batch } from '@steady-gleam/contracts';
import { flakeLayerOf } from '@steady-gleam/core/mixing';
import { wayOf, type Product } from '@steady-gleam/core/products';
import { useSearchParams } from 'react-router';
import { ClimateLine } from '../../shared/devices/ClimateLine';
import { useStacks } from '../../shared/film/useStacks';
import { pickOf } from '../../shared/jobModel';
import { Notice } from '../../shared/Notice';
import { useJob } from '../../shared/useJob';
import { useJobWork } from '../../shared/useJobWork';
import { useBatches, useGuns, useProducts } from '../../shared/useShop';
import { CardCoats } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';
import { BatchTool } from './BatchTool';
import { FlakeTool } from './FlakeTool';
import { ShadePanel } from './ShadePanel';
import { useMixRoom } from './useMixRoom';
import { useWeather, WeatherFields } from './WeatherFields';
import { WholeJobTool } from './WholeJobTool';

const NO_PRODUCTS: readonly Product[] = [];
const NO_BATCHES: readonly Batch[] = [];

/** One batch on one page for every product of the job: what to pour to which mark, and what the scale shows. */
export function MixPage() {
  const detail = useJob();
  const { job } = detail;
  const [params, setParams] = useSearchParams();
  const products = useProducts();
  const guns = useGuns();
  const batches = useBatches(job.id);
  const stacks = useStacks(job, pickOf(job));
  const count = useCardCount(detail);
  const work = useJobWork(detail);
  const shelf = products.data?.map((p) => p.product) ?? NO_PRODUCTS;
  const room = useMixRoom(detail, work, count, shelf, batches.data ?? NO_BATCHES);
  const weather = useWeather(room);
  // Amounts follow from the hand: none is shown before the card is read.
  const readsCard = count.readings.length > 0 && count.target.length > 0 && job.pick && !count.answer && !count.error;
  if (products.isPending || guns.isPending || batches.isPending || readsCard)
    return <Notice title="Opening the mix room …" />;
  const failed = products.error ?? guns.error ?? batches.error;
  if (failed)
    return (
      <Notice title="The mix room could not be opened." text={failed.message}>
        <Button
          variant="contained"
          onClick={() => void Promise.all([products.refetch(), guns.refetch(), batches.refetch()])}
        >
          Try again
        </Button>
      </Notice>
    );

  const { groups, mixing, settingsOf, setSettings, area } = room;
  const { library } = work;
  const flake = flakeLayerOf(
    stacks.flatMap((s) => s.layers),
    library,
  );
  const open = params.get('layer');
  const tool = open === 'job' || open === 'flake' || open === 'shade' ? open : null;
  const group =
    groups.find((g) => g.id === open) ?? groups.find((g) => g.materialId === job.mixId) ?? groups[0] ?? null;
  const show = (id: string) => setParams({ layer: id }, { replace: true });

  const way = wayOf(room.sprayer);
  const cans = way
    ? groups.map((g) => `${g.name.toLowerCase()} ${Math.ceil((room.worked(g).plan?.ml ?? 0) / way.canMl)}`).join(', ')
    : '';
  const tabs = (
    <>
      <WhatIsMixed groups={groups} value={tool ?? group?.id ?? ''} hasFlake={flake !== null} onShow={show} />
      {way ? (
        <Typography role="note" sx={{ mb: 1 }}>
          Sprayed from cans: nothing is mixed. Cans of {way.canMl} ml: {cans}. {way.caution}
        </Typography>
      ) : null}
      {tool === 'job' || (!tool && group?.materialId === job.mixId) ? (
        <CardCoats detail={detail} count={count} />
      ) : null}
    </>
  );

  if (tool === 'flake')
    return (
      <FlakeTool
        detail={detail}
        mixing={mixing}
        flake={flake}
        stacks={stacks}
        groups={groups}
        shelf={shelf}
        library={library}
        areaM2={area}
        settingsOf={settingsOf}
        tabs={tabs}
      />
    );
  const sealer = groups.find((g) => g.kind === 'sealer');
  if (tool === 'shade')
    return (
      <ShadePanel
        tabs={tabs}
        shade={sealer ? settingsOf(sealer).shade : []}
        onUse={(shade) => {
          if (sealer) {
            setSettings(sealer, { shade });
            show(sealer.id);
          }
        }}
      />
    );
  const weatherFields = (
    <>
      <WeatherFields room={room} weather={weather} guns={guns.data ?? []} />
      <Box sx={{ gridColumn: '1 / -1' }}>
        <ClimateLine
          job={job}
          onUse={({ airC, humidity }) => {
            weather.forget();
            room.setMixing(() => ({ temperatureC: airC, humidity }));
          }}
        />
      </Box>
    </>
  );
  if (tool === 'job')
    return <WholeJobTool room={room} weather={weather} weatherFields={weatherFields} tabs={tabs} onShow={show} />;
  if (!group) return <Notice title="Nothing is laid yet." text="Add layers first; the mix room pours for them." />;
  return (
    <BatchTool
      jobId={job.id}
      simulated={job.tryOut !== null}
      room={room}
      group={group}
      shelf={shelf}
      weatherFields={weatherFields}
      tabs={tabs}
    />
  );
}

interface WhatIsMixedProps {
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly value: string;
  readonly hasFlake: boolean;
  readonly onShow: (id: string) => void;
}

/** One cup, the whole job, or a tool. */
function WhatIsMixed({ groups, value, hasFlake, onShow }: WhatIsMixedProps) {
  return (
    <ToggleButtonGroup
      exclusive
      value={value}
      aria-label="What is mixed"
      onChange={(_, v: string | null) => v && onShow(v)}
      sx={{ flexWrap: 'wrap', mb: 1 }}
    >
      {groups.map((g) => (
        <ToggleButton key={g.id} value={g.id} sx={{ px: 1.5, textTransform: 'none' }}>
          {g.name}
        </ToggleButton>
      ))}
      <ToggleButton value="job" sx={{ px: 1.5, fontWeight: 700 }}>
        Whole job
      </ToggleButton>
      <ToggleButton value="shade" sx={{ px: 1.5 }}>
        Sealer shade
      </ToggleButton>
      {hasFlake ? (
        <ToggleButton value="flake" sx={{ px: 1.5 }}>
          Flake
        </ToggleButton>
      ) : null}
    </ToggleButtonGroup>
  );
}
