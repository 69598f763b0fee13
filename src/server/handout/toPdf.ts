import { createRequire } from 'node:module';
import { buffer } from 'node:stream/consumers';
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import { type Handout, handoutSchema, PAPER_MARGIN_MM, PAPERS } from '#contract/handout';
import { AppError } from '../errors';
import { readBody } from '../jobs/readBody';

const POINTS_PER_MM = 72 / 25.4;

/** Fonts that drawings name, by family and weight, as files of the packages that ship them. */
const FONT_FILES: Record<string, string> = {
  Bravura: '@vexflow-fonts/bravura/bravura.otf',
  Academico: '@vexflow-fonts/academico/academico.otf',
  Alegreya: '@fontsource/alegreya/files/alegreya-latin-700-normal.woff',
  'Alegreya Sans': '@fontsource/alegreya-sans/files/alegreya-sans-latin-400-normal.woff',
  'Alegreya Sans Bold': '@fontsource/alegreya-sans/files/alegreya-sans-latin-700-normal.woff',
};

/** The hand-out that a request's body asks for; drawings that cannot be read are refused. */
export async function makePdf(bytes: Uint8Array): Promise<{ title: string; pdf: Uint8Array }> {
  const handout = readBody(handoutSchema, bytes);
  return { title: handout.title, pdf: await buffer(drawn(handout)) };
}

function drawn(handout: Handout): NodeJS.ReadableStream {
  try {
    return handoutPdf(handout);
  } catch {
    throw new AppError('bad-request', [{ path: 'pages', message: 'a drawing that cannot be read as SVG' }]);
  }
}

/**
 * A PDF of pages drawn as SVG, each filling the paper inside its margin. Drawings cannot reach files or the network:
 * images are left out, and fonts are only those named here.
 */
function handoutPdf({ title, paper, pages }: Handout): NodeJS.ReadableStream {
  const { widthMm, heightMm } = PAPERS[paper];
  const document = new PDFDocument({
    size: [widthMm * POINTS_PER_MM, heightMm * POINTS_PER_MM],
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Morrin' },
  });
  const require = createRequire(import.meta.url);
  for (const [name, file] of Object.entries(FONT_FILES)) document.registerFont(name, require.resolve(file));
  const margin = PAPER_MARGIN_MM * POINTS_PER_MM;
  for (const page of pages) {
    document.addPage();
    SVGtoPDF(document, page, margin, margin, {
      width: widthMm * POINTS_PER_MM - 2 * margin,
      height: heightMm * POINTS_PER_MM - 2 * margin,
      preserveAspectRatio: 'xMidYMin meet',
      fontCallback: (family, bold) => fontName(family, bold),
      imageCallback: () => '',
      documentCallback: () => [],
      warningCallback: () => undefined,
    });
  }
  document.end();
  return document;
}

/** The shipped font that stands for a family list: the first known name in it. */
function fontName(families: string, bold: boolean): string {
  const known = families
    .split(',')
    .map((name) => name.replace(/["']/g, '').trim())
    .find((name) => name in FONT_FILES);
  if (known === 'Alegreya Sans' && bold) return 'Alegreya Sans Bold';
  return known ?? 'Alegreya Sans';
}
