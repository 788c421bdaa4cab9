import { useState, type Dispatch, type SetStateAction } from 'react';
import { Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { type SetURLSearchParams, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useLibrary } from '../../shared/library';
import { useUnits } from '../../shared/units';
import { useGroundColours } from '../../shared/useGroundColours';
import type { FormValues } from './formField';
import { EMPTY, type MaterialKind } from './materialForms';
import { MaterialForm } from './MaterialForm';
import { newId } from '../../shared/newId';
import { MixStrip, Swatches } from '../../shared/MixStrip';
import { PigmentSwatch, DyeSwatch, CarrierSwatch } from './MaterialSwatches';
import { MaterialList } from './MaterialList';
import { sayLab } from '../../shared/sayLab';

const KINDS: readonly { kind: MaterialKind; name: string; one: string }[] = [
  { kind: 'ground', name: 'Grounds', one: 'a ground' },
  { kind: 'pigment', name: 'Effect pigments', one: 'an effect pigment' },
  { kind: 'dye', name: 'Dyes', one: 'a dye' },
  { kind: 'carrier', name: 'Carriers', one: 'a carrier' },
  { kind: 'system', name: 'Mixes', one: 'a mix' },
];

interface Editing {
  readonly key: string;
  readonly kind: MaterialKind;
  readonly start: FormValues;
  readonly ownId: string | null;
}

/** The materials of the shop: the reference library, and what the painter adds from thickness, from drawdowns or by copying. */
export function MaterialsPage() {
  const units = useUnits();
  const { library, own } = useLibrary();
  const [params, setParams] = useSearchParams();
  const kind = KINDS.find((k) => k.kind === params.get('kind'))?.kind ?? 'ground';
  const [editing, setEditing] = useState<Editing | null>(null);
  const { one, name } = KINDS.find((k) => k.kind === kind)!;
  const entries = {
    ground: library.grounds,
    pigment: library.pigments,
    dye: library.dyes,
    carrier: library.carriers,
    system: library.systems,
  }[kind];
  const storedOf = (id: string) => own.find((m) => m.material.id === id) ?? null;
  const begin = (start: FormValues, ownId: string | null) => setEditing({ key: newId(), kind, start, ownId });
  const legend = {
    ground: 'Swatch: cleared, at 45°.',
    pigment: 'Swatch: half cover from face to flop, over white above, over black below.',
    dye: 'Swatch: ½, 1, 2, 3 and 4 coats over white.',
    carrier: 'Figures are common practice; the product’s sheet rules.',
    system: 'Swatch: 1 to 4 coats at 45° over the ground its family begins with.',
  }[kind];

  const groundColour = useGroundColours();
  const swatch = (id: string) => {
    const version = storedOf(id)?.version ?? 0;
    if (kind === 'ground') return <Swatches labs={[groundColour(id)]} />;
    if (kind === 'pigment') return <PigmentSwatch id={id} version={version} />;
    if (kind === 'carrier') return <CarrierSwatch solids={library.carriers.find((c) => c.id === id)!.volumeSolids} />;
    if (kind === 'dye') return <DyeSwatch id={id} version={version} />;
    return <MixStrip id={id} version={version} />;
  };
  const about = (id: string): string => {
    if (kind === 'ground') {
      const g = library.grounds.find((m) => m.id === id)!;
      return g.flakes
        ? `metallic, ${Math.round(g.flakes.cover * 100)} % cover`
        : `${sayLab(g.lab)}; hides in ${Number(g.hidesIn.toFixed(1))} coats`;
    }
    if (kind === 'pigment') {
      const p = library.pigments.find((m) => m.id === id)!;
      return `${p.kind.replace('-', ' ')}, ${p.sizeUm} µm, tilt ${p.tilt}°`;
    }
    if (kind === 'carrier') {
      const c = library.carriers.find((m) => m.id === id)!;
      return `${c.chemistry}, ${Math.round(c.volumeSolids * 100)} % solids, ${units.say('film', c.filmUm)} a coat`;
    }
    if (kind === 'dye') return library.dyes.find((d) => d.id === id)!.note;
    const s = library.systems.find((m) => m.id === id)!;
    return `${FAMILIES[s.family].name.toLowerCase()}, ${units.say('film', s.filmUm)} a coat`;
  };

  return (
    <Bench
      standalone
      side={
        editing ? (
          <>
            <Typography variant="h2">
              {editing.ownId ? 'Change' : 'Add'} {KINDS.find((k) => k.kind === editing.kind)!.one}
            </Typography>
            <MaterialForm
              key={editing.key}
              kind={editing.kind}
              start={editing.start}
              stored={editing.ownId ? storedOf(editing.ownId) : null}
              onDone={() => setEditing(null)}
            />
          </>
        ) : (
          <>
            <Typography variant="h2">Add your own</Typography>
            <Typography>
              {
                {
                  ground: 'Read a cleared drawdown: lamp at 45°, seen from the normal.',
                  pigment: 'Give the thickness of the flake’s film, or copy the nearest and change it.',
                  dye: 'Read a drawdown bare, and again with the dyed clear over it.',
                  carrier: 'Take solids, film and density ready to spray from the product’s sheet.',
                  system: 'A mix is a pigment, a dye or both in a carrier. Jobs are sprayed with mixes.',
                }[kind]
              }
            </Typography>
            <Button variant="contained" sx={{ minHeight: 52 }} onClick={() => begin(EMPTY[kind], null)}>
              Add {one}
            </Button>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {legend} Names, dye spectra and prices of the reference library are invented; optical constants are
              literature values from memory. A screen is not a proof.
            </Typography>
          </>
        )
      }
    >
      <Answer why="Each is ready for the match map. What you add stands beside the reference library and can be changed; the library itself can be copied.">
        {entries.length} {name.toLowerCase()}, {entries.filter((e) => storedOf(e.id)).length || 'none'} of your own.
      </Answer>
      <KindChoice kind={kind} setParams={setParams} setEditing={setEditing} />
      <MaterialList
        name={name}
        entries={entries}
        storedOf={storedOf}
        kind={kind}
        swatch={swatch}
        about={about}
        begin={begin}
      />
    </Bench>
  );
}

interface KindChoiceProps {
  readonly kind: 'ground' | 'pigment' | 'dye' | 'carrier' | 'system';
  readonly setParams: SetURLSearchParams;
  readonly setEditing: Dispatch<SetStateAction<Editing | null>>;
}

/** Which kind of materials is shown. */
function KindChoice({ kind, setParams, setEditing }: KindChoiceProps) {
  return (
    <ToggleButtonGroup
      exclusive
      value={kind}
      aria-label="Kind of material"
      onChange={(_, v: MaterialKind | null) => {
        if (!v) return;
        setParams({ kind: v }, { replace: true });
        setEditing(null);
      }}
    >
      {KINDS.map((k) => (
        <ToggleButton key={k.kind} value={k.kind}>
          {k.name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
