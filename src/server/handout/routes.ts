import { Router } from 'express';
import { handoutRoutes as routes, MAX_HANDOUT_BYTES } from '#contract/handout';
import { bodyBytes } from '../bodyBytes';
import type { Jobs } from '../jobs/jobs';
import { SENT, serve } from '../serve';

/** Makes hand-outs into files; nothing is stored. */
export function handoutRoutes(jobs: Jobs): Router {
  const router = Router();
  serve(
    router,
    routes.makePdf,
    async ({ request, response }) => {
      const { title, pdf } = await jobs.makePdf(request.body as Uint8Array);
      response.attachment(`${title.replace(/[^\w-]+/g, '-') || 'hand-out'}.pdf`);
      response.type('application/pdf').send(Buffer.from(pdf));
      return SENT;
    },
    bodyBytes(MAX_HANDOUT_BYTES),
  );
  return router;
}
