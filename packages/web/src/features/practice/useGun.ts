import { gunAt, type GunSample, type Lesson, type PracticeGun } from '@steady-gleam/core/practice';
import { useCallback, useEffect, useMemo, useRef, type PointerEvent, type RefObject } from 'react';
import { WHEEL_CM, type GunHeld, type Moves } from './gunPosition';
import { GunRun } from './gunRun';
import { createPanelPaint, type FilmColours, type PanelPaint } from './panelPaint';

/** What is beside the panel on the screen, cm: the trigger goes on and off out there. */
export const AROUND_CM = { x: 15, y: 9 } as const;
/** Pixels a second finger is moved for a centimetre of distance. */
const PINCH_PX = 12;
/** How long the trigger rests before the coat is looked at, ms: longer than a turn takes. */
const REST_MS = 1200;

/** Width of the stage, cm: the panels and what is beside them. */
export const widthAround = (lesson: Pick<Lesson, 'panels'>): number =>
  lesson.panels.reduce((a, b) => a + b, 0) + 2 * AROUND_CM.x;

interface GunStageInput {
  readonly lesson: Lesson;
  readonly gun: PracticeGun;
  /** Film of earlier coats. */
  readonly base: Float64Array;
  /** Null while they are worked out: nothing is drawn before. */
  readonly colours: FilmColours | null;
  readonly moves: Moves;
  /** Moved along beside the own gun, from its own first spray on. */
  readonly ghost: readonly GunSample[] | null;
  /** The trigger was let go. */
  readonly onRest: (samples: readonly GunSample[]) => void;
}

/** The marks of gun and ghost stand where they are, as large as the fan is there. */
function place(of: HTMLDivElement | null, box: HTMLDivElement | null, at: GunHeld | null, run: GunRun): void {
  if (!of || !box) return;
  of.style.visibility = at ? 'visible' : 'hidden';
  if (!at) return;
  const px = box.clientWidth / widthAround(run.lesson);
  const scale = (at.d / run.gun.distanceCm).toFixed(3);
  of.style.transform = `translate(${(at.x + AROUND_CM.x) * px}px, ${(at.y + AROUND_CM.y) * px}px) translate(-50%, -50%) scale(${scale})`;
  of.dataset['on'] = String(at.on);
}

/**
 * The panel under a moving gun: what changed is drawn once a frame, and React is told only when the trigger is let go.
 * @returns what the stage's elements are bound to, and the coat that is being laid
 */
export function useGun(input: GunStageInput) {
  const { lesson, gun, colours, base, moves } = input;
  const now = useRef(input);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const mark = useRef<HTMLDivElement>(null);
  const ghost = useRef<HTMLDivElement>(null);
  const paint = useRef<PanelPaint>(null);
  const run = useMemo(() => new GunRun(lesson, gun), [lesson, gun]);
  useEffect(() => {
    now.current = input;
  });
  useEffect(() => run.moveBy(moves), [run, moves]);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** A coat is looked at when the trigger rests; between two passes nothing is said. */
  const rest = useCallback(() => {
    clearTimeout(waiting.current);
    waiting.current = setTimeout(() => (run.held.on ? undefined : now.current.onRest(run.samples)), REST_MS);
  }, [run]);
  useEffect(() => () => clearTimeout(waiting.current), [run]);
  const redraw = useCallback(() => {
    const { colours: c, base: b } = now.current;
    if (c) paint.current?.draw(b, run.sheet.film, c);
  }, [run]);
  useEffect(() => {
    paint.current = createPanelPaint(canvas.current!, run.sheet.columns, run.sheet.rows);
  }, [run]);
  useEffect(redraw, [redraw, colours, base]);

  useEffect(() => {
    let frame = 0;
    const step = (ms: number) => {
      const patch = run.step(ms);
      const { base: b, colours: c, ghost: other } = now.current;
      if (patch && c) paint.current?.draw(b, run.sheet.film, c, patch);
      const t = run.clock(ms);
      place(mark.current, box.current, run.held, run);
      place(ghost.current, box.current, other && t !== null ? gunAt(other, t) : null, run);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [run]);

  // The wheel must not scroll the page while it is the distance; keys are heard while the focus is on the stage.
  useEffect(() => {
    const area = box.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      run.far(Math.sign(e.deltaY) * WHEEL_CM);
    };
    const down = (e: KeyboardEvent) => {
      const { isOwn, isReleased } = run.keyDown(e.key, e.repeat);
      if (isOwn) e.preventDefault();
      if (isReleased) rest();
    };
    const up = (e: KeyboardEvent) => run.keyUp(e.key);
    const away = () => run.keysUp();
    area.addEventListener('wheel', wheel, { passive: false });
    area.addEventListener('keydown', down);
    area.addEventListener('keyup', up);
    area.addEventListener('blur', away);
    return () => {
      area.removeEventListener('wheel', wheel);
      area.removeEventListener('keydown', down);
      area.removeEventListener('keyup', up);
      area.removeEventListener('blur', away);
    };
  }, [run, rest]);

  return {
    ...{ box, canvas, mark, ghost, run },
    handlers: usePointers(box, run, rest, colours !== null),
    wipe: () => {
      clearTimeout(waiting.current);
      run.wipe();
      redraw();
    },
    play: (of: readonly GunSample[], pace: number, onEnd: () => void) => {
      clearTimeout(waiting.current);
      run.play(of, pace, performance.now(), onEnd);
      redraw();
    },
  };
}

export type GunStage = ReturnType<typeof useGun>;

/** The first pointer is the gun, a second finger its distance. */
function usePointers(box: RefObject<HTMLDivElement | null>, run: GunRun, rest: () => void, isReady: boolean) {
  const second = useRef<{ readonly id: number; readonly y: number }>(null);
  const placeOf = (e: { readonly clientX: number; readonly clientY: number }) => {
    const area = box.current!.getBoundingClientRect();
    const px = area.width / widthAround(run.lesson);
    return { x: (e.clientX - area.left) / px - AROUND_CM.x, y: (e.clientY - area.top) / px - AROUND_CM.y };
  };
  const up = (e: PointerEvent<HTMLDivElement>) => {
    if (second.current?.id === e.pointerId) second.current = null;
    else if (e.isPrimary && run.release(e.timeStamp)) rest();
  };
  return {
    onPointerDown: (e: PointerEvent<HTMLDivElement>) => {
      if (!isReady) return;
      if (!e.isPrimary) second.current = { id: e.pointerId, y: e.clientY };
      else if (e.button === 0) {
        e.currentTarget.setPointerCapture(e.pointerId);
        run.press(placeOf(e), e.timeStamp);
      }
    },
    onPointerMove: (e: PointerEvent<HTMLDivElement>) => {
      if (second.current?.id === e.pointerId) {
        run.far((e.clientY - second.current.y) / PINCH_PX);
        second.current = { id: e.pointerId, y: e.clientY };
      } else if (isReady && e.isPrimary) {
        const all = e.nativeEvent.getCoalescedEvents?.() ?? [];
        for (const one of all.length ? all : [e.nativeEvent]) run.move(placeOf(one), one.timeStamp);
      }
    },
    onPointerUp: up,
    onPointerCancel: up,
  };
}
