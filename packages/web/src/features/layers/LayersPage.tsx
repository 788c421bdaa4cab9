import { type ActionDispatch, useEffect, useReducer, useState } from 'react';
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { Input } from '../../ui/Input';
import { areasOf, filmLimitSchema, stacksSchema, START_PLAN, type Job } from '@steady-gleam/contracts';
import { stacksOfPick } from '@steady-gleam/core/jobs';
import {
  LAYER_FILM_UM,
  LAYER_NAMES,
  startingLayers,
  STARTING_STACKS,
  USUAL_LIMIT_UM,
  type PieceStack,
  type StackLayer,
  type StackLayerKind,
} from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { Link, useSearchParams } from 'react-router';
import { ValidationError } from 'yup';
import { Answer } from '../../shared/Answer';
import { faultOf } from '../../shared/apiClient';
import { Bench } from '../../shared/Bench';
import { MeasureField } from '../../ui/MeasureField';
import { useUnits } from '../../shared/units';
import { FilmStrip } from '../../shared/film/FilmStrip';
import { useLayerColours } from '../../shared/film/useLayerColours';
import { useStacks } from '../../shared/film/useStacks';
import { FlopStrip } from '../../shared/FlopStrip';
import { pickOf, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useChangeJob, useJob } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { begin, historyReducer, type History, type HistoryAction } from './history';
import { draftOf, forgetDraft, keepDraft, sameStacks, sayBuild } from './layersModel';
import { newId } from '../../shared/newId';
import { numberIn } from '../../shared/numberIn';
import { LayerRows } from './LayerRows';
import { StackActions } from './StackActions';

const KINDS: readonly StackLayerKind[] = ['primer', 'sealer', 'ground', 'effect', 'lock', 'clear'];

