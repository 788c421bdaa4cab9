import { fileName } from '@steady-gleam/core/formats';
import { Box, Button } from '@mui/material';
import { downloadPng } from '../../shared/download';
import { useUnits } from '../../shared/units';
import { filmImage } from '../../shared/film/filmImage';
import { computeRemote } from '../../worker/useCompute';
import { newId } from '../../shared/newId';
import { START_PLAN, type Job } from '@steady-gleam/contracts';
import type { StackEdit } from './useStackEdit';

/** What can be put into the stack, and the picture of it. */
export function StackActions({ edit, job }: { edit: StackEdit; job: Job }) {
  const { state, dispatch, stacks, stack, setStacks, setAt } = edit;
  const units = useUnits();
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1, alignItems: 'center' }}>
      <Button variant="text" color="inherit" disabled={!state.past.length} onClick={() => dispatch({ do: 'undo' })}>
        Undo
      </Button>
      <Button variant="text" color="inherit" disabled={!state.future.length} onClick={() => dispatch({ do: 'redo' })}>
        Redo
      </Button>
      <Button
        variant="text"
        color="inherit"
        disabled={stacks.length >= 4}
        onClick={() => {
          const layers = stack.layers.map((l) => ({ ...l, id: newId() }));
          const named = stacks.length === 1 ? stacks.map((s) => ({ ...s, name: 'first tone' })) : stacks;
          setStacks([
            ...named,
            { id: newId(), name: ['first', 'second', 'third', 'fourth'][stacks.length]! + ' tone', layers },
          ]);
          setAt(stacks.length);
        }}
      >
        Add a tone
      </Button>
      <Button
        variant="text"
        color="inherit"
        onClick={() => {
          void Promise.all(stacks.map((s) => computeRemote().layerColours(s.layers))).then((colours) =>
            downloadPng(
              filmImage(stacks, colours, job.piece, units, job.plan ?? START_PLAN),
              fileName(job.piece, 'film section'),
            ),
          );
        }}
      >
        Picture
      </Button>
      {stacks.length > 1 ? (
        <Button
          variant="text"
          color="inherit"
          onClick={() => {
            setStacks(stacks.filter((s) => s.id !== stack.id));
            setAt(0);
          }}
        >
          Take out the {stack.name}
        </Button>
      ) : null}
    </Box>
  );
}
