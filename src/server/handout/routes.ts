import { Router } from 'express';
import { handoutSchema } from '#contract/handout';
import { handoutPdf } from './toPdf';

/** Makes hand-outs into files; nothing is stored. */
export function handoutRoutes(): Router {
  const router = Router();
  router.post('/pdf', (request, response) => {
    const handout = handoutSchema.parse(request.body);
    response.attachment(`${handout.title.replace(/[^\w-]+/g, '-') || 'hand-out'}.pdf`);
    response.type('application/pdf');
    handoutPdf(handout).pipe(response);
  });
  return router;
}
