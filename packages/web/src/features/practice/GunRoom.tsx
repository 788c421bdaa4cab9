import { Box, Button, Typography } from '@mui/material';
import {
  armRows,
  LESSONS,
  lessonOf,
  ownWay,
  samplesEvery,
  samplesOf,
  type GunSample,
  type Lesson,
  type LessonId,
  type PracticeGun,
} from '@steady-gleam/core/practice';
import { useMemo, useState, type Dispatch, type SetStateAction } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { useLibrary } from '../../shared/library';
import { useGuns } from '../../shared/useShop';
import { useCompute } from '../../worker/useCompute';
import { ArmFields } from './ArmFields';
import { CoatSide } from './CoatSide';
import { GunStageView } from './GunStageView';
import type { Moves } from './gunPosition';
import { filmColours } from './panelPaint';
import { PanelThumb } from './PanelThumb';
import {
  MOST_COATS,
  MOST_FILM,
  practiceGun,
  practiceGuns,
  sayCoatSoFar,
  stacksOf,
  type PracticeStack,
} from './practiceModel';
import { Toggles } from '../../shared/Toggles';
import { VIEWS, type View } from './views';
import { useCoats } from './useCoats';
import { useGun } from './useGun';

const MOVED_BY: readonly (readonly [Moves, string])[] = [
  ['hand', 'hand'],
  ['steadied', 'steadied'],
  ['keys', 'keys'],
  ['arm', 'arm'],
];
const HOW: Readonly<Record<Moves, string>> = {
  hand: 'Your pointer is the gun; the wheel or a second finger is the distance.',
  steadied: 'The gun follows your pointer softly, and no faster than it should.',
  keys: 'With the panel picked, arrows move the gun, space is the trigger, + and − the distance.',
  arm: 'An arm lays the coat as it is set below.',
};

/** For those who wish for less motion what is shown stands there at once. */
const AT_ONCE = 1e4;
const isMotionReduced = () => matchMedia('(prefers-reduced-motion: reduce)').matches;

/** The pointer as the gun: a coat is laid, looked at, and laid again. */
export function GunRoom() {
  const { library } = useLibrary();
  const { data } = useGuns();
  const guns = practiceGuns(data?.map((g) => g.gun));
  const stacks = stacksOf(library);
  const [lessonId, setLesson] = useState<LessonId>('overlap');
  const [gunId, setGun] = useState<string | null>(null);
  const [stackId, setStack] = useState<string | null>(null);
  const own = guns.find((g) => g.id === gunId) ?? guns[0]!;
  const stack = stacks.find((s) => s.mixId === stackId) ?? stacks[0]!;
  // Sent anew by the server it is still the same gun.
  const key = JSON.stringify(own);
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const gun = useMemo(() => practiceGun(own), [key]);
  return (
    <GunLesson
      key={`${lessonId}/${key}/${stack.mixId}`}
      lesson={lessonOf(lessonId)}
      {...{ gun, stack }}
      choices={
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr', gap: 1.5 }}>
          <Field label="Finish" select value={stack.mixId} onChange={(e) => setStack(e.target.value)}>
            {stacks.map((s) => (
              <option key={s.mixId} value={s.mixId}>
                {s.name}
              </option>
            ))}
          </Field>
          <Field label="Gun" select value={own.id} onChange={(e) => setGun(e.target.value)}>
            {guns.map((g) => (
              <option key={g.id} value={g.id}>
                {g.name}
              </option>
            ))}
          </Field>
        </Box>
      }
      lessons={
        <Toggles
          label="Lesson"
          value={lessonId}
          choices={LESSONS.map((l) => [l.id, l.name] as const)}
          onPick={setLesson}
        />
      }
    />
  );
}

