import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import AddIcon from '@mui/icons-material/Add';
import CallSplitIcon from '@mui/icons-material/CallSplit';
import ContentCopyIcon from '@mui/icons-material/ContentCopy';
import DeleteOutlinedIcon from '@mui/icons-material/DeleteOutlined';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import RemoveIcon from '@mui/icons-material/Remove';
import { Box, IconButton, Typography, useTheme } from '@mui/material';
import { Input } from '../../ui/Input';
import type { Lab } from '@steady-gleam/core/colour';
import { LAYER_NAMES, layerFilmUm, STYLES, type StackLayer } from '@steady-gleam/core/finishes';
import type { Library, EffectMix, GroundMaterial } from '@steady-gleam/core/materials';
import { useState, type ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import { sayCoats } from '../../shared/jobModel';
import { useMeasureText, useUnits } from '../../shared/units';
import { cssOf } from '../../shared/screenColour';
import { numberIn } from '../../shared/numberIn';

interface LayerRowProps {
  readonly layer: StackLayer;
  readonly look: Lab | null;
  readonly library: Library;
  readonly selected: boolean;
  readonly error: string | undefined;
  readonly onChange: (change: Partial<StackLayer>) => void;
  readonly onDuplicate: () => void;
  readonly onSplit: () => void;
  readonly onRemove: () => void;
}

/** One layer of a stack: dragged by its handle, changed in place. */
export function LayerRow(props: LayerRowProps) {
  const { layer, look, library, selected, error, onChange, onDuplicate, onSplit, onRemove } = props;
  const { tones } = useTheme();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: layer.id });
  // What was typed stays, also while it is no film; the layer keeps its last good one.
  const [film, setFilm] = useState(String(layer.filmUm));
  const typed = numberIn(film);
  const filmWrong = !(typed >= 1 && typed <= 500);
  const units = useUnits();
  const filmText = useMeasureText('film', film, (metric) => {
    setFilm(metric);
    const um = numberIn(metric);
    if (um >= 1 && um <= 500) onChange({ filmUm: um });
  });
  // An undo, or another choice, changes the layer from outside: then its figure takes the place of the text.
  const [shownUm, setShownUm] = useState(layer.filmUm);
  if (shownUm !== layer.filmUm) {
    setShownUm(layer.filmUm);
    if (typed !== layer.filmUm) setFilm(String(layer.filmUm));
  }
  const name = layer.style === 'control' ? `${LAYER_NAMES[layer.kind]}, control` : LAYER_NAMES[layer.kind];
  const shaded = layer.kind === 'sealer';
  const materials = {
    ground: library.grounds,
    effect: library.systems,
    // A sealer is mixed to the shade of a solid ground.
    sealer: library.grounds.filter((g) => !g.flakes),
    ...{ primer: null, lock: null, clear: null },
  }[layer.kind];
  const button = (label: string, onClick: () => void, icon: ReactNode, disabled = false) => (
    <IconButton aria-label={`${label}: ${name}`} title={label} onClick={onClick} disabled={disabled} sx={SQUARE}>
      {icon}
    </IconButton>
  );
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      sx={{
        display: 'flex',
        flexWrap: { xs: 'wrap', lg: 'nowrap' },
        alignItems: 'center',
        gap: 0.75,
        minHeight: 56,
        borderBottom: `1px solid ${tones.hairline}`,
        background: isDragging ? tones.raised : selected ? tones.panel : 'none',
        position: 'relative',
        zIndex: isDragging ? 2 : 0,
      }}
    >
      <IconButton
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        sx={{ ...SQUARE, cursor: 'grab', touchAction: 'none' }}
      >
        <DragIndicatorIcon />
      </IconButton>
      <LayerLook look={look} />
      <LayerMaterial
        name={name}
        materials={materials}
        layer={layer}
        library={library}
        onChange={onChange}
        shaded={shaded}
        error={error}
        filmWrong={filmWrong}
      />
      <Box role="group" aria-label={`Coats of ${name}`} sx={{ display: 'flex', alignItems: 'center', flex: 'none' }}>
        {button('Half a coat less', () => onChange({ coats: layer.coats - 0.5 }), <RemoveIcon />, layer.coats <= 0.5)}
        <Box component="span" sx={{ fontFamily: FIGURES, width: 30, textAlign: 'center' }}>
          {sayCoats(layer.coats)}
        </Box>
        {button('Half a coat more', () => onChange({ coats: layer.coats + 0.5 }), <AddIcon />, layer.coats >= 20)}
      </Box>
      <Input
        select
        value={layer.style}
        onChange={(e) => onChange({ style: e.target.value as StackLayer['style'] })}
        aria-label={`Style of ${name}`}
        style={{ fontSize: 15, width: 104, flex: 'none' }}
      >
        {Object.values(STYLES).map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </Input>
      <Input
        value={filmText.text}
        onChange={(e) => filmText.onText(e.target.value)}
        aria-label={`Film of a full coat of ${name}, ${units.name('film')}`}
        aria-invalid={filmWrong}
        inputMode="decimal"
        style={{ width: 66, flex: 'none', fontFamily: FIGURES, paddingInline: 8 }}
      />
      <Box
        component="span"
        sx={{ fontFamily: FIGURES, minWidth: 62, textAlign: 'right', flex: 'none', whiteSpace: 'nowrap' }}
      >
        {units.say('film', layerFilmUm(layer))}
      </Box>
      <Box sx={{ display: 'flex', flex: 'none', ml: 'auto' }}>
        {button('Duplicate', onDuplicate, <ContentCopyIcon fontSize="small" />)}
        {button('Split in two', onSplit, <CallSplitIcon fontSize="small" />, layer.coats < 1)}
        {button('Take out', onRemove, <DeleteOutlinedIcon fontSize="small" />)}
      </Box>
    </Box>
  );
}

