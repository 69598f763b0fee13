import { useEffect, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { type TuneChoice, tuneChoiceSchema } from '#contract/book';
import { bookRoutes } from '#contract/book';
import { type Paper, PAPER_MARGIN_MM, PAPERS } from '#contract/handout';
import { handoutRoutes } from '#contract/handout';
import { tuneRoutes } from '#contract/tunes';
import { reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { useSettingsQuery } from '../api/settingsApi';
import { loadEngravingFonts } from '../score/fonts';
import { selectPlayer } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { saveFile } from '../ui/saveFile';
import { Select } from '../ui/Select';
import { useTitle } from '../ui/useTitle';
import { type Block, contentsBlock, placedPages, textBlock } from './composeSvg';
import { CSS_PX_PER_MM, HandoutLines, mmPerPx } from './HandoutLines';
import { PAPER_NAMES } from './paperNames';
import { tuneBlocks } from './tuneBlocks';

/** Tunes that are set into one book: more would take minutes and a file that no reader likes. */
const MAX_TUNES = 200;
const FOOT_PX = 50;
const LINE_OPTIONS = { fingers: true, strings: false, calls: false, letters: false };

type Stage =
  | { readonly kind: 'ready' }
  | { readonly kind: 'laying'; readonly done: number; readonly of: number }
  | { readonly kind: 'making' }
  | { readonly kind: 'made'; readonly tunes: number; readonly pages: number }
  | { readonly kind: 'failed'; readonly words: string };

/** Many tunes as one PDF with contents: each is engraved in turn on this page and taken over into the file. */
export default function PrintedBookPage() {
  const state = useLocation().state as { choice?: unknown; title?: unknown } | null;
  const parsed = tuneChoiceSchema.safeParse(state?.choice ?? { filter: {} });
  const choice: TuneChoice = parsed.success ? parsed.data : { filter: {} };
  const [paper, setPaper] = useState<Paper>('a4');
  const [title, setTitle] = useState(() => (typeof state?.title === 'string' ? state.title : 'Tune book'));
  const [stage, setStage] = useState<Stage>({ kind: 'ready' });
  const [current, setCurrent] = useState<TuneReport | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const isStopped = useRef(false);
  // What the plans are counted with.
  useSettingsQuery();
  const player = useAppSelector(selectPlayer);
  const { widthMm, heightMm } = PAPERS[paper];
  const width = Math.floor((widthMm - 2 * PAPER_MARGIN_MM) / mmPerPx());
  const height = Math.floor((heightMm - 2 * PAPER_MARGIN_MM) / mmPerPx());
  const scale = mmPerPx() * CSS_PX_PER_MM;

  useTitle('Printed book');
  useEffect(() => {
    return () => {
      isStopped.current = true;
    };
  }, []);

  const make = async () => {
    isStopped.current = false;
    setStage({ kind: 'laying', done: 0, of: 0 });
    const ids = await chosenIds(choice);
    if (!ids.ok) return setStage({ kind: 'failed', words: ids.words });
    await loadEngravingFonts();
    const tunes: { title: string; blocks: Block[] }[] = [];
    for (const id of ids.ids) {
      if (isStopped.current) return setStage({ kind: 'ready' });
      setStage({ kind: 'laying', done: tunes.length, of: ids.ids.length });
      const answer = await ask(tuneRoutes.findTune, { params: { id } });
      if (!answer.ok) return setStage({ kind: 'failed', words: failureWords(answer.failure) });
      const report = reportTune(answer.value.tune as Tune, player);
      setCurrent(report);
      await drawn();
      const blocks = tuneBlocks(report, sheet.current!, { width, scale, titlePx: 36, headPx: 19 });
      tunes.push({ title: report.tune.title, blocks: [...blocks, { markup: '', height: 28 }] });
    }
    setCurrent(null);
    setStage({ kind: 'making' });
    const pages = bookPages(title.trim() || 'Tune book', tunes, width, height);
    const answer = await ask(handoutRoutes.makePdf, { body: { title: title.trim() || 'Tune book', paper, pages } });
    if (!answer.ok) return setStage({ kind: 'failed', words: failureWords(answer.failure) });
    saveFile(`${title.trim() || 'Tune book'}.pdf`, answer.value.file);
    setStage({ kind: 'made', tunes: tunes.length, pages: pages.length });
  };
  const isBusy = stage.kind === 'laying' || stage.kind === 'making';

  return (
    <main className="mx-auto flex min-h-dvh max-w-2xl flex-col gap-4 px-6 py-10">
      <Link to="/" className="text-woad underline">
        Back to the book
      </Link>
      <h1 className="text-page">Printed book</h1>
      <p>
        Every tune with its bow signs and fingers, a page of contents before them. At most {MAX_TUNES} tunes go into one
        book.
      </p>
      <label className="flex flex-col gap-1">
        <span className="font-bold">Name of the book</span>
        <input
          value={title}
          maxLength={200}
          disabled={isBusy}
          onChange={({ target }) => setTitle(target.value)}
          className={INPUT}
        />
      </label>
      <label className="flex items-center gap-2">
        <span className="font-bold">Paper</span>
        <Select value={paper} options={PAPER_NAMES} disabled={isBusy} onChange={setPaper} />
      </label>
      <div className="flex items-center gap-3">
        <Button look="main" disabled={isBusy} onClick={() => void make()}>
          Make the book
        </Button>
        {stage.kind === 'laying' && <Button onClick={() => (isStopped.current = true)}>Cancel</Button>}
      </div>
      <div role="status">
        {stage.kind === 'laying' && (
          <>
            <p>{stage.of === 0 ? 'Looking for the tunes …' : `Setting tune ${stage.done + 1} of ${stage.of}`}</p>
            <progress
              className="w-full accent-woad"
              value={stage.done}
              max={Math.max(1, stage.of)}
              aria-label="Tunes set"
            />
          </>
        )}
        {stage.kind === 'making' && <p>Making the PDF …</p>}
        {stage.kind === 'made' && (
          <p>
            The book is made: {counted(stage.tunes, 'tune')} on {stage.pages} pages.
          </p>
        )}
      </div>
      {stage.kind === 'failed' && <Alert>The book could not be made. {stage.words}</Alert>}
      {/* Where each tune is engraved, off the page. */}
      <div
        aria-hidden
        className="pointer-events-none fixed top-0 left-[200vw] bg-white text-black"
        style={{ width: `${widthMm}mm` }}
      >
        <div ref={sheet} className="handout">
          {current && <HandoutLines report={current} width={width} scale={scale} options={LINE_OPTIONS} />}
        </div>
      </div>
    </main>
  );
}

/** Waits until what was rendered is laid out and engraved. */
function drawn(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(resolve, 0))));
}

