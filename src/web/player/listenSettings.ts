import { z } from 'zod';
import { LAYERS } from '#core/performance';
import type { OwnFactors } from '#core/tempo';

const share = z.number().min(0).max(1.5);

const settingsSchema = z.object({
  layers: z.array(z.enum(LAYERS)),
  /** Bars counted in. */
  countIn: z.int().min(0).max(2),
  loop: z.boolean(),
  answer: z.boolean(),
  /** Percent by which the tempo climbs at each round. */
  climb: z.number().min(0).max(10),
  balance: z.object({ melody: share, second: share, backing: share, click: share, tone: share }),
  compare: z.string().nullable(),
});

/** What is listened to and how; kept in the browser, since it is the listener's and not the tune's. */
export type ListenSettings = z.infer<typeof settingsSchema>;

/** The same, with what comes from the player's settings: the pitch of A4, and how holds and silences come out. */
export interface PlaySettings extends ListenSettings {
  readonly a4?: number;
  readonly own?: OwnFactors;
}

const DEFAULT_SETTINGS: ListenSettings = {
  layers: ['melody', 'drones', 'bowing', 'colour'],
  countIn: 1,
  loop: false,
  answer: false,
  climb: 0,
  balance: { melody: 1, second: 1, backing: 0.8, click: 0.8, tone: 0.8 },
  compare: null,
};

const KEY = 'morrin.listen';

export function readListenSettings(): ListenSettings {
  try {
    return settingsSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
  } catch {
    return DEFAULT_SETTINGS;
  }
}

export function writeListenSettings(settings: ListenSettings): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(settings));
  } catch {
    // Without storage they hold until the page is left.
  }
}
