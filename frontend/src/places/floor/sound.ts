import { onDevice } from "@/api/remember";
import type { Call } from "./calls";

const MUTED = "dialback.muted";
const SPEAKS = "dialback.speaks";

export const isMuted = (): boolean => onDevice.get(MUTED) === "yes";
export const setMuted = (muted: boolean): void => onDevice.set(MUTED, muted ? "yes" : "no");

/** Whether this device calls in words, too: chosen on it, and quiet until then. */
export const isSpeaking = (): boolean => onDevice.get(SPEAKS) === "yes";
export const setSpeaking = (speaks: boolean): void => onDevice.set(SPEAKS, speaks ? "yes" : "no");

/** The device's own voices; none where it has no speech. Nothing is fetched. */
export const voices = (): SpeechSynthesisVoice[] =>
  "speechSynthesis" in window ? window.speechSynthesis.getVoices() : [];

/** Say something now; what was being said is broken off, for it is late. */
export function speak(words: string): void {
  if (!words || !isSpeaking() || voices().length === 0) return;
  const said = new SpeechSynthesisUtterance(words);
  said.lang = "en";
  window.speechSynthesis.cancel();
  window.speechSynthesis.speak(said);
}

/** Of each kind its pitches, one after the other, and how long each sounds, in seconds. */
const TONES: Record<NonNullable<Call["tone"]>, { pitches: number[]; lasts: number }> = {
  start: { pitches: [880], lasts: 0.4 },
  count: { pitches: [520], lasts: 0.12 },
  half: { pitches: [660, 660], lasts: 0.12 },
  side: { pitches: [660, 990], lasts: 0.2 },
  end: { pitches: [660, 440], lasts: 0.3 },
};
const VIBRATES_MS = 150;

let context: AudioContext | null = null;

/** A tone of its own for each kind of call. Silent if muted, or where sound is not let. */
export function tone(kind: NonNullable<Call["tone"]>): void {
  // A browser lets no page sound that nobody has touched.
  if (isMuted() || !navigator.userActivation.hasBeenActive) return;
  const { pitches, lasts } = TONES[kind];
  if (kind !== "count") navigator.vibrate?.(pitches.flatMap(() => [VIBRATES_MS, VIBRATES_MS]));
  try {
    context ??= new AudioContext();
    if (context.state === "suspended") void context.resume();
    for (const [at, pitch] of pitches.entries()) sound(context, pitch, at * lasts, lasts);
  } catch {
    // A room without sound has the count on the screen.
  }
}

function sound(room: AudioContext, pitch: number, after: number, lasts: number): void {
  const begins = room.currentTime + after;
  const source = room.createOscillator();
  const volume = room.createGain();
  source.frequency.value = pitch;
  volume.gain.setValueAtTime(0.25, begins);
  volume.gain.exponentialRampToValueAtTime(0.001, begins + lasts);
  source.connect(volume).connect(room.destination);
  source.start(begins);
  source.stop(begins + lasts + 0.01);
}
