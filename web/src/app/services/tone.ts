import { Injectable } from '@angular/core';

const EVERY_MS = 1600;
const NOTES_HZ = [660, 880] as const;
const LONG_S = 0.22;

/**
 * The call of a pot: two short notes, again and again, until somebody goes. Made here, so that no sound file is
 * needed.
 */
@Injectable({ providedIn: 'root' })
export class Tone {
  private context: AudioContext | undefined;
  private timer: ReturnType<typeof setInterval> | undefined;

  constructor() {
    // A browser lets a page sound only after somebody touched it once.
    const unlock = (): void => void this.open()?.resume();
    for (const kind of ['pointerdown', 'keydown'] as const) document.addEventListener(kind, unlock, { once: true });
  }

  start(): void {
    if (this.timer) return;
    this.play();
    this.timer = setInterval(() => this.play(), EVERY_MS);
  }

  /** Once, for what is only to be looked at. */
  once(): void {
    this.play();
  }

  stop(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }

  private open(): AudioContext | undefined {
    this.context ??= 'AudioContext' in window ? new AudioContext() : undefined;
    return this.context;
  }

  private play(): void {
    const context = this.open();
    if (context?.state !== 'running') return;
    for (const [i, hz] of NOTES_HZ.entries()) {
      const [oscillator, gain] = [context.createOscillator(), context.createGain()];
      const from = context.currentTime + i * LONG_S;
      oscillator.frequency.value = hz;
      gain.gain.setValueAtTime(0.0001, from);
      gain.gain.exponentialRampToValueAtTime(0.4, from + 0.02);
      gain.gain.exponentialRampToValueAtTime(0.0001, from + LONG_S);
      oscillator.connect(gain).connect(context.destination);
      oscillator.start(from);
      oscillator.stop(from + LONG_S);
    }
  }
}
