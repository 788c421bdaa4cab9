import {
  createScale,
  later,
  readScaleLine,
  sayScaleFault,
  shows,
  weigher,
  type Held,
  type Weighed,
} from '@steady-gleam/core/devices';
import { useCallback, useEffect, useRef, useState } from 'react';
import { readLines, serialOf, type SerialPortLike } from './serial';
import { formOf, useLineSettings } from './settings';

/** A scale says something this often, and is called silent after so long, ms. */
const [TICK_MS, SILENT_MS] = [100, 2_500] as const;

/** What is heard of a scale. */
export interface ScaleHeard {
  /** By what it is heard; null where none is set up on this device. */
  readonly by: 'simulated' | 'serial' | 'keys' | null;
  readonly weighed: Weighed | null;
  /** What is wrong with it, in a sentence; empty where nothing is. */
  readonly fault: string;
  /** The last line as it came. */
  readonly line: string;
  /** Opens a port that was not opened on this device before; only where it is serial. */
  readonly connect: (() => void) | null;
  /** Of the simulated one: how the can is held over the cup, and an empty cup in the place of this one. */
  readonly hold: ((held: Held) => void) | null;
  /** Of one that types: a line it typed. */
  readonly typed: ((text: string) => void) | null;
}

/**
 * The scale of this device.
 * @param seed of a try-out: then it is the simulated one; null for a real one
 * @param cup what stands on the simulated one at first, g
 */
export function useScale(seed: number | null, cup = 0): ScaleHeard {
  const settings = useLineSettings('scale');
  const [weighed, setWeighed] = useState<Weighed | null>(null);
  const [fault, setFault] = useState('');
  const [line, setLine] = useState('');
  const [port, setPort] = useState<SerialPortLike | null>(null);
  const held = useRef<Held>('up');
  const [start] = useState(cup);
  const by = seed !== null ? 'simulated' : settings.by === 'none' ? null : settings.by;

  useEffect(() => {
    if (seed === null) return;
    let scale = createScale(seed, start);
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      scale = later(scale, Math.min(1000, now - last), held.current);
      last = now;
      setWeighed(shows(scale));
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [seed, start]);

  useEffect(() => {
    if (by !== 'serial') return;
    let gone = false;
    void serialOf()
      ?.getPorts()
      .then(([known]) => {
        if (known && !gone) setPort((now) => now ?? known);
      });
    return () => {
      gone = true;
    };
  }, [by]);

  useEffect(() => {
    if (by !== 'serial' || !port) return;
    const read = weigher(formOf(settings));
    let heard = performance.now();
    const leave = readLines(
      port,
      settings.baud,
      (text, at) => {
        heard = at;
        setLine(text);
        const said = read(text, at);
        if ('is' in said) setFault(sayScaleFault(said));
        else {
          setFault('');
          setWeighed(said);
        }
      },
      (said) => {
        setFault(`${said} The running total is kept; connect the scale again.`);
        setPort(null);
      },
    );
    const quiet = setInterval(() => {
      if (performance.now() - heard > SILENT_MS)
        setFault('The scale is silent. Look at its cable and that it sends by itself; the running total is kept.');
    }, 500);
    return () => {
      clearInterval(quiet);
      leave();
    };
  }, [by, port, settings]);

  const hold = useCallback((how: Held) => {
    held.current = how;
  }, []);
  const connect = useCallback(() => {
    void serialOf()
      ?.requestPort()
      .then(
        (chosen) => {
          setFault('');
          setPort(chosen);
        },
        () => undefined,
      );
  }, []);
  const typed = useCallback(
    (text: string) => {
      const said = readScaleLine(text, { ...formOf(settings), rests: 'unit' });
      setLine(text);
      if (said.is === 'fault') setFault(sayScaleFault(said));
      else {
        setFault('');
        // What a scale types on a key press is at rest.
        setWeighed({ at: performance.now(), grams: said.grams, stable: true });
      }
    },
    [settings],
  );
  return {
    ...{ by, weighed, line },
    fault: by === 'serial' && !serialOf() ? NO_SERIAL : fault,
    connect: by === 'serial' && !port && serialOf() ? connect : null,
    hold: by === 'simulated' ? hold : null,
    typed: by === 'keys' ? typed : null,
  };
}

export const NO_SERIAL =
  'This browser opens no serial port, or the page did not come by HTTPS. Use a browser that does, or let the scale type.';
