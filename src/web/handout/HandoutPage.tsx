import alegreya from '@fontsource/alegreya/files/alegreya-latin-700-normal.woff2?url&no-inline';
import alegreyaSans from '@fontsource/alegreya-sans/files/alegreya-sans-latin-400-normal.woff2?url&no-inline';
import alegreyaSansBold from '@fontsource/alegreya-sans/files/alegreya-sans-latin-700-normal.woff2?url&no-inline';
import academico from '@vexflow-fonts/academico/academico.woff2?url&no-inline';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url&no-inline';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Paper, PAPER_MARGIN_MM, PAPERS } from '#contract/handout';
import { handoutRoutes } from '#contract/handout';
import { type Landmark, withLandmarkNames } from '#core/practice';
import { reportTune } from '#core/report';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { ask } from '../api/ask';
import { useTunePractice } from '../api/useTunePractice';
import { useVersionsQuery } from '../api/versionsApi';
import { TunePicker } from '../findTune/TunePicker';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { RoomHeader } from '../openTune/RoomHeader';
import { useTuneUndoKeys } from '../openTune/useTuneUndoKeys';
import { markPath } from '../score/markPaths';
import { useEngravingFonts } from '../score/useEngravingFonts';
import { selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Select } from '../ui/Select';
import { type Block, fontRule, legendBlocks, pagesOf, singleSvg, textBlock, textBlocks } from './composeSvg';
import {
  CSS_PX_PER_MM,
  HandoutLines,
  headWords,
  type Legend,
  legendOf,
  type LineOptions,
  mmPerPx,
  type StaffMm,
  STAVES_MM,
} from './HandoutLines';
import { PAPER_NAMES } from './paperNames';
import { readTeachersNote, writeTeachersNote } from './teachersNote';
import { linesIn, tuneBlocks } from './tuneBlocks';
import { useSecondTune } from './useSecondTune';

interface Options extends LineOptions {
  readonly paper: Paper;
  readonly staffMm: StaffMm;
}
const ROWS = ['fingers', 'strings', 'calls', 'letters'] as const;
const NO_LANDMARKS: readonly Landmark[] = [];
/** The tune as it is, where versions are chosen from. */
const AS_IT_IS = 'now';

/** A tune on paper, in black: to be printed, or saved as SVG or PDF. */
export function HandoutPage() {
  return <OpenTunePage page={Handout} />;
}

