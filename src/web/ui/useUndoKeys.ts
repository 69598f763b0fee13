import { isForPage, usePageKeys } from './usePageKeys';

/** Undo and redo by key in a room; what is typed into a field has an undo of its own. */
export function useUndoKeys(onUndo: () => void, onRedo: () => void): void {
  usePageKeys((event) => {
    const key = event.key.toLowerCase();
    if (event.defaultPrevented || !(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return;
    if (!isForPage(event)) return;
    if (key === 'y' || event.shiftKey) onRedo();
    else onUndo();
    event.preventDefault();
  });
}
