import { Box, Button, styled, Typography, useTheme } from '@mui/material';
import type { FinishSummary } from '@steady-gleam/contracts';
import type { AngleLab, NearestFinish } from '@steady-gleam/core/bank';
import type { Library } from '@steady-gleam/core/materials';
import { memo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { useLibrary } from '../../shared/library';
import { LongList } from '../../shared/LongList';
import { Notice } from '../../shared/Notice';
import { TouchingStrip } from '../../shared/TouchingStrip';
import { useFinishPages, useFinishRows, useNearest } from '../../shared/useFinishes';
import { useRested } from '../../shared/useRested';
import { AskReading } from './AskReading';
import { BankControls } from './BankControls';
import { askedAt, queryOf, sayKnown, sayMade, sayNear, sayRung } from './bankModel';
import { FinishAside } from './FinishAside';
import { OpenFile } from './OpenFile';

/** px; a row of the list and of the nearest alike. */
const ROW = 84;

/** Every finish of the shop, found by words, by what an object reads, or by a look; with what can be done with the one picked. */
export function BankPage() {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const [params, setParams] = useSearchParams();
  const { by, ...query } = queryOf(params);
  const pages = useFinishPages({ ...query, words: useRested(query.words, 150) });
  const [asked, setAsked] = useState<readonly AngleLab[] | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const near = useNearest(by === 'words' ? null : asked);
  const found = by === 'words' || !asked ? null : near.value;
  const shownId = picked ?? found?.[0]?.finishId ?? (by === 'words' ? (pages.row(0)?.id ?? null) : null);
  const change = (next: Record<string, string>) => {
    const to = new URLSearchParams(params);
    for (const [k, v] of Object.entries(next)) {
      if (v) to.set(k, v);
      else to.delete(k);
    }
    setParams(to, { replace: true });
    setPicked(null);
    // A look is not looked for with what was read.
    if ('by' in next) setAsked(null);
  };
  const rows = useFinishRows(found?.map((f) => f.finishId) ?? []);
  if (!pages.first && !pages.error) return <Notice title="Opening the bank …" />;
  if (!pages.first)
    return (
      <Notice title="The bank could not be opened." text={pages.error?.message}>
        <Button variant="contained" onClick={pages.refetch}>
          Try again
        </Button>
      </Notice>
    );
  const { total } = pages;
  const isSearch = query.words !== '' || query.family !== null || query.proven;
  const name = found?.[0] && rows.get(found[0].finishId)?.name;
  const lead = found
    ? found[0] && name
      ? sayNear(found[0], name, asked!.length)
      : near.stale || (found.length && !name)
        ? 'Looking through the bank …'
        : 'Nothing in the bank was read at these angles.'
    : by === 'reading'
      ? 'What does the object read?'
      : total === 0
        ? isSearch
          ? 'Nothing in the bank answers to that.'
          : 'The bank is empty. A new job puts its finish here.'
        : total === 1
          ? `One finish${isSearch ? ' answers to that' : ''}.`
          : `${total} finishes${isSearch ? ' answer to that' : ''}.`;
  return (
    <Box sx={{ display: 'flex', minHeight: '100vh' }}>
      <Box sx={{ flex: 1, minWidth: 0, p: '18px 22px 28px' }}>
        <Answer
          why={
            found
              ? `${near.readings} readings looked through. What you look for lies under every strip, touching it.`
              : 'A finish stays here with its target and its cards when its jobs are done and gone.'
          }
        >
          {lead}
        </Answer>
        <BankControls query={{ ...query, by }} onChange={change} />
        {by === 'words' ? null : <AskReading key={by} by={by} asked={asked} onAsk={setAsked} />}
        {near.error ? (
          <Typography role="alert" sx={{ color: 'error.main', my: 1 }}>
            {near.error}
          </Typography>
        ) : null}
        {found ? (
          <Box component="ol" aria-label="Nearest" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {found.map((f) => (
              <NearRow
                key={f.finishId}
                near={f}
                finish={rows.get(f.finishId) ?? null}
                asked={asked!}
                isPicked={f.finishId === shownId}
                onPick={setPicked}
              />
            ))}
          </Box>
        ) : by === 'words' ? (
          <LongList
            label="Finishes"
            total={total}
            height={ROW}
            keyOf={(at) => pages.row(at)?.id ?? at}
            onLook={pages.look}
            draw={(at) => {
              const finish = pages.row(at);
              return finish ? (
                <FinishRow finish={finish} library={library} isPicked={finish.id === shownId} onPick={setPicked} />
              ) : (
                <Box sx={{ borderTop: `1px solid ${tones.hairline}`, height: ROW }} aria-hidden />
              );
            }}
          />
        ) : null}
        <OpenFile />
      </Box>
      {shownId ? (
        <FinishAside
          key={shownId}
          id={shownId}
          near={found?.find((f) => f.finishId === shownId) ?? null}
          asked={found ? asked : null}
        />
      ) : null}
    </Box>
  );
}

const RowButton = styled('button')(({ theme }) => ({
  all: 'unset',
  boxSizing: 'border-box',
  width: '100%',
  height: ROW,
  cursor: 'pointer',
  display: 'grid',
  gridTemplateColumns: '150px minmax(140px, 1fr) 118px',
  [theme.breakpoints.up('lg')]: { gridTemplateColumns: '170px minmax(140px, 1fr) minmax(140px, 1fr) 132px' },
  gap: 16,
  alignItems: 'center',
  borderTop: `1px solid ${theme.tones.hairline}`,
  fontSize: 14,
  lineHeight: 1.35,
  '&[aria-pressed=true]': { boxShadow: `inset 0 0 0 3px ${theme.tones.pick}` },
  '&:hover': { background: theme.tones.panel },
  '&:focus-visible': { outline: `3px solid ${theme.tones.ink}`, outlineOffset: -3 },
  '& > .names': { minWidth: 0 },
  '& > .names > *': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .name': theme.typography.h3,
  '& .soft': { color: theme.palette.text.secondary },
  '& > .made': {
    display: 'none',
    [theme.breakpoints.up('lg')]: { display: 'block', maxHeight: 58, overflow: 'hidden' },
  },
  '& > .figures': { textAlign: 'right', paddingRight: 8 },
}));

/** What stands in a row of either list: a strip, names, what makes it, a figure; picking it opens it beside the list. */
function Row({
  strip,
  name,
  sub,
  made,
  figures,
  isPicked,
  onPick,
}: {
  strip: ReactNode;
  name: string;
  sub: string;
  made: string;
  figures: ReactNode;
  isPicked: boolean;
  onPick: () => void;
}) {
  return (
    <RowButton type="button" aria-pressed={isPicked} onClick={onPick}>
      {strip}
      <div className="names">
        <div className="name" title={name}>
          {name}
        </div>
        <div className="soft" title={sub}>
          {sub}
        </div>
      </div>
      <div className="made">{made}</div>
      <div className="figures">{figures}</div>
    </RowButton>
  );
}

/** Codes, gun and where it was used, in a line. */
const sayWhere = (f: FinishSummary): string =>
  [f.codes.join(', '), f.gun, f.jobs.length === 1 ? 'one job' : f.jobs.length ? `${f.jobs.length} jobs` : '']
    .filter(Boolean)
    .join(' · ') || (f.invented ? 'demo' : 'no code yet');

const FinishRow = memo(function FinishRow({
  finish,
  library,
  isPicked,
  onPick,
}: {
  finish: FinishSummary;
  library: Library;
  isPicked: boolean;
  onPick: (id: string) => void;
}) {
  return (
    <Row
      strip={
        finish.photoId ? (
          <Thumb id={finish.photoId} />
        ) : finish.strip.length ? (
          <TouchingStrip over={finish.strip.map((g) => g.lab)} height={60} label="Target, face to flop" />
        ) : (
          <Typography variant="body2" sx={{ color: 'text.secondary', pl: 1 }}>
            not read
          </Typography>
        )
      }
      name={finish.name}
      sub={sayWhere(finish)}
      made={sayMade(finish, library)}
      figures={sayKnown(finish)}
      isPicked={isPicked}
      onPick={() => onPick(finish.id)}
    />
  );
});

function Thumb({ id }: { id: string }) {
  return (
    <Box
      component="img"
      src={`/api/photos/${id}`}
      alt="Card or target, photographed"
      loading="lazy"
      sx={{ width: '100%', height: 60, objectFit: 'cover', display: 'block' }}
    />
  );
}

function NearRow({
  near,
  finish,
  asked,
  isPicked,
  onPick,
}: {
  near: NearestFinish;
  finish: FinishSummary | null;
  asked: readonly AngleLab[];
  isPicked: boolean;
  onPick: (id: string) => void;
}) {
  const { library } = useLibrary();
  return (
    <li>
      <Row
        strip={
          <TouchingStrip
            over={near.angles.map((g) => g.lab)}
            under={askedAt(asked, near.angles)}
            height={60}
            label="Proven over what you look for, face to flop"
          />
        }
        name={finish?.name ?? ''}
        sub={finish ? sayWhere(finish) : ''}
        made={finish ? sayMade(finish, library) : ''}
        figures={
          <Box sx={{ fontFamily: FIGURES, lineHeight: 1.3 }}>
            <div>{near.coats === null ? 'target' : `rung ${sayRung(near.coats)}`}</div>
            <Box sx={{ fontSize: 14, whiteSpace: 'nowrap' }}>dE00 max {near.max.toFixed(1)}</Box>
            <Box sx={{ fontSize: 14, color: 'text.secondary' }}>mean {near.mean.toFixed(1)}</Box>
          </Box>
        }
        isPicked={isPicked}
        onPick={() => onPick(near.finishId)}
      />
    </li>
  );
}