function GunLesson({
  lesson,
  gun,
  stack,
  choices,
  lessons,
}: {
  lesson: Lesson;
  gun: PracticeGun;
  stack: PracticeStack;
  choices: React.ReactNode;
  lessons: React.ReactNode;
}) {
  const [view, setView] = useState<View>('0');
  const [moves, setMoves] = useState<Moves>('hand');
  const [hasGhost, setHasGhost] = useState(false);
  const coats = useCoats(lesson, gun);
  const { value: look, error } = useCompute(JSON.stringify(['practice', stack, MOST_FILM]), (c) =>
    c.practiceLook(stack.mixId, stack.groundId, MOST_FILM),
  );
  const colours = useMemo(() => look && filmColours(look, Number(view), MOST_FILM), [look, view]);
  const {
    box,
    canvas,
    mark,
    ghost,
    handlers,
    run,
    play: playSamples,
    wipe,
  } = useGun({
    ...{ lesson, gun, colours, moves },
    base: coats.base,
    ghost: hasGhost ? coats.ghost : null,
    onRest: coats.rest,
  });
  const play = (samples: readonly GunSample[], pace: number) =>
    playSamples(samples, isMotionReduced() ? AT_ONCE : pace, () => coats.rest(run.samples));
  const answer = sayCoatSoFar(lesson, coats.now?.review ?? null, coats.now?.habit ?? null, coats.before?.habit ?? null);
  const compared = coats.before && coats.now && colours ? [coats.before, coats.now] : [];
  return (
    <Bench
      standalone
      side={
        <CoatSide
          {...{ lesson, gun, look, choices, coats, lessons }}
          onShow={() =>
            play(samplesEvery(samplesOf(armRows(gun, lesson, ownWay(gun, lesson.marginCm)), lesson), 1 / 60), 3)
          }
          onWatch={() => coats.now && play(coats.now.samples, 2)}
          onAgain={() => {
            coats.again();
            wipe();
          }}
          onNext={() => {
            coats.next();
            wipe();
          }}
        />
      }
    >
      {/* What is said must not push the panel from under the gun. */}
      <Box sx={{ minHeight: 104 }}>
        <Answer
          why={`${stack.name}, coat ${coats.number} of ${MOST_COATS}${lesson.panels.length > 1 ? ', two panels with a break' : ''}.`}
        >
          {answer}
        </Answer>
      </Box>
      <GunStageView
        {...{ handlers, lesson, gun }}
        boxRef={box}
        canvasRef={canvas}
        markRef={mark}
        ghostRef={ghost}
        label={`Practice panel, ${stack.name}, coat ${coats.number}. ${HOW[moves]}`}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 1.25 }}>
        <Toggles label="Seen at" value={view} choices={VIEWS} onPick={setView} />
        <Toggles label="Moved by" value={moves} choices={MOVED_BY} onPick={setMoves} />
        <PanelButtons coats={coats} wipe={wipe} hasGhost={hasGhost} setHasGhost={setHasGhost} />
      </Box>
      {moves === 'arm' ? <ArmFields {...{ gun, lesson }} onStart={(samples) => play(samples, 3)} /> : null}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        {error ?? HOW[moves]} Nothing here leaves this device.
      </Typography>
      {compared.length && colours ? (
        <Box sx={{ display: 'flex', gap: 2, mt: 1.25 }} data-testid="side-by-side">
          {compared.map((coat, i) => (
            <PanelThumb
              key={i}
              {...{ lesson, colours }}
              film={coat.review.film}
              base={coats.base}
              title={i ? 'Now' : 'Before'}
              said={`${coat.review.points} points, ${Math.round(100 * coat.review.figures.across)} % crest to trough`}
            />
          ))}
        </Box>
      ) : null}
    </Bench>
  );
}

interface PanelButtonsProps {
  readonly coats: ReturnType<typeof useCoats>;
  readonly wipe: ReturnType<typeof useGun>['wipe'];
  readonly hasGhost: boolean;
  readonly setHasGhost: Dispatch<SetStateAction<boolean>>;
}

/** Wipes the panel, and shows the ghost of a better coat. */
function PanelButtons({ coats, wipe, hasGhost, setHasGhost }: PanelButtonsProps) {
  return (
    <Box sx={{ ml: 'auto', display: 'flex', gap: 1 }}>
      <Button
        variant="outlined"
        onClick={() => {
          coats.afresh();
          wipe();
        }}
      >
        Wipe
      </Button>
      <Button variant="outlined" disabled={!coats.ghost} aria-pressed={hasGhost} onClick={() => setHasGhost(!hasGhost)}>
        {hasGhost ? 'Ghost on' : 'Ghost'}
      </Button>
    </Box>
  );
}
