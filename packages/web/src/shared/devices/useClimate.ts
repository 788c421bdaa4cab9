import { deviceSeed, readClimateLine, simulatedClimate, type Climate } from '@steady-gleam/core/devices';
import { useEffect, useState } from 'react';
import { shopNow } from '../clock';
import { useNow } from '../useNow';
import { readLines, serialOf, type SerialPortLike } from './serial';
import { useLineSettings } from './settings';

/** The simulated thermometer says something this often, and one that says nothing for so long is silent, ms. */
const [MINUTE_MS, SILENT_MS] = [60_000, 150_000] as const;

/** What is heard of the thermometer. */
export interface ClimateHeard {
  readonly by: 'simulated' | 'serial' | null;
  readonly climate: Climate | null;
  /** What is wrong with it, in a sentence; empty where nothing is. */
  readonly fault: string;
  /** Opens a port that was not opened on this device before. */
  readonly connect: (() => void) | null;
}

interface Heard {
  readonly climate: Climate | null;
  readonly fault: string;
}

/** The thermometer of this device. @param jobId of a try-out: then it is the simulated one; null for a real one */
export function useClimate(jobId: string | null): ClimateHeard {
  const settings = useLineSettings('climate');
  const now = useNow(MINUTE_MS);
  const [heard, setHeard] = useState<Heard>({ climate: null, fault: '' });
  const [port, setPort] = useState<SerialPortLike | null>(null);
  const isSerial = jobId === null && settings.by === 'serial';

  useEffect(() => {
    if (!isSerial) return;
    let gone = false;
    // The second port of this device where the scale has the first.
    void serialOf()
      ?.getPorts()
      .then((ports) => {
        const known = ports.at(-1);
        if (known && !gone) setPort((before) => before ?? known);
      });
    return () => {
      gone = true;
    };
  }, [isSerial]);

  useEffect(() => {
    if (!isSerial || !port) return;
    let last = performance.now();
    const leave = readLines(
      port,
      settings.baud,
      (line, at) => {
        last = at;
        const said = readClimateLine(line);
        setHeard((old) =>
          said.is === 'climate' ? { climate: said.climate, fault: '' } : { ...old, fault: said.said },
        );
      },
      (said) => {
        setHeard((old) => ({ ...old, fault: `${said} What it last said stands.` }));
        setPort(null);
      },
    );
    const quiet = setInterval(() => {
      if (performance.now() - last > SILENT_MS)
        setHeard((old) => ({ ...old, fault: 'The thermometer is silent. What it last said stands.' }));
    }, 10_000);
    return () => {
      clearInterval(quiet);
      leave();
    };
  }, [isSerial, port, settings.baud]);

  if (jobId !== null) {
    const zone = -new Date(shopNow()).getTimezoneOffset();
    return {
      by: 'simulated',
      climate: simulatedClimate(deviceSeed(jobId), now, zone),
      fault: '',
      connect: null,
    };
  }
  if (!isSerial) return { by: null, climate: null, fault: '', connect: null };
  const ask = () =>
    void serialOf()
      ?.requestPort()
      .then(setPort, () => undefined);
  return { by: 'serial', ...heard, connect: port || !serialOf() ? null : ask };
}