/** Every layer of a piece, from substrate to clear: added, moved, split and doubled; several stacks on a two-tone piece. */
export function LayersPage() {
  const detail = useJob();
  const { job, target: set } = detail;
  const units = useUnits();
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
  const limit = numberIn(limitText) || USUAL_LIMIT_UM;
  const changed = !sameStacks(stacks, kept) || limit !== (job.filmLimitUm ?? USUAL_LIMIT_UM);
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
    const last = stack.layers.findLastIndex((l) => KINDS.indexOf(l.kind) <= KINDS.indexOf(kind));
    insertAfter(last, layer);
    setParams({ layer: layer.id }, { replace: true });
  };

  const keep = () => {
    try {
      const stacksFine = stacksSchema.validateSync(stacks, { abortEarly: false });
      const limitFine = filmLimitSchema.validateSync(limitText.trim() === '' ? undefined : numberIn(limitText));
      setErrors({});
      change.mutate(
        { version: job.version, stacks: stacksFine, filmLimitUm: limitFine ?? null },
        { onSuccess: () => forgetDraft(job.id) },
      );
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const found: Record<string, string> = {};
      for (const e of error.inner.length ? error.inner : [error]) found[e.path || 'limit'] ??= e.message;
      setErrors(found);
    }
  };
  const errorOf = (index: number) =>
    Object.entries(errors).find(([path]) => path.startsWith(`[${stacks.indexOf(stack)}].layers[${index}]`))?.[1];
  const said = sayBuild(stacks, limit, units, job.plan ?? START_PLAN);

  return (
    <Bench
      side={
        <>
          <Typography variant="h2">
            {stacks.length > 1 ? `The finished ${stack.name}` : 'The finished stack'}
          </Typography>
          {look ? (
            <FlopStrip
              angles={angles}
              target={target.length ? target.map((t) => t.lab) : look}
              {...(target.length ? { sample: look } : {})}
              height={96}
              label={target.length ? 'Target over this stack, from face to flop' : 'This stack from face to flop'}
              fileTitle={`${job.piece} ${stack.name} flop`}
            />
          ) : (
            <Box sx={{ height: 130 }} />
          )}
          <MeasureField
            measure="film"
            label="Build not to exceed"
            value={limitText}
            onValue={setLimitText}
            error={errors['limit']}
          />
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {units.say('film', USUAL_LIMIT_UM)} is ours; the product’s sheet rules. Films are of full wet coats; style
            scales them.
          </Typography>
          <Box component="label" sx={{ display: 'block' }}>
            <Typography variant="h3" component="span" sx={{ display: 'block' }}>
              Start again from
            </Typography>
            <Input
              select
              value=""
              onChange={(e) => e.target.value && setLayers(startingLayers(e.target.value, system, newId))}
              aria-label={'Start again from'}
            >
              <option value="">a finish family …</option>
              {STARTING_STACKS.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </Input>
          </Box>
          <KeepStacks change={change} errors={errors} keep={keep} changed={changed} job={job} dispatch={dispatch} />
        </>
      }
    >
      <Answer why={said.why}>{said.answer}</Answer>
      {stacks.length > 1 ? (
        <ToggleButtonGroup
          exclusive
          value={stack.id}
          aria-label="Part of the piece"
          sx={{ mb: 1.5 }}
          onChange={(_, v: string | null) => v && setAt(stacks.findIndex((s) => s.id === v))}
        >
          {stacks.map((s) => (
            <ToggleButton key={s.id} value={s.id}>
              {s.name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      ) : null}
      {stack.id !== stacks[0]!.id && !areasOf(job).some((a) => a.finishId === stack.id) ? (
        <Typography role="status" sx={{ mb: 1 }}>
          No area gets the {stack.name} yet: nothing of it is planned.{' '}
          <Link to={`/jobs/${job.id}/pieces`} style={{ color: 'inherit' }}>
            Give it one under Pieces
          </Link>
          .
        </Typography>
      ) : null}
      <FilmStrip
        layers={stack.layers}
        pickedMix={null}
        selected={selected}
        height={64}
        names
        linkTo={(l) => `?layer=${l.id}`}
      />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return;
          const from = stack.layers.findIndex((l) => l.id === active.id);
          const to = stack.layers.findIndex((l) => l.id === over.id);
          setLayers(arrayMove([...stack.layers], from, to));
        }}
      >
        <SortableContext items={stack.layers.map((l) => l.id)} strategy={verticalListSortingStrategy}>
          <Box
            aria-hidden
            sx={{ display: { xs: 'none', lg: 'flex' }, gap: 0.75, mt: 1.75, fontSize: 14, color: 'text.secondary' }}
          >
            <span style={{ flex: 1 }} />
            <span style={{ width: 118, textAlign: 'center' }}>coats</span>
            <span style={{ width: 104 }}>style</span>
            <span style={{ width: 66 }}>{units.name('film')} a coat</span>
            <span style={{ width: 62, textAlign: 'right' }}>film</span>
            <span style={{ width: 132 }} />
          </Box>
          <LayerRows
            stack={stack}
            looks={looks}
            selected={selected}
            errorOf={errorOf}
            setLayers={setLayers}
            insertAfter={insertAfter}
          />
        </SortableContext>
      </DndContext>
      {stack.layers.length ? null : <Typography sx={{ mt: 1 }}>Nothing is laid yet. Add a layer below.</Typography>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2, alignItems: 'center' }}>
        {KINDS.map((kind) => (
          <Button key={kind} variant="outlined" onClick={() => add(kind)} sx={{ px: 1.5 }}>
            + {LAYER_NAMES[kind]}
          </Button>
        ))}
      </Box>
      <StackActions
        state={state}
        dispatch={dispatch}
        stacks={stacks}
        stack={stack}
        setStacks={setStacks}
        setAt={setAt}
        job={job}
      />
    </Bench>
  );
}

interface KeepStacksProps {
  readonly change: ReturnType<typeof useChangeJob>;
  readonly errors: Record<string, string>;
  readonly keep: () => void;
  readonly changed: boolean;
  readonly job: Job;
  readonly dispatch: ActionDispatch<[a: HistoryAction<readonly PieceStack[]>]>;
}

/** Keeps the stacks, or lets them follow from the pick again. */
function KeepStacks({ change, errors, keep, changed, job, dispatch }: KeepStacksProps) {
  const { library } = useLibrary();
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, mt: 'auto' }}>
      {change.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {faultOf(change.error)}
        </Typography>
      ) : null}
      {errors['stacks'] ? <Typography role="alert">{errors['stacks']}</Typography> : null}
      <Button variant="contained" sx={{ minHeight: 52 }} onClick={keep} disabled={!changed || change.isPending}>
        {changed ? 'Keep these layers' : 'These layers are kept'}
      </Button>
      {job.stacks ? (
        <Button
          variant="outlined"
          disabled={change.isPending}
          onClick={() =>
            change.mutate(
              { version: job.version, stacks: null },
              {
                onSuccess: () => dispatch({ do: 'reset', value: stacksOfPick(job.mixId, pickOf(job), library) }),
              },
            )
          }
        >
          Let them follow from the pick
        </Button>
      ) : null}
    </Box>
  );
}
