import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { mixingSchema, shopApi, START_MIXING, type Batch, type Mixing, type NewBatch } from '@steady-gleam/contracts';
import {
  cupOf,
  flakeLayerOf,
  flakeVolumes,
  withFlakeDose,
  sprayMinutes,
  STARTING_GUNS,
  TRANSFER_SD,
  USUAL_TRANSFER,
  type Product,
} from '@steady-gleam/core';
import { useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { numberIn } from '../../shared/numberIn';
import { Field } from '../../shared/Field';
import { useStacks } from '../../shared/FilmSection';
import { call } from '../../shared/apiClient';
import { choiceOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { MeasureField } from '../../shared/MeasureField';
import { Notice } from '../../shared/Notice';
import { useChangeJob, useJob } from '../../shared/useJob';
import { useJobWork } from '../../shared/useJobWork';
import { transferOf, useBatches, useGuns, useProducts, useShopChange } from '../../shared/useShop';
import { isNominal } from '../card/cardModel';
import { CardCoats } from '../card/CardCoats';
import { useCardCount } from '../card/useCardCount';
import { BatchPanel, type BatchNotes } from './BatchPanel';
import { FlakePanel } from './FlakePanel';
import {
  batchOf,
  groupsOf,
  hardenerInClears,
  needFor,
  planBatch,
  poursOf,
  productOf,
  solidsOf,
  START_SETTINGS,
  USUAL_LOSS_ML,
  type MixGroup,
  type MixSettings,
} from './mixModel';
import { ShadePanel } from './ShadePanel';
import { WholeJobPanel } from './WholeJobPanel';
import { newId } from '../../shared/newId';
import { shopIso } from '../../shared/clock';

interface Kept extends BatchNotes {
  readonly settings: Readonly<Record<string, MixSettings>>;
  readonly leftover: string;
}
const EMPTY: Kept = { settings: {}, lots: {}, note: '', onCard: false, leftover: '' };
const keyOf = (jobId: string) => `steady-gleam.mix.${jobId}`;
function kept(jobId: string): Kept {
  try {
    return { ...EMPTY, ...(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? '{}') as Partial<Kept>) };
  } catch {
    return EMPTY;
  }
}

/** A record without one of its keys. */
const without = <T,>(record: Readonly<Record<string, T>> | undefined, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record ?? {}).filter(([k]) => k !== key));

const NO_PRODUCTS: readonly Product[] = [];
const NO_BATCHES: readonly Batch[] = [];

