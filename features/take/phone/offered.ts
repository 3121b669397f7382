const KEY = 'rezzik-phone';

/** The address that this tab waits at; remembered over a reload. */
export function noteOffered(id: string | null): void {
  try {
    if (id) sessionStorage.setItem(KEY, id);
    else sessionStorage.removeItem(KEY);
  } catch {
    // Then a reload forgets it, and the picture arrives on the Shelf.
  }
}

export function offeredHere(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

export const wasOffered = (): boolean => offeredHere() !== null;
