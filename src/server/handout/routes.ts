import { Router } from 'express';
import { MAX_HANDOUT_BYTES } from '#contract/handout';
import { bodyBytes } from '../bodyBytes';
import type { Jobs } from '../jobs/jobs';

/** Makes hand-outs into files; nothing is stored. */
export function handoutRoutes(jobs: Jobs): Router {
  const router = Router();
  router.post('/pdf', bodyBytes(MAX_HANDOUT_BYTES), async (request, response) => {
    const { title, pdf } = await jobs.makePdf(request.body as Uint8Array);
    response.attachment(`${title.replace(/[^\w-]+/g, '-') || 'hand-out'}.pdf`);
    response.type('application/pdf').send(Buffer.from(pdf));
  });
  return router;
}
