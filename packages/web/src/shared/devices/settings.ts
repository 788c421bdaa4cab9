import { LINE_FORMS } from '@steady-gleam/core/devices';
import { useSyncExternalStore } from 'react';
import { BAUDS } from './serial';

/** How a device of this browser is heard. */
export interface LineSettings {
  readonly by: 'none' | 'serial' | 'keys';
  /** Line form of a scale. */
  readonly form: string;
  readonly baud: number;
}

export type LineDevice = 'scale' | 'climate';

const START: LineSettings = { by: 'none', form: LINE_FORMS[0]!.id, baud: 9600 };
const keyOf = (device: LineDevice): string => `steady-gleam.device.${device}`;

function kept(device: LineDevice): LineSettings {
  try {
    const said = JSON.parse(localStorage.getItem(keyOf(device)) ?? '{}') as Partial<LineSettings>;
    return {
      by: said.by === 'serial' || said.by === 'keys' ? said.by : 'none',
      form: LINE_FORMS.some((f) => f.id === said.form) ? said.form! : START.form,
      baud: BAUDS.includes(said.baud ?? 0) ? said.baud! : START.baud,
    };
  } catch {
    return START;
  }
}

const now = new Map<LineDevice, LineSettings>();
const listeners = new Set<() => void>();

export function settingsFor(device: LineDevice): LineSettings {
  let known = now.get(device);
  if (!known) now.set(device, (known = kept(device)));
  return known;
}

export function putSettings(device: LineDevice, more: Partial<LineSettings>): void {
  const next = { ...settingsFor(device), ...more };
  now.set(device, next);
  localStorage.setItem(keyOf(device), JSON.stringify(next));
  listeners.forEach((l) => l());
}

/** How a device of this browser is heard; kept on it, since the cable is. */
export const useLineSettings = (device: LineDevice): LineSettings =>
  useSyncExternalStore(
    (l) => (listeners.add(l), () => listeners.delete(l)),
    () => settingsFor(device),
  );

export const formOf = ({ form }: LineSettings) => LINE_FORMS.find((f) => f.id === form) ?? LINE_FORMS[0]!;
