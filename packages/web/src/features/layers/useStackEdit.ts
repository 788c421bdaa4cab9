import { useEffect, useReducer, useState } from 'react';
import { KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { filmLimitSchema, stacksSchema } from '@steady-gleam/contracts';
import {
  LAYER_FILM_UM,
  USUAL_LIMIT_UM,
  type PieceStack,
  type StackLayer,
  type StackLayerKind,
} from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { useSearchParams } from 'react-router';
import { useLayerColours } from '../../shared/film/useLayerColours';
import { useStacks } from '../../shared/film/useStacks';
import { pickOf, targetOf } from '../../shared/jobModel';
import { checkWith } from '../../shared/checkWith';
import { useLibrary } from '../../shared/library';
import { useChangeJob, type PageDetail } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { begin, historyReducer, type History, type HistoryAction } from './history';
import { draftOf, forgetDraft, keepDraft, LAYER_KINDS, sameStacks } from './layersModel';
import { newId } from '../../shared/newId';
import { numberIn } from '../../shared/numberIn';

/** Stacks as they are being changed: what was done can be undone, and is kept here until the job has it. */
export function useStackEdit(detail: PageDetail) {
  const { job, target: set } = detail;
  const { library } = useLibrary();
  const change = useChangeJob(job.id);
  const [params, setParams] = useSearchParams();
  const kept = useStacks(job, pickOf(job));
  const system = findMix(job.mixId, library.systems);
  const [state, dispatch] = useReducer(
    historyReducer as (
      s: History<readonly PieceStack[]>,
      a: HistoryAction<readonly PieceStack[]>,
    ) => History<readonly PieceStack[]>,
    null,
    () => begin(draftOf(job.id, job.version) ?? kept),
  );
  const stacks = state.present;
  const [at, setAt] = useState(0);
  const selected = params.get('layer');
  const [limitText, setLimitText] = useState(String(job.filmLimitUm ?? USUAL_LIMIT_UM));
  const [errors, setErrors] = useState<Record<string, string>>({});
  const stack = stacks[Math.min(at, stacks.length - 1)]!;
  const limitUm = limitText.trim() === '' ? null : numberIn(limitText);
  const limit = limitUm || USUAL_LIMIT_UM;
  // What is no figure is a change too, or it would stand there as if it were kept.
  const changed = !sameStacks(stacks, kept) || (limitUm ?? USUAL_LIMIT_UM) !== (job.filmLimitUm ?? USUAL_LIMIT_UM);
  const target = targetOf(set, detail);
  const angles = target.length ? target : FIVE_ANGLES;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const key = JSON.stringify(stack.layers.map((l) => ({ ...l, id: '' })));
  const looks = useLayerColours(stack.layers);
  const { value: look } = useCompute(`look/${key}/${JSON.stringify(angles)}`, (c) => c.stackLook(stack.layers, angles));

  useEffect(() => {
    if (changed) keepDraft(job.id, job.version, stacks);
    else forgetDraft(job.id);
  }, [changed, stacks, job.id, job.version]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.target instanceof HTMLInputElement) return;
      const again = e.key.toLowerCase() === 'y' || (e.shiftKey && e.key.toLowerCase() === 'z');
      if (again || e.key.toLowerCase() === 'z') {
        e.preventDefault();
        dispatch({ do: again ? 'redo' : 'undo' });
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);

  const setStacks = (value: readonly PieceStack[]) => dispatch({ do: 'set', value });
  const setLayers = (layers: readonly StackLayer[]) =>
    setStacks(stacks.map((s) => (s.id === stack.id ? { ...s, layers } : s)));
  const insertAfter = (index: number, layer: StackLayer) => setLayers(stack.layers.toSpliced(index + 1, 0, layer));
  const add = (kind: StackLayerKind) => {
    const layer: StackLayer = {
      id: newId(),
      kind,
      materialId: kind === 'effect' ? system.id : kind === 'ground' ? pickOf(job).groundId : null,
      coats: kind === 'effect' || kind === 'ground' ? 2 : 1,
      style: 'wet',
      strength: 1,
      filmUm: kind === 'effect' ? system.filmUm : LAYER_FILM_UM[kind],
    };
    // What is laid early goes to the bottom, the rest below the clear.
    const last = stack.layers.findLastIndex((l) => LAYER_KINDS.indexOf(l.kind) <= LAYER_KINDS.indexOf(kind));
    insertAfter(last, layer);
    setParams({ layer: layer.id }, { replace: true });
  };

  const keep = () => {
    const layers = checkWith(stacksSchema, stacks, (path) => path);
    const limit = checkWith(filmLimitSchema, limitUm ?? undefined, () => 'limit');
    setErrors({ ...(layers.ok ? {} : layers.faults), ...(limit.ok ? {} : limit.faults) });
    if (layers.ok && limit.ok)
      change.mutate(
        { version: job.version, stacks: layers.value, filmLimitUm: limit.value ?? null },
        { onSuccess: () => forgetDraft(job.id) },
      );
  };
  const errorOf = (index: number) =>
    Object.entries(errors).find(([path]) => path.startsWith(`[${stacks.indexOf(stack)}].layers[${index}]`))?.[1];
  return {
    stacks,
    limit,
    stack,
    look,
    angles,
    target,
    limitText,
    setLimitText,
    errors,
    setLayers,
    system,
    change,
    keep,
    changed,
    dispatch,
    setAt,
    selected,
    sensors,
    looks,
    errorOf,
    insertAfter,
    add,
    state,
    setStacks,
  };
}

export type StackEdit = ReturnType<typeof useStackEdit>;