/** One batch on one page for every product of the job: what to pour to which mark, and what the scale shows. */
export function MixPage() {
  const detail = useJob();
  const { job } = detail;
  const { library } = useLibrary();
  const [params, setParams] = useSearchParams();
  const products = useProducts();
  const guns = useGuns();
  const batches = useBatches();
  const change = useChangeJob(job.id);
  /** Pieces and flake: apart from the mixing, so that each says of itself whether it was kept. */
  const shape = useChangeJob(job.id);
  const add = useShopChange('batches', (body: NewBatch) => call(shopApi.addBatch, { body }));
  // The same batch pressed again after a lost answer is sent as the same; a changed one is another.
  const tried = useRef<{ readonly what: string; readonly id: string; readonly at: string } | null>(null);
  const [state, setState] = useState(() => kept(job.id));
  const [mixingFaults, setMixingFaults] = useState<Record<string, string>>({});
  const underWay = useRef<Mixing | null>(null);
  const [weather, setWeather] = useState<{ temperatureC?: string; humidity?: string }>({});
  useEffect(() => sessionStorage.setItem(keyOf(job.id), JSON.stringify(state)), [job.id, state]);

  const stacks = useStacks(job, choiceOf(job));
  const count = useCardCount(detail);
  const laid = useJobWork(detail);
  const hand = count.assessment?.calibration ? { systemId: job.systemId, film: count.assessment.hand.film } : null;
  const shelf = products.data?.map((p) => p.product) ?? NO_PRODUCTS;
  const rack = guns.data ?? [];
  const mixed = batches.data ?? NO_BATCHES;
  // Amounts follow from the hand: none is shown before the card is read.
  const readsCard =
    count.readings.length > 0 && count.target.length > 0 && job.choice && !count.assessment && !count.error;
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

  const mixing = job.mixing ?? START_MIXING;
  const area = laid.plan.areas.reduce((sum, a) => sum + (a.on === null ? a.areaM2 : 0), 0);
  const layers = stacks.flatMap((s) => s.layers);
  const flake = flakeLayerOf(layers, library);
  const groups = groupsOf(laid.plan, library, hand);
  const gun = rack.find((g) => g.gun.id === mixing.gunId)?.gun ?? null;
  const transfer = gun ? transferOf(gun, mixed) : { mean: USUAL_TRANSFER, sd: TRANSFER_SD, lessons: 0 };
  const sprayer = gun ?? STARTING_GUNS[0]!;
  const lossMl = gun?.lossMl ?? USUAL_LOSS_ML;
  const ownBatches = mixed.filter((b) => b.jobId === job.id);
  // The reducer is the job's: flash, order and times follow it.
  const settingsOf = (g: MixGroup): MixSettings => ({
    ...(state.settings[g.id] ?? START_SETTINGS),
    reducer: mixing.reducers?.[g.id] ?? '',
  });
  const open = params.get('layer');
  const tool = open === 'job' || open === 'flake' || open === 'shade' ? open : null;
  const group =
    groups.find((g) => g.id === open) ?? groups.find((g) => g.materialId === job.systemId) ?? groups[0] ?? null;

  const plainPours = (g: MixGroup, sameHardener: string | null) =>
    poursOf({
      group: g,
      product: productOf(g, library, shelf, mixing),
      library,
      settings: settingsOf(g),
      temperatureC: mixing.temperatureC,
      areaM2: area,
      sameHardener,
      added: mixing.added?.[g.id] ?? [],
    });
  const worked = (g: MixGroup) => {
    const product = productOf(g, library, shelf, mixing);
    const same = hardenerInClears(g, groups, ownBatches, (other) => plainPours(other, null).pours);
    const pours = plainPours(g, same);
    const solids = solidsOf(g, product, library);
    const need = needFor(g, solids, { lossMl }, transfer);
    return {
      product,
      pours,
      solids,
      need,
      ...planBatch(pours.pours, need, settingsOf(g), product, mixing.temperatureC),
    };
  };

  const setSettings = (g: MixGroup, more: Partial<MixSettings>) =>
    setState((old) => ({
      ...old,
      settings: { ...old.settings, [g.id]: { ...(old.settings[g.id] ?? START_SETTINGS), ...more } },
    }));
  const setMixing = (more: (now: Mixing) => Partial<Mixing>) => {
    // What was set a moment ago and is still on its way counts already, or the next change would undo it.
    const now = underWay.current ?? mixing;
    try {
      const next = mixingSchema.validateSync({ ...now, ...more(now) }, { abortEarly: false });
      setMixingFaults({});
      if (JSON.stringify(next) === JSON.stringify(now)) return;
      underWay.current = next;
      change.mutate(
        { version: job.version, mixing: next },
        {
          onSettled: () => {
            underWay.current = null;
          },
        },
      );
    } catch (error) {
      const { inner } = error as { inner: { path?: string; message: string }[] };
      setMixingFaults(Object.fromEntries(inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  const show = (id: string) => setParams({ layer: id }, { replace: true });

  const switches = (
    <ToggleButtonGroup
      exclusive
      value={tool ?? group?.id ?? ''}
      aria-label="What is mixed"
      onChange={(_, v: string | null) => v && show(v)}
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
      {flake ? (
        <ToggleButton value="flake" sx={{ px: 1.5 }}>
          Flake
        </ToggleButton>
      ) : null}
    </ToggleButtonGroup>
  );
  const tabs = (
    <>
      {switches}
      {tool === 'job' || (!tool && group?.materialId === job.systemId) ? (
        <CardCoats detail={detail} count={count} />
      ) : null}
    </>
  );

  if (tool === 'flake') {
    const carrier = shelf.find((p) => p.kind === 'flake carrier') ?? null;
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
        areaM2={area}
        tabs={tabs}
        using={{ busy: shape.isPending, fault: shape.error?.message ?? null }}
        onUse={({ flake: said, dose, filmUm, mix, name }) => {
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
            mixing: { ...mixing, products, flake: said, added: { ...mixing.added, [cup]: [...nudged, ...added] } },
          });
        }}
      />
    );
  }
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
      <MeasureField
        measure="temperature"
        label="In the booth"
        value={weather.temperatureC ?? String(mixing.temperatureC)}
        onValue={(v) => setWeather({ ...weather, temperatureC: v })}
        onBlur={() =>
          weather.temperatureC !== undefined && setMixing(() => ({ temperatureC: numberIn(weather.temperatureC!) }))
        }
        error={mixingFaults['temperatureC']}
      />
      <Field
        label="Gun"
        select
        value={mixing.gunId ?? ''}
        onChange={(e) => setMixing(() => ({ gunId: e.target.value || null }))}
      >
        <option value="">not said</option>
        {rack.map((g) => (
          <option key={g.gun.id} value={g.gun.id}>
            {g.gun.name}
          </option>
        ))}
      </Field>
    </>
  );
  const lands = `${Math.round(transfer.mean * 100)} % lands${gun ? ` with ${gun.name}` : ''}${transfer.lessons ? `, learned from ${transfer.lessons} ${transfer.lessons === 1 ? 'batch' : 'batches'}` : ''}`;

  if (tool === 'job')
    return (
      <WholeJobPanel
        all={groups.map((g) => ({ group: g, ...worked(g) }))}
        area={area}
        transferMean={transfer.mean}
        coatMinutes={sprayMinutes(area, sprayer, { speedCmS: sprayer.speedCmS, overlap: 0.75 })}
        lands={lands}
        tabs={tabs}
        weatherFields={weatherFields}
        humidity={weather.humidity ?? String(Math.round(mixing.humidity * 100))}
        onHumidity={(humidity) => setWeather({ ...weather, humidity })}
        onHumidityDone={() =>
          weather.humidity !== undefined && setMixing(() => ({ humidity: numberIn(weather.humidity!) / 100 }))
        }
        humidityFault={mixingFaults['humidity']}
        leftover={state.leftover}
        onLeftover={(leftover) => setState({ ...state, leftover })}
        onShow={show}
      />
    );

  if (!group) return <Notice title="Nothing is laid yet." text="Add layers first; the mix room pours for them." />;
  const work = worked(group);
  const keep = () => {
    if (!work.plan) return;
    const made = {
      jobId: job.id,
      group,
      product: work.product,
      gun,
      plan: work.plan,
      pours: work.pours.pours,
      lots: work.pours.pours.map((p) => state.lots[`${group.id}/${p.name}`] ?? ''),
      temperatureC: mixing.temperatureC,
      solids: work.solids,
      onCard: state.onCard,
      note: state.note,
    };
    const what = JSON.stringify(made);
    if (tried.current?.what !== what) tried.current = { what, id: newId(), at: shopIso() };
    const { id, at } = tried.current;
    add.mutate(batchOf({ id, ...made }, at), {
      onSuccess: () => {
        tried.current = null;
        setState((old) => ({ ...old, note: '', onCard: false }));
      },
    });
  };
  return (
    <BatchPanel
      key={group.id}
      group={group}
      work={work}
      settings={settingsOf(group)}
      onSettings={({ reducer, ...more }) => {
        if (Object.keys(more).length) setSettings(group, more);
        if (reducer === undefined) return;
        setMixing((now) => {
          const others = without(now.reducers, group.id);
          return { reducers: reducer ? { ...others, [group.id]: reducer } : others };
        });
      }}
      mixing={mixing}
      onMixing={setMixing}
      shelf={shelf}
      lands={lands}
      hand={hand && group.materialId === hand.systemId && !isNominal(hand.film) ? hand.film.toFixed(2) : null}
      mixed={ownBatches.filter((b) => b.layerId === group.id)}
      onDropNudge={() => {
        setMixing((now) => ({ added: without(now.added, group.id) }));
      }}
      notes={state}
      onNotes={(more) => setState((old) => ({ ...old, ...more }))}
      tabs={tabs}
      weatherFields={weatherFields}
      onMixed={keep}
      keeping={add.isPending}
      keepFault={add.variables?.layerId === group.id ? (add.error?.message ?? null) : null}
      failure={change.error?.message ?? null}
    />
  );
}
