import { Box, useTheme } from '@mui/material';
import { useLibrary } from '../../shared/library';
import { LayerRow } from './LayerRow';
import { newId } from '../../shared/newId';
import type { StackEdit } from './useStackEdit';

/** The layers of a stack, first sprayed on top. */
export function LayerRows({ edit }: { edit: StackEdit }) {
  const { stack, looks, selected, errorOf, setLayers, insertAfter } = edit;
  const { tones } = useTheme();
  const { library } = useLibrary();
  return (
    <Box
      component="ol"
      aria-label="Layers, first sprayed on top"
      sx={{ listStyle: 'none', p: 0, m: '2px 0 0', borderTop: `1px solid ${tones.hairline}` }}
    >
      {stack.layers.map((layer, i) => (
        <LayerRow
          key={layer.id}
          layer={layer}
          look={layer.kind === 'ground' || layer.kind === 'effect' ? (looks?.[i] ?? null) : null}
          library={library}
          selected={layer.id === selected}
          error={errorOf(i)}
          onChange={(c) => setLayers(stack.layers.map((l) => (l.id === layer.id ? { ...l, ...c } : l)))}
          onDuplicate={() => insertAfter(i, { ...layer, id: newId() })}
          onSplit={() => {
            const lower = Math.round(layer.coats) / 2;
            setLayers(
              stack.layers.flatMap((l) =>
                l.id === layer.id
                  ? [
                      { ...l, coats: lower },
                      { ...l, id: newId(), coats: l.coats - lower },
                    ]
                  : [l],
              ),
            );
          }}
          onRemove={() => setLayers(stack.layers.filter((l) => l.id !== layer.id))}
        />
      ))}
    </Box>
  );
}
