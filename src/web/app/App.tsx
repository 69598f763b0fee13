import { BookOpen, ChartSpline, CircleQuestionMark, Music3, Ruler, SlidersHorizontal } from 'lucide-react';
import { type ComponentType, useState } from 'react';
import { createBrowserRouter, Link, NavLink, Outlet, useLocation, useMatch, useRouteError } from 'react-router';
import { useSettingsQuery } from '../api/settingsApi';
import { BookPage } from '../book/BookPage';
import { HelpSheet } from '../help/HelpSheet';
import { store } from '../store/theStore';
import { SignButton } from '../ui/Button';
import { PageProblem } from '../ui/PageState';
import { DanceSign, NameSign, PegSign, PracticeSign } from '../ui/signs';
import { ThemeButton } from '../ui/ThemeButton';
import { isForPage, usePageKeys } from '../ui/usePageKeys';
import { useTitle } from '../ui/useTitle';
import { lazyPage } from './lazyPage';

/** A room in which a tune is open: the bench joins the store before it is shown. */
const withBench = async <T,>(room: Promise<T>): Promise<T> => {
  const [loaded, { joinOpenTune }] = await Promise.all([room, import('../openTune/joinOpenTune')]);
  joinOpenTune(store);
  return loaded;
};

/** Every room but the book is fetched when it is entered. */
const BenchPage = lazyPage(
  () => withBench(import('../bench/BenchPage')).then((room) => ({ default: room.BenchPage })),
  'the bench',
);
const HandoutPage = lazyPage(
  () => withBench(import('../handout/HandoutPage')).then((room) => ({ default: room.HandoutPage })),
  'the hand-out',
);
const SettingsPage = lazyPage(
  () => import('../settings/SettingsPage').then((room) => ({ default: room.SettingsPage })),
  'the settings',
);
const PrintedBookPage = lazyPage(() => import('../handout/PrintedBookPage'), 'the printed book');
const AlignmentPage = lazyPage(() => withBench(import('../versions/AlignmentPage')), 'the settings side by side');
const GroundPage = lazyPage(() => withBench(import('../ground/GroundPage')), 'the key sheet');
const DancePage = lazyPage(() => withBench(import('../dance/DancePage')), 'the dance check');
/** Parts of the pages in all their states: for those who build it, and not shipped. */
const GalleryPage = import.meta.env.DEV ? lazyPage(() => import('../gallery/GalleryPage'), 'the gallery') : null;
const TodayPage = lazyPage(() => withBench(import('../practice/TodayPage')), 'today’s practice');
const PracticePage = lazyPage(() => withBench(import('../practice/PracticePage')), 'the practice room');
const RunPage = lazyPage(() => withBench(import('../practice/RunPage')), 'the practice room');
const TechniquePage = lazyPage(() => withBench(import('../practice/TechniquePage')), 'the techniques');
const LogPage = lazyPage(() => withBench(import('../log/LogPage')), 'the log');
const SetsPage = lazyPage(() => import('../sets/SetsPage'), 'the sets');
const PegsPage = lazyPage(() => import('../pegs/PegsPage'), 'the peg box');

export const router = createBrowserRouter([
  { path: '/printed-book', element: <PrintedBookPage />, errorElement: <Broken /> },
  { path: '/tunes/:id/handout', element: <HandoutPage />, errorElement: <Broken /> },
  {
    element: <Frame />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <BookPage /> },
      { path: '/tunes/:id', element: <BenchPage /> },
      { path: '/tunes/:id/ground', element: <GroundPage /> },
      { path: '/tunes/:id/dance', element: <DancePage /> },
      { path: '/tunes/:id/settings', element: <AlignmentPage /> },
      { path: '/tunes/:id/practice', element: <PracticePage /> },
      { path: '/tunes/:id/practice/:item', element: <RunPage /> },
      { path: '/practice', element: <TodayPage /> },
      { path: '/practice/technique/:technique?', element: <TechniquePage /> },
      { path: '/log', element: <LogPage /> },
      { path: '/sets/:setId?', element: <SetsPage /> },
      { path: '/pegs', element: <PegsPage /> },
      { path: '/settings', element: <SettingsPage /> },
      ...(GalleryPage ? [{ path: '/gallery', element: <GalleryPage /> }] : []),
      { path: '*', element: <Nowhere /> },
    ],
  },
]);

