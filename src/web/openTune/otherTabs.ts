/** That a tune was saved, told from tab to tab of this browser. */
export interface SavedElsewhere {
  readonly id: string;
  readonly revision: number;
}

// A browser of old has none: a tab then learns of it by a refused save.
const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('morrin.saved');

export function tellTabs(saved: SavedElsewhere): void {
  channel?.postMessage(saved);
}

export function onSavedElsewhere(listener: (saved: SavedElsewhere) => void): void {
  channel?.addEventListener('message', ({ data }: MessageEvent<SavedElsewhere>) => listener(data));
}