async function chosenIds(choice: TuneChoice): Promise<{ ok: true; ids: string[] } | { ok: false; words: string }> {
  if ('ids' in choice)
    return choice.ids.length <= MAX_TUNES
      ? { ok: true, ids: [...new Set(choice.ids)] }
      : { ok: false, words: tooMany(choice.ids.length) };
  const answer = await ask(bookRoutes.listTunes, { query: { ...choice.filter, sort: 'title', limit: MAX_TUNES } });
  if (!answer.ok) return { ok: false, words: failureWords(answer.failure as Failure) };
  if (answer.value.next !== null) return { ok: false, words: tooMany(null) };
  if (answer.value.tunes.length === 0) return { ok: false, words: 'There is no tune to print.' };
  return { ok: true, ids: answer.value.tunes.map(({ id }) => id) };
}

function tooMany(count: number | null): string {
  return `These are ${count === null ? `more than ${MAX_TUNES}` : count} tunes; choose at most ${MAX_TUNES}.`;
}

/** Title and contents, then the tunes one after another, pages numbered through. */
function bookPages(
  title: string,
  tunes: readonly { title: string; blocks: readonly Block[] }[],
  width: number,
  height: number,
): string[] {
  const foot = (offset: number) => ({
    height: FOOT_PX,
    markup: (page: number) =>
      `<text x="${width / 2}" y="36" text-anchor="middle" font-family="Alegreya Sans" font-size="18px" fill="#000">${page + 1 + offset}</text>`,
  });
  const heads = [textBlock(title, 52, { bold: true, serif: true }), { markup: '', height: 24 }];
  // The contents' own length does not depend on the numbers in them.
  const count = placedPages(
    [...heads, ...tunes.map((tune) => contentsBlock(tune.title, '0', width, 20))],
    width,
    height,
    foot(0),
  ).pages.length;
  const { pages, pageOf } = placedPages(
    tunes.flatMap(({ blocks }) => blocks),
    width,
    height,
    foot(count),
  );
  let block = 0;
  const contents = tunes.map((tune) => {
    const number = String(pageOf[block]! + 1 + count);
    block += tune.blocks.length;
    return contentsBlock(tune.title, number, width, 20);
  });
  return [...placedPages([...heads, ...contents], width, height, foot(0)).pages, ...pages];
}
