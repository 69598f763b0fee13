const settling = new Map<string, Promise<void>>();

/** Notes that the last edits of a tune that was left are on their way. */
export function settleFirst(id: string, work: Promise<void>): void {
  const own = work.finally(() => {
    if (settling.get(id) === own) settling.delete(id);
  });
  settling.set(id, own);
}

/** Waits for the last edits of a tune that was just left: who comes back at once is not to be in the way of themselves. */
export async function settled(id: string): Promise<void> {
  await settling.get(id);
}
