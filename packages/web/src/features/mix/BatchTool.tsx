import type { MixGroup } from '@steady-gleam/core/mixing';
import type { NewBatch } from '@steady-gleam/contracts';
import type { Product } from '@steady-gleam/core/products';
import { useRef, type ReactNode } from 'react';
import { shopIso } from '../../shared/clock';
import { sendBatch } from '../../shared/log/parcels';
import { newId } from '../../shared/newId';
import { useShopChange } from '../../shared/useShop';
import { isNominal } from '../card/cardModel';
import { BatchPanel } from './BatchPanel';
import { batchOf } from './mixModel';
import { without } from './useMixing';
import type { MixRoom } from './useMixRoom';

/** One cup of the job: worked out, and kept once it is mixed. */
export function BatchTool({
  jobId,
  simulated,
  room,
  group,
  shelf,
  weatherFields,
  tabs,
}: {
  jobId: string;
  simulated: boolean;
  room: MixRoom;
  group: MixGroup;
  shelf: readonly Product[];
  weatherFields: ReactNode;
  tabs: ReactNode;
}) {
  const { state, setState, mixing, setMixing, settingsOf, setSettings, gun, hand, ownBatches, failure } = room;
  const add = useShopChange('batches', (body: NewBatch) => sendBatch(body));
  // The same batch pressed again after a lost answer is sent as the same; a changed one is another.
  const tried = useRef<{ readonly what: string; readonly id: string; readonly at: string } | null>(null);
  const work = room.worked(group);
  const keep = () => {
    if (!work.plan) return;
    const made = {
      jobId,
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
    // Another tool may be opened before the answer comes: what was said of this cup must not stay for the next.
    void add.mutateAsync(batchOf({ id, ...made }, at)).then(
      () => {
        tried.current = null;
        setState((old) => ({ ...old, note: '', onCard: false }));
      },
      () => undefined,
    );
  };
  return (
    <BatchPanel
      key={group.id}
      jobId={jobId}
      simulated={simulated}
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
      lands={room.lands}
      hand={hand && group.materialId === hand.mixId && !isNominal(hand.film) ? hand.film.toFixed(2) : null}
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
      failure={failure}
    />
  );
}
