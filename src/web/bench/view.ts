import { z } from 'zod';

/** How the score is shown; kept in this browser. */
const viewSchema = z.object({
  fingers: z.boolean().catch(true),
  calls: z.boolean().catch(false),
  letters: z.boolean().catch(false),
  bow: z.boolean().catch(true),
  arm: z.boolean().catch(true),
  room: z.boolean().catch(true),
  /** Bow signs of the other passes too, where they differ. */
  otherPasses: z.boolean().catch(false),
  /** Percent. */
  zoom: z.number().min(60).max(200).catch(100),
  /** null: as many as fit. */
  barsPerLine: z.int().min(1).max(12).nullable().catch(null),
});
export type View = z.output<typeof viewSchema>;

/** Without lanes: where a drawer leaves little room, the music stays. */
export const staffOnly = (view: View): View => ({ ...view, bow: false, arm: false, room: false });

export const ZOOMS = [60, 80, 100, 125, 150, 175, 200] as const;

const KEY = 'morrin.view';

export function readView(): View {
  let stored: unknown = {};
  try {
    stored = JSON.parse(localStorage.getItem(KEY) ?? '{}');
  } catch {
    // What cannot be read is as good as nothing.
  }
  const parsed = viewSchema.safeParse(stored);
  return parsed.success ? parsed.data : viewSchema.parse({});
}

export function writeView(view: View): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(view));
  } catch {
    // Without storage it holds for this visit.
  }
}
