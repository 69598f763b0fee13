import type { Balance, SoundPlan } from '#core/sound';

/** What the renderer's worker does. */
export interface RenderWorker {
  /** A WAV file of a plan; tells the share done as it goes. */
  render(
    request: { readonly plan: SoundPlan; readonly balance: Balance },
    onDone: (share: number) => void,
  ): Promise<Uint8Array>;
}
