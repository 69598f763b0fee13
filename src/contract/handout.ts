import { z } from 'zod';
import { route } from './route';

export const PAPERS = { a4: { widthMm: 210, heightMm: 297 }, letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type Paper = keyof typeof PAPERS;

/** Room left free about the page's print. */
export const PAPER_MARGIN_MM = 13;

/** Pages of one PDF: a book of two hundred tunes. */
export const MAX_PAGES = 400;
export const MAX_HANDOUT_BYTES = 96 * 1024 * 1024;

/** Pages drawn as SVG, to be made into a PDF. */
export const handoutSchema = z.object({
  title: z.string().max(300),
  paper: z.enum(['a4', 'letter']),
  pages: z.array(z.string().startsWith('<svg', 'expected an SVG drawing').max(3_000_000)).min(1).max(MAX_PAGES),
});
export type Handout = z.output<typeof handoutSchema>;

/** Makes hand-outs into files; nothing is stored. */
export const handoutRoutes = {
  makePdf: route({ method: 'POST', path: '/api/handout/pdf', body: handoutSchema, answer: 'file', isSlow: true }),
};
