import { onDevice } from "@/api/remember";

const STORED = "dialback.theme";

/** Show the sheet as it was last chosen; without a choice the system decides. */
export function applyTheme(): void {
  const chosen = onDevice.get(STORED);
  if (chosen) document.documentElement.dataset.theme = chosen;
}

export function switchTheme(): void {
  const now =
    document.documentElement.dataset.theme ??
    (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");
  onDevice.set(STORED, now === "dark" ? "light" : "dark");
  applyTheme();
}
