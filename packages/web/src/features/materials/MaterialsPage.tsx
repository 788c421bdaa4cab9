import { type ReactNode, useState, type Dispatch, type SetStateAction } from 'react';
import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import {
  findMix,
  type EffectMix,
  type GroundMaterial,
  type EffectPigment,
  type Dye,
  type Carrier,
} from '@steady-gleam/core/materials';
import { type SetURLSearchParams, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useLibrary } from '../../shared/library';
import { useUnits } from '../../shared/units';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useGroundColours } from '../../shared/useGroundColours';
import { useCompute } from '../../worker/useCompute';
import type { FormValues } from './formField';
import { copyOf, EMPTY, toValues, type MaterialKind } from './materialForms';
import { MaterialForm } from './MaterialForm';
import { newId } from '../../shared/newId';
import type { StoredMaterial } from '@steady-gleam/contracts';

const KINDS: readonly { kind: MaterialKind; name: string; one: string }[] = [
  { kind: 'ground', name: 'Grounds', one: 'a ground' },
  { kind: 'pigment', name: 'Effect pigments', one: 'an effect pigment' },
  { kind: 'dye', name: 'Dyes', one: 'a dye' },
  { kind: 'carrier', name: 'Carriers', one: 'a carrier' },
  { kind: 'system', name: 'Mixes', one: 'a mix' },
];

/** Colours side by side without a gap. */
function Swatches({ labs, height = 40 }: { labs: readonly Lab[]; height?: number }) {
  const exposures = exposuresByAngle([labs]);
  return (
    <Box sx={{ display: 'flex', height }} aria-hidden>
      {labs.map((lab, i) => (
        <Box key={i} sx={{ flex: 1, background: cssOf(lab, exposures[i]) }} />
      ))}
    </Box>
  );
}

function PigmentSwatch({ id, version }: { id: string; version: number }) {
  const { value } = useCompute(`pigment/${id}/${version}`, (c) => c.pigmentLook(id, 0.5));
  return value ? (
    <Box>
      <Swatches labs={value.white} height={20} />
      <Swatches labs={value.black} height={20} />
    </Box>
  ) : (
    <Box sx={{ height: 40 }} />
  );
}

function DyeSwatch({ id, version }: { id: string; version: number }) {
  const { value } = useCompute(`dye/${id}/${version}`, (c) => c.dyeLook(id));
  return value ? <Swatches labs={value} /> : <Box sx={{ height: 40 }} />;
}

/** How much of what is sprayed stays: the solid part, filled. */
function CarrierSwatch({ solids }: { solids: number }) {
  const { tones } = useTheme();
  return (
    <Box
      sx={{ height: 40, border: `1px solid ${tones.hairline}`, display: 'flex', alignItems: 'flex-end' }}
      aria-hidden
    >
      <Box sx={{ width: '100%', height: `${solids * 100}%`, background: tones.hairline }} />
    </Box>
  );
}

function MixSwatch({ id, version }: { id: string; version: number }) {
  const mix = { mixId: id, strength: 1, style: 'wet' as const, controlCoats: 0 };
  const { library } = useLibrary();
  const ground = FAMILIES[findMix(id, library.systems).family].start.groundId;
  const { value } = useCompute(`mix/${id}/${version}`, (c) =>
    Promise.all([1, 2, 3, 4].map((n) => c.sectionColours(mix, ground, n))),
  );
  return value ? <Swatches labs={value.map((v) => v.effect)} /> : <Box sx={{ height: 40 }} />;
}

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
    return <MixSwatch id={id} version={version} />;
  };
  const about = (id: string): string => {
    if (kind === 'ground') {
      const g = library.grounds.find((m) => m.id === id)!;
      return g.flakes
        ? `metallic, ${Math.round(g.flakes.cover * 100)} % cover`
        : `L* ${g.lab[0].toFixed(0)}  a* ${g.lab[1].toFixed(0)}  b* ${g.lab[2].toFixed(0)}, hides in ${Number(g.hidesIn.toFixed(1))} coats`;
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

interface MaterialEntryProps {
  readonly entry: EffectMix | GroundMaterial | EffectPigment | Dye | Carrier;
  readonly swatch: (id: string) => ReactNode;
  readonly about: (id: string) => string;
  readonly stored: StoredMaterial | null;
  readonly begin: (start: FormValues, ownId: string | null) => void;
  readonly copy: FormValues | null;
}

/** A material: its look, what it is, the way to change it. */
function MaterialEntry({ entry, swatch, about, stored, begin, copy }: MaterialEntryProps) {
  const { tones } = useTheme();
  return (
    <Box
      component="li"

      sx={{
        display: 'grid',
        gridTemplateColumns: '96px 1fr 78px',
        gap: 1.5,
        alignItems: 'center',
        py: 0.75,
        borderBottom: `1px solid ${tones.hairline}`,
      }}
    >
      {swatch(entry.id)}
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h3" component="div">
          {entry.name}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {about(entry.id)}
        </Typography>
      </Box>
      {stored ? (
        <Button
          variant="outlined"
          aria-label={`Change ${entry.name}`}
          sx={{ px: 1 }}
          onClick={() => begin(toValues(stored.material), entry.id)}
        >
          Change
        </Button>
      ) : copy ? (
        <Button variant="outlined" aria-label={`Copy ${entry.name}`} sx={{ px: 1 }} onClick={() => begin(copy, null)}>
          Copy
        </Button>
      ) : (
        <span />
      )}
    </Box>
  );
}

interface MaterialListProps {
  readonly name: string;
  readonly entries:
    readonly EffectMix[] | readonly GroundMaterial[] | readonly EffectPigment[] | readonly Dye[] | readonly Carrier[];
  readonly storedOf: (id: string) => StoredMaterial | null;
  readonly kind: 'ground' | 'system' | 'pigment' | 'dye' | 'carrier';
  readonly swatch: (id: string) => ReactNode;
  readonly about: (id: string) => string;
  readonly begin: (start: FormValues, ownId: string | null) => void;
}

/** Materials of a kind, the shop's own first. */
function MaterialList({ name, entries, storedOf, kind, swatch, about, begin }: MaterialListProps) {
  const { library } = useLibrary();
  return (
    <Box
      component="ul"
      aria-label={name}
      sx={{
        listStyle: 'none',
        p: 0,
        mt: 1.5,
        mb: 0,
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(375px, 1fr))',
        columnGap: 3,
      }}
    >
      {[...entries]
        .sort((a, b) => Number(!!storedOf(b.id)) - Number(!!storedOf(a.id)))
        .map((entry) => {
          const stored = storedOf(entry.id);
          const copy = copyOf(kind, entry.id, library);
          return (
            <MaterialEntry
              key={entry.id}
              entry={entry}
              swatch={swatch}
              about={about}
              stored={stored}
              begin={begin}
              copy={copy}
            />
          );
        })}
    </Box>
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
