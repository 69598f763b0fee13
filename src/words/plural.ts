/** `1 note`, `3 notes`; `several` where it is not made with an s. */
export function counted(count: number, one: string, several = `${one}s`): string {
  return `${count} ${count === 1 ? one : several}`;
}
