/** `1 note`, `3 notes`; `several` where it is not made with an s. */
export function counted(count: number, one: string, several = `${one}s`): string {
  return `${count} ${count === 1 ? one : several}`;
}

/** `48 %` of a share from 0 to 1. */
export function percentWords(share: number): string {
  return `${Math.round(100 * share)} %`;
}

/** `A`, `A and B`, `A, B and C`. */
export function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}
