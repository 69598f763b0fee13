import { z } from 'zod';
import { type Joint, JOINTS } from '#words/bodyCheck';
import { today } from '#words/days';

const KEY = 'morrin.body-cue';
const cueSchema = z.object({ joint: z.enum(JOINTS), day: z.string() });

/** What was found tight today, and is watched until another check; null: nothing was. */
export function readBodyCue(): Joint | null {
  try {
    const { joint, day } = cueSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
    return day === today() ? joint : null;
  } catch {
    return null;
  }
}

export function writeBodyCue(joint: Joint | null): void {
  try {
    if (joint === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, JSON.stringify({ joint, day: today() }));
  } catch {
    // Without storage it is watched as long as the page is open.
  }
}
