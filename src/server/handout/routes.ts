import { Router } from 'express';
import { type Handout, handoutSchema } from '#contract/handout';
import { AppError } from '../errors';
import { handoutPdf } from './toPdf';

/** Makes hand-outs into files; nothing is stored. */
export function handoutRoutes(): Router {
  const router = Router();
  router.post('/pdf', (request, response) => {
    const handout = handoutSchema.parse(request.body);
    const pdf = drawn(handout);
    response.attachment(`${handout.title.replace(/[^\w-]+/g, '-') || 'hand-out'}.pdf`);
    response.type('application/pdf');
    pdf.pipe(response);
  });
  return router;
}

/** The PDF, or the refusal of drawings that cannot be read. */
function drawn(handout: Handout): NodeJS.ReadableStream {
  try {
    return handoutPdf(handout);
  } catch {
    throw new AppError('bad-request', [{ path: 'pages', message: 'a drawing that cannot be read as SVG' }]);
  }
}
