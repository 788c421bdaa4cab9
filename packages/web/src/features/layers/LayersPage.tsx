import { closestCenter, DndContext } from '@dnd-kit/core';
import { arrayMove, SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { Input } from '../../ui/Input';
import { areasOf, START_PLAN, type Job } from '@steady-gleam/contracts';
import { stacksOfPick } from '@steady-gleam/core/jobs';
import { laidFilmsUm, LAYER_NAMES, startingLayers, STARTING_STACKS, USUAL_LIMIT_UM } from '@steady-gleam/core/finishes';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { faultOf } from '../../shared/apiClient';
import { Bench } from '../../shared/Bench';
import { MeasureField } from '../../ui/MeasureField';
import { useUnits } from '../../shared/units';
import { FilmStrip } from '../../shared/film/FilmStrip';
import { FlopStrip } from '../../shared/FlopStrip';
import { pickOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useJob } from '../../shared/useJob';
import { LAYER_KINDS, sayBuild } from './layersModel';
import { newId } from '../../shared/newId';
import { LayerRows } from './LayerRows';
import { StackActions } from './StackActions';
import { useStackEdit, type StackEdit } from './useStackEdit';

/** Every layer of a piece, from substrate to clear: added, moved, split and doubled; several stacks on a two-tone piece. */
export function LayersPage() {
  const detail = useJob();
  const { job } = detail;
  const units = useUnits();
  const edit = useStackEdit(detail);
  const { stacks, limit, stack, setLayers, setAt, selected, sensors, add } = edit;
  const laid = job.plan ?? START_PLAN;
  const said = sayBuild(stacks, limit, units, laid);
  const films = laidFilmsUm(stack.layers, laid);

  return (
    <Bench side={<LayersSide edit={edit} job={job} />}>
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
        film={stack.layers.map((layer, i) => ({ finishId: stack.id, layer, onUm: 0, plannedUm: films[i]! }))}
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
          <LayerRows edit={edit} />
        </SortableContext>
      </DndContext>
      {stack.layers.length ? null : <Typography sx={{ mt: 1 }}>Nothing is laid yet. Add a layer below.</Typography>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2, alignItems: 'center' }}>
        {LAYER_KINDS.map((kind) => (
          <Button key={kind} variant="outlined" onClick={() => add(kind)} sx={{ px: 1.5 }}>
            + {LAYER_NAMES[kind]}
          </Button>
        ))}
      </Box>
      <StackActions edit={edit} job={job} />
    </Bench>
  );
}

/** How the stack looks, how thick it may be, and what it can begin with. */
function LayersSide({ edit, job }: { edit: StackEdit; job: Job }) {
  const { stacks, stack, look, angles, target, limitText, setLimitText, errors, setLayers, system } = edit;
  const units = useUnits();
  return (
    <>
      <Typography variant="h2">{stacks.length > 1 ? `The finished ${stack.name}` : 'The finished stack'}</Typography>
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
      <KeepStacks edit={edit} job={job} />
    </>
  );
}

/** Keeps the stacks, or lets them follow from the pick again. */
function KeepStacks({ edit: { change, errors, keep, changed, dispatch }, job }: { edit: StackEdit; job: Job }) {
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
