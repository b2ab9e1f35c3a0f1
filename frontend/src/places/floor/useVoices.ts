import { useSyncExternalStore } from "react";
import { voices } from "./sound";

/** Whether the device has voices; some tell a while after the page has come. */
export const useVoices = (): boolean =>
  useSyncExternalStore(
    (told) => {
      const speech = "speechSynthesis" in window ? window.speechSynthesis : null;
      speech?.addEventListener?.("voiceschanged", told);
      return () => speech?.removeEventListener?.("voiceschanged", told);
    },
    () => voices().length > 0,
  );
