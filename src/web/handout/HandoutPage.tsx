import alegreya from '@fontsource/alegreya/files/alegreya-latin-700-normal.woff2?url&no-inline';
import alegreyaSans from '@fontsource/alegreya-sans/files/alegreya-sans-latin-400-normal.woff2?url&no-inline';
import alegreyaSansBold from '@fontsource/alegreya-sans/files/alegreya-sans-latin-700-normal.woff2?url&no-inline';
import academico from '@vexflow-fonts/academico/academico.woff2?url&no-inline';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url&no-inline';
import { useEffect, useRef, useState } from 'react';
import { type Paper, PAPER_MARGIN_MM, PAPERS } from '#contract/handout';
import { handoutRoutes } from '#contract/handout';
import { failureWords } from '#words/failure';
import { ask } from '../api/ask';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { RoomHeader } from '../openTune/RoomHeader';
import { useTuneUndoKeys } from '../openTune/useTuneUndoKeys';
import { loadEngravingFonts } from '../score/fonts';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Select } from '../ui/Select';
import { type Block, blockOf, fontRule, pagesOf, singleSvg, textBlock } from './composeSvg';
import { CSS_PX_PER_MM, HandoutLines, headWords, legendWords, type LineOptions, MM_PER_PX } from './HandoutLines';
import { PAPER_NAMES } from './paperNames';

interface Options extends LineOptions {
  readonly paper: Paper;
}

/** A tune on paper, in black: to be printed, or kept as SVG or PDF. */
export function HandoutPage() {
  return <OpenTunePage page={Handout} />;
}

function Handout({ open, report }: OpenTuneProps) {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    let isCurrent = true;
    void loadEngravingFonts().then(() => isCurrent && setReady(true));
    return () => {
      isCurrent = false;
    };
  }, []);
  const { tune } = open;
  useTuneUndoKeys();
  const [options, setOptions] = useState<Options>({ paper: 'a4', fingers: true, calls: false, letters: false });
  const [problem, setProblem] = useState<string | null>(null);
  const [isMaking, setMaking] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const { widthMm, heightMm } = PAPERS[options.paper];
  const printMm = widthMm - 2 * PAPER_MARGIN_MM;
  const width = Math.floor(printMm / MM_PER_PX);
  const scale = MM_PER_PX * CSS_PX_PER_MM;

  const blocks = (): Block[] => [
    textBlock(tune.title, 40, { bold: true, serif: true }),
    textBlock(headWords(report), 21),
    { markup: '', height: 10 },
    ...[...sheet.current!.querySelectorAll('[data-handout-line]')].map((line) => blockOf(line, scale)),
    ...legendWords(report).map((words) => textBlock(words, 19)),
  ];
  const keepSvg = async () => {
    const fonts = await Promise.all([
      fontRule('Bravura', bravura),
      fontRule('Academico', academico),
      fontRule('Alegreya', alegreya, '700'),
      fontRule('Alegreya Sans', alegreyaSans),
      fontRule('Alegreya Sans', alegreyaSansBold, '700'),
    ]);
    const drawing = singleSvg(blocks(), width, fonts.join(''), printMm);
    saveFile(`${tune.title}.svg`, new Blob([drawing], { type: 'image/svg+xml' }));
  };
  const keepPdf = async () => {
    setMaking(true);
    setProblem(null);
    const height = Math.floor((heightMm - 2 * PAPER_MARGIN_MM) / MM_PER_PX);
    const pages = pagesOf(blocks(), width, height);
    const answer = await ask(handoutRoutes.makePdf, { body: { title: tune.title, paper: options.paper, pages } });
    setMaking(false);
    if (answer.ok) saveFile(`${tune.title}.pdf`, answer.value.file);
    else setProblem(`The PDF was not made. ${failureWords(answer.failure)}`);
  };

  return (
    <div className="handout min-h-dvh">
      <RoomHeader open={open} room="hand-out" isHeading={false} />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-line bg-surface px-4 py-2 print:hidden">
        <label className="flex items-center gap-1.5">
          paper
          <Select value={options.paper} options={PAPER_NAMES} onChange={(paper) => setOptions({ ...options, paper })} />
        </label>
        {(['fingers', 'calls', 'letters'] as const).map((name) => (
          <label key={name} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-woad"
              checked={options[name]}
              onChange={({ target }) => setOptions({ ...options, [name]: target.checked })}
            />
            {name}
          </label>
        ))}
        <span className="ml-auto flex flex-wrap gap-2">
          <Button onClick={() => void keepSvg()}>Save as SVG</Button>
          <Button onClick={() => void keepPdf()} disabled={isMaking}>
            {isMaking ? 'Making the PDF …' : 'Save as PDF'}
          </Button>
          <Button look="main" onClick={() => window.print()}>
            Print
          </Button>
        </span>
        {problem && <Alert className="w-full">{problem}</Alert>}
      </div>
      <main
        className={`handout-paper mx-auto bg-white text-black shadow-md print:m-0 print:!w-auto print:!p-0 print:shadow-none paper-${options.paper}`}
        style={{ width: `${widthMm}mm`, padding: `${PAPER_MARGIN_MM}mm` }}
      >
        <h1 className="text-room leading-tight">{tune.title}</h1>
        <p className="mb-3 text-small">{headWords(report)}</p>
        <div ref={sheet}>
          {isReady ? (
            <HandoutLines report={report} width={width} scale={scale} options={options} />
          ) : (
            <p>Laying out the page …</p>
          )}
        </div>
        <ul className="text-fine">
          {legendWords(report).map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </main>
    </div>
  );
}
