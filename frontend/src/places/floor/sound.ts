import { onDevice } from "@/api/remember";

const MUTED = "dialback.muted";

export const isMuted = (): boolean => onDevice.get(MUTED) === "yes";
export const setMuted = (muted: boolean): void => onDevice.set(MUTED, muted ? "yes" : "no");

let context: AudioContext | null = null;

/** A short tone; high for a beginning, low for an end. Silent if muted, or where sound is not let. */
export function tone(pitch: "low" | "high"): void {
  // A browser lets no page sound that nobody has touched.
  if (isMuted() || !navigator.userActivation.hasBeenActive) return;
  try {
    context ??= new AudioContext();
    if (context.state === "suspended") void context.resume();
    const source = context.createOscillator();
    const volume = context.createGain();
    source.frequency.value = pitch === "high" ? 880 : 520;
    volume.gain.setValueAtTime(0.25, context.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + 0.25);
    source.connect(volume).connect(context.destination);
    source.start();
    source.stop(context.currentTime + 0.26);
  } catch {
    // A room without sound has the count on the screen.
  }
}