function Handout({ open, report: now }: OpenTuneProps) {
  const isReady = useEngravingFonts();
  const words = useAppSelector(selectWords);
  const { tune, id } = open;
  useTuneUndoKeys();
  const { data: versions } = useVersionsQuery(id);
  const [versionId, setVersion] = useState(AS_IT_IS);
  const version = versions?.find((one) => one.id === versionId) ?? null;
  const { practice } = useTunePractice(id);
  const [hasLandmarks, setShowsLandmarks] = useState(false);
  const named = hasLandmarks ? practice.landmarks : NO_LANDMARKS;
  const report = useMemo(() => {
    if (!version && named.length === 0) return now;
    return reportTune(withLandmarkNames(version?.tune ?? now.tune, named), now.settings);
  }, [version, now, named]);
  const [options, setOptions] = useState<Options>({
    paper: 'a4',
    staffMm: 8,
    fingers: true,
    strings: false,
    calls: false,
    letters: false,
  });
  const [note, setNote] = useState(() => readTeachersNote(id));
  const [problem, setProblem] = useState<string | null>(null);
  const [isMaking, setMaking] = useState(false);
  const [pageCount, setPageCount] = useState<number | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const secondSheet = useRef<HTMLDivElement>(null);
  const { widthMm, heightMm } = PAPERS[options.paper];
  const printMm = widthMm - 2 * PAPER_MARGIN_MM;
  const perPx = mmPerPx(options.staffMm);
  const width = Math.floor(printMm / perPx);
  const height = Math.floor((heightMm - 2 * PAPER_MARGIN_MM) / perPx);
  const scale = perPx * CSS_PX_PER_MM;
  const head = `${headWords(report)}${version ? ` · ${version.name}` : ''}`;
  const [secondId, setSecondId] = useState<string | null>(null);
  const second = useSecondTune(secondId);
  const legend = useMemo(
    () => legendOf([report, ...(second.report ? [second.report] : [])], options, words),
    [report, second.report, options, words],
  );

  const blocks = (): Block[] => [
    textBlock(tune.title, 40, { bold: true, serif: true }),
    ...textBlocks(head, 21, width),
    ...textBlocks(note, 21, width),
    { markup: '', height: 10 },
    ...linesIn(sheet.current!, scale),
    ...(second.report
      ? [
          { markup: '', height: 16 },
          ...tuneBlocks(second.report, secondSheet.current!, { width, scale, titlePx: 40, headPx: 21 }),
        ]
      : []),
    ...legend.flatMap((entry) => legendBlocks(entry, 19, width)),
  ];
  // The engraving is drawn first; how many pages it takes is told once it stands.
  useEffect(() => {
    if (!isReady) return;
    const frame = requestAnimationFrame(() => sheet.current && setPageCount(pagesOf(blocks(), width, height).length));
    return () => cancelAnimationFrame(frame);
  });
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
    const pages = pagesOf(blocks(), width, height);
    const answer = await ask(handoutRoutes.makePdf, { body: { title: tune.title, paper: options.paper, pages } });
    setMaking(false);
    if (answer.ok) saveFile(`${tune.title}.pdf`, answer.value.file);
    else setProblem(`The PDF could not be made. ${failureWords(answer.failure)}`);
  };

  return (
    <div className="handout min-h-dvh">
      <RoomHeader open={open} room="hand-out" isHeading={false} />
      <section
        aria-label="How it is printed"
        className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-line bg-surface px-4 py-2 print:hidden"
      >
        {versions && versions.length > 0 && (
          <label className="flex items-center gap-1.5">
            version
            <Select
              value={versionId}
              options={[
                { value: AS_IT_IS, name: 'as it is now' },
                ...versions.map((one) => ({ value: one.id, name: one.name })),
              ]}
              onChange={setVersion}
            />
          </label>
        )}
        <label className="flex items-center gap-1.5">
          paper
          <Select value={options.paper} options={PAPER_NAMES} onChange={(paper) => setOptions({ ...options, paper })} />
        </label>
        <label className="flex items-center gap-1.5">
          staff
          <Select
            value={options.staffMm}
            options={STAVES_MM.map((mm) => ({ value: mm, name: `${mm} mm` }))}
            onChange={(staffMm) => setOptions({ ...options, staffMm })}
          />
        </label>
        {ROWS.map((name) => (
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
        {practice.landmarks.length > 0 && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-woad"
              checked={hasLandmarks}
              onChange={({ target }) => setShowsLandmarks(target.checked)}
            />
            landmarks
          </label>
        )}
        {secondId === null ? (
          <TunePicker onPick={({ id: picked }) => setSecondId(picked)}>Add a second tune</TunePicker>
        ) : (
          <Button onClick={() => setSecondId(null)}>Remove the second tune</Button>
        )}
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <span role="status" className="text-small text-muted" data-pages={pageCount ?? undefined}>
            {pageCount === null ? '' : counted(pageCount, 'page')}
          </span>
          <Button onClick={() => void keepSvg()}>Save as SVG</Button>
          <Button onClick={() => void keepPdf()} disabled={isMaking}>
            {isMaking ? 'Making the PDF …' : 'Save as PDF'}
          </Button>
          <Button look="main" onClick={() => window.print()}>
            Print
          </Button>
        </span>
        <label className="flex w-full items-start gap-2">
          <span className="pt-1">your note</span>
          <textarea
            value={note}
            rows={1}
            maxLength={600}
            placeholder="for the learner, printed under the title"
            onChange={({ target }) => {
              setNote(target.value);
              writeTeachersNote(id, target.value);
            }}
            className="field-sizing-content min-h-8 flex-1 rounded-md border border-line bg-surface px-2 py-1"
          />
        </label>
        {problem && <Alert className="w-full">{problem}</Alert>}
        {second.problem && <Alert className="w-full">The second tune cannot be shown. {second.problem}</Alert>}
      </section>
      {/* Paper is wider than a phone: it is moved under it. */}
      <main className="overflow-x-auto print:overflow-visible" tabIndex={0} aria-label="The page">
        <div
          className={`handout-paper mx-auto bg-white text-black shadow-md print:m-0 print:!w-auto print:!p-0 print:shadow-none paper-${options.paper}`}
          style={{ width: `${widthMm}mm`, padding: `${PAPER_MARGIN_MM}mm` }}
        >
          <h1 className="text-room leading-tight">{tune.title}</h1>
          <p className="text-small">{head}</p>
          {note.trim() !== '' && (
            <p className="text-small whitespace-pre-line" data-teachers-note>
              {note.trim()}
            </p>
          )}
          <div ref={sheet} className="mt-3">
            {isReady ? (
              <HandoutLines report={report} width={width} scale={scale} options={options} />
            ) : (
              <p>Laying out the page …</p>
            )}
          </div>
          {isReady && second.report && (
            <section className="mt-4" aria-label={second.report.tune.title} data-second-tune>
              <h2 className="text-room leading-tight">{second.report.tune.title}</h2>
              <p className="text-small">{headWords(second.report)}</p>
              <div ref={secondSheet} className="mt-2">
                <HandoutLines report={second.report} width={width} scale={scale} options={options} />
              </div>
            </section>
          )}
          <ul className="text-fine">
            {legend.map((entry) => (
              <LegendLine key={entry.words} entry={entry} />
            ))}
          </ul>
        </div>
      </main>
    </div>
  );
}

function LegendLine({ entry: { sign, words } }: { readonly entry: Legend }) {
  if (sign === null) return <li>{words}</li>;
  const { d, isFilled } = markPath(sign, 11, 11);
  return (
    <li className="flex items-center gap-1.5">
      <svg width="22" height="14" viewBox="0 0 22 14" aria-hidden>
        <path d={d} fill={isFilled ? '#000' : 'none'} stroke={isFilled ? 'none' : '#000'} strokeWidth="1.4" />
      </svg>
      {words}
    </li>
  );
}