const SQUARE = { width: 44, height: 44, borderRadius: '2px', color: 'text.primary', flex: 'none' } as const;

interface LayerMaterialProps {
  readonly name: string;
  readonly materials: readonly (EffectMix | GroundMaterial)[] | null;
  readonly layer: LayerRowProps['layer'];
  readonly library: LayerRowProps['library'];
  readonly onChange: LayerRowProps['onChange'];
  readonly shaded: boolean;
  readonly error: LayerRowProps['error'];
  readonly filmWrong: boolean;
}

/** What a layer is of. */
function LayerMaterial({ name, materials, layer, library, onChange, shaded, error, filmWrong }: LayerMaterialProps) {
  const units = useUnits();
  return (
    <Box sx={{ flex: 1, minWidth: 150, pl: 0.75 }}>
      <Typography variant="h3" component="div">
        {name}
      </Typography>
      {materials ? (
        <Input
          select
          value={layer.materialId ?? ''}
          onChange={(e) => {
            // Another mix lays another film: the old one's figure does not stay with it.
            const mix = layer.kind === 'effect' && library.systems.find((s) => s.id === e.target.value);
            onChange({ materialId: e.target.value || null, ...(mix ? { filmUm: mix.filmUm } : {}) });
          }}
          aria-label={`Material of ${name}`}
          style={{ fontSize: 15, width: 'auto', maxWidth: '100%', minHeight: 32, paddingBlock: 3 }}
        >
          {shaded ? (
            <option value="">its own grey</option>
          ) : layer.materialId ? null : (
            <option value="">choose …</option>
          )}
          {materials.map((m) => (
            <option key={m.id} value={m.id}>
              {shaded ? `shade of ${m.name.toLowerCase()}` : m.name}
            </option>
          ))}
        </Input>
      ) : null}
      {error || filmWrong ? (
        <Typography variant="body2" role="alert" sx={{ color: 'error.main' }}>
          {filmWrong ? units.sentence('A film between 1 µm and 500 µm.') : error}
        </Typography>
      ) : null}
    </Box>
  );
}

interface LayerLookProps {
  readonly look: LayerRowProps['look'];
}

/** How the layer looks. */
function LayerLook({ look }: LayerLookProps) {
  return (
    <Box
      aria-hidden
      sx={{
        width: 40,
        alignSelf: 'stretch',
        minHeight: 56,
        flex: 'none',
        background: look ? cssOf(look) : '#cfcfcf',
      }}
    />
  );
}