/** The rail with the rooms that exist, and the room itself. */
function Frame() {
  // What every room counts with.
  useSettingsQuery();
  const bench = useMatch('/tunes/:id/*');
  const [lastTune, setLastTune] = useState<string | null>(null);
  const tuneId = bench?.params.id ?? null;
  if (tuneId !== null && tuneId !== lastTune) setLastTune(tuneId);
  const { pathname } = useLocation();
  const [hasHelp, setHelp] = useState(false);
  const isBench = useMatch('/tunes/:id') !== null;
  usePageKeys((event) => {
    // The bench answers it itself, with all of its keys.
    if (event.key !== '?' || isBench || event.defaultPrevented || !isForPage(event)) return;
    event.preventDefault();
    setHelp(true);
  });
  return (
    <div className="flex h-dvh flex-col md:flex-row">
      <a
        href="#room"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-surface focus:px-3 focus:py-2"
      >
        Skip to the page
      </a>
      <nav
        aria-label="Rooms"
        className="flex items-center border-line max-md:overflow-x-auto max-md:border-b max-md:px-2 max-sm:px-1.5 md:w-[76px] md:flex-col md:border-r md:pt-3 md:pb-2"
      >
        <Link to="/" aria-label="Morrin, to the book" className="grid place-items-center p-1.5 max-sm:hidden md:mb-2">
          <NameSign />
        </Link>
        <Room to="/" name="Book" Icon={BookOpen} />
        {lastTune !== null && <Room to={`/tunes/${lastTune}`} name="Bench" Icon={Music3} />}
        {lastTune !== null && <Room to={`/tunes/${lastTune}/ground`} name="Ground" Icon={Ruler} />}
        {lastTune !== null && <Room to={`/tunes/${lastTune}/dance`} name="Dance" Icon={DanceSign} />}
        <Room to="/practice" name="Practice" Icon={PracticeSign} />
        <Room to="/log" name="Log" Icon={ChartSpline} />
        <Room to="/pegs" name="Pegs" Icon={PegSign} />
        <div className="ml-auto flex items-center md:mt-auto md:ml-0 md:w-full md:flex-col">
          <Room to="/settings" name="Settings" Icon={SlidersHorizontal} />
          <div className="flex">
            <SignButton label="Help (?)" onClick={() => setHelp(true)}>
              <CircleQuestionMark size={18} aria-hidden />
            </SignButton>
            {/* A phone's rail has no room for it: there it stands in the settings. */}
            <ThemeButton className="max-sm:hidden" />
          </div>
        </div>
      </nav>
      <div id="room" className="min-h-0 min-w-0 flex-1" tabIndex={-1}>
        <Outlet />
      </div>
      {hasHelp && <HelpSheet path={pathname} onClose={() => setHelp(false)} />}
    </div>
  );
}

function Room({
  to,
  name,
  Icon,
}: {
  readonly to: string;
  readonly name: string;
  readonly Icon: ComponentType<{ readonly size?: number; readonly strokeWidth?: number }>;
}) {
  return (
    <NavLink
      to={to}
      end
      className={({ isActive }) =>
        `flex items-center gap-1 px-2 py-2 text-hint max-md:min-h-11 max-sm:min-w-11 max-sm:justify-center max-sm:px-0 md:w-full md:flex-col md:border-l-3 ${
          isActive ? 'border-woad bg-surface font-bold text-ink' : 'border-transparent text-muted hover:text-ink'
        }`
      }
    >
      <Icon size={20} strokeWidth={1.6} />
      {/* On a phone the signs alone have room. */}
      <span className="max-sm:sr-only">{name}</span>
    </NavLink>
  );
}

/** What is shown where a page fails: nothing is lost by it. */
function Broken() {
  const error = useRouteError();
  return (
    <PageProblem title="Something went wrong on this page">
      <p className="mb-2">What you did last is saved in this browser and will be here when you reload the page.</p>
      <p className="mb-4 text-small text-muted">{error instanceof Error ? error.message : 'An unknown error.'}</p>
      <div className="flex gap-3">
        <button
          type="button"
          className="rounded-md border border-woad bg-woad px-3 py-1.5 font-medium text-on-woad"
          onClick={() => window.location.reload()}
        >
          Reload
        </button>
        <Link to="/" reloadDocument className="self-center text-woad underline">
          Back to the book
        </Link>
      </div>
    </PageProblem>
  );
}

function Nowhere() {
  useTitle('Nothing here');
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="mb-2 text-2xl">Nothing here</h1>
      <p>
        There is no page at this address.{' '}
        <Link to="/" className="text-woad underline">
          Back to the book
        </Link>
      </p>
    </main>
  );
}
