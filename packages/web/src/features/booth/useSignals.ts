import { useEffect, useState } from 'react';

const STORED = 'steady-gleam.booth-signals';
export interface Signals {
  readonly sound: boolean;
  readonly voice: boolean;
}

function kept(): Signals {
  try {
    return { sound: false, voice: false, ...(JSON.parse(localStorage.getItem(STORED) ?? '{}') as Partial<Signals>) };
  } catch {
    return { sound: false, voice: false };
  }
}

/** Sound and spoken cue, both off until asked for; remembered on this device. */
export function useSignals(): [Signals, (next: Signals) => void] {
  const [signals, setSignals] = useState(kept);
  return [
    signals,
    (next) => {
      localStorage.setItem(STORED, JSON.stringify(next));
      setSignals(next);
    },
  ];
}

/** Three short tones. */
export function beep(): void {
  const audio = new AudioContext();
  for (const [i, hz] of [660, 660, 880].entries()) {
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    tone.frequency.value = hz;
    gain.gain.value = 0.25;
    tone.connect(gain).connect(audio.destination);
    tone.start(audio.currentTime + i * 0.3);
    tone.stop(audio.currentTime + i * 0.3 + 0.18);
    if (i === 2) tone.onended = () => void audio.close();
  }
}

/** Speaks by the browser's own voice, where it has one. */
export function speak(text: string): void {
  if (!('speechSynthesis' in globalThis)) return;
  const words = new SpeechSynthesisUtterance(text);
  words.lang = 'en';
  speechSynthesis.speak(words);
}

/** Keeps the screen awake while the page is seen, where the browser can. */
export function useAwake(): void {
  useEffect(() => {
    let lock: { release: () => Promise<void> } | null = null;
    const take = async () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      try {
        lock = await navigator.wakeLock.request('screen');
      } catch {
        // A browser may refuse, for instance on low battery; the run goes on without it.
        lock = null;
      }
    };
    void take();
    const again = () => void take();
    document.addEventListener('visibilitychange', again);
    return () => {
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, []);
}
