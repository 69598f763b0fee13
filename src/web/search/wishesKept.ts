import { z } from 'zod';
import { DEFAULT_WISHES, type StyleWishes } from '#core/search';

const KEY = 'morrin.wishes';

const share = z.number().min(0).max(1);
const wishesSchema = z.object({
  shuffle: share,
  smooth: share,
  downbeat: z.enum(['down', 'free']),
  acrossBeat: z.enum(['free', 'avoid']),
  slurAcrossStrings: z.boolean(),
  likeness: share,
});

/** The wishes of the last search in this browser; the usual ones where there are none. */
export function readWishes(): StyleWishes {
  try {
    return wishesSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null')).data ?? DEFAULT_WISHES;
  } catch {
    return DEFAULT_WISHES;
  }
}

export function keepWishes(wishes: StyleWishes): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(wishes));
  } catch {
    // Without storage they hold for this visit.
  }
}
