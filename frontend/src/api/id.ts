/**
 * An id that nobody else makes. `crypto.randomUUID` is there on https and on this machine only; a
 * tablet in the gym may well come over plain http.
 */
export function newId(): string {
  if (typeof crypto.randomUUID === "function") return crypto.randomUUID();
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) =>
    byte.toString(16).padStart(2, "0"),
  ).join("");
}
