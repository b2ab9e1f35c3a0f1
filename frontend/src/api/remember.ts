/**
 * Small things that are remembered. A browser may refuse its store, or have no room left: then they
 * hold as long as the page is open, and nothing fails.
 */
class Memory {
  private readonly here = new Map<string, string>();

  /** The store is asked for each time: where it is refused, to name it fails already. */
  constructor(private readonly store: () => Storage) {}

  get(name: string): string | null {
    try {
      return this.store().getItem(name) ?? this.here.get(name) ?? null;
    } catch {
      return this.here.get(name) ?? null;
    }
  }

  set(name: string, value: string): void {
    try {
      this.store().setItem(name, value);
      this.here.delete(name);
    } catch {
      this.here.set(name, value);
    }
  }

  drop(name: string): void {
    this.here.delete(name);
    try {
      this.store().removeItem(name);
    } catch {
      // It was not there.
    }
  }

  /** Forget all but what stays. */
  forget(stays: (name: string) => boolean): void {
    let names = [...this.here.keys()];
    try {
      names = [...names, ...Object.keys(this.store())];
    } catch {
      // A device that gives nothing keeps nothing.
    }
    for (const name of names) if (!stays(name)) this.drop(name);
  }
}

/** As long as the device keeps it. */
export const onDevice = new Memory(() => localStorage);
/** As long as this window is open, over a reload too. */
export const inWindow = new Memory(() => sessionStorage);
