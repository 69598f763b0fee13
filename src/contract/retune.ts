import { z } from 'zod';
import { PLACES } from '#core/tune';

const place = z.enum(PLACES);

/** What `retune --json` prints. */
export const retuneSchema = z.object({
  strings: z
    .array(
      z.object({
        place,
        from: z.string(),
        to: z.string(),
        semitones: z.int(),
        tensionRatio: z.number(),
        newtons: z.object({ from: z.number(), to: z.number() }),
        warnings: z.array(z.string()),
      }),
    )
    .length(4),
  totalTensionRatio: z.number(),
  steps: z.array(
    z.object({
      round: z.union([z.literal(1), z.literal(2)]),
      place,
      turn: z.enum(['up', 'down', 'check']),
      from: z.string(),
      to: z.string(),
      reference: z.object({ place, interval: z.string() }).nullable(),
    }),
  ),
  warnings: z.array(z.string()).describe('about the fiddle as a whole'),
  safety: z.array(z.string()).describe('said always'),
});
export type Retune = z.output<typeof retuneSchema>;
