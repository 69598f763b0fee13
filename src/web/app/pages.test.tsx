import 'fake-indexeddb/auto';
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { abilityRoutes, NO_ABILITY } from '#contract/ability';
import { bookRoutes } from '#contract/book';
import { likenessRoutes } from '#contract/imports';
import { logRoutes, USUAL_PRACTICE } from '#contract/log';
import { settingsRoutes } from '#contract/settings';
import { type TuneRecord, tuneRoutes, type TuneSummary } from '#contract/tunes';
import { versionRoutes } from '#contract/versions';
import { writtenNotes } from '#core/tune';
import { readAbc } from '#formats/abc';
import { BenchPage } from '../bench/BenchPage';
import { BookPage } from '../book/BookPage';
import { SHEETS } from '../commands/sheetList';
import DancePage from '../dance/DancePage';
import GroundPage from '../ground/GroundPage';
import LogPage from '../log/LogPage';
import PegsPage from '../pegs/PegsPage';
import { SettingsPage } from '../settings/SettingsPage';
import { type FakeServer, fakeServer } from '../testing/fakeServer';
import { renderPage } from '../testing/page';
import { standInForBrowser } from '../testing/standIns';
import { summary } from '../testing/summary';
import { TIDE_REEL } from '../testing/tideReel';
import AlignmentPage from '../versions/AlignmentPage';

const { tune } = readAbc(TIDE_REEL).tunes[0]!;
const AT = '2026-06-30T12:00:00.000Z';
/** Another tune for each test: what one leaves in the browser is none of the next one’s. */
let number = 0;
let ID = '';
let record: TuneRecord;

/** Engraving needs sizes of letters, which a simulated page has not: browser stories look at it. */
jest.mock('../score/fonts', () => ({ loadEngravingFonts: () => new Promise(() => undefined) }));

/** Finds a command in the palette by words of it, and does it. */
async function does(words: string): Promise<void> {
  await userEvent.keyboard('{Control>}k{/Control}');
  await userEvent.type(screen.getByRole('combobox'), words);
  await userEvent.keyboard('{Enter}');
}

let server: FakeServer;
beforeEach(() => {
  number += 1;
  ID = `7c5e2f5e-0000-4000-8000-${String(number).padStart(12, '0')}`;
  record = { id: ID, revision: 3, updatedAt: AT, hasSource: false, tune };
  localStorage.clear();
  server = fakeServer();
  server.answer(tuneRoutes.saveTune, { revision: 4, updatedAt: AT });
  standInForBrowser();
});

describe('the bench', () => {
  const show = () => renderPage(<BenchPage />, { path: '/tunes/:id', at: `/tunes/${ID}` });

  test('opens the tune with its verdict, and what is done by name is undone by key', async () => {
    server.answer(tuneRoutes.findTune, record);
    const { store } = show();
    expect(await screen.findByRole('heading', { level: 1, name: 'Reel of the Turning Tide' })).toBeTruthy();
    expect(document.querySelector('[data-verdict]')!.textContent).toMatch(/round|flips/);
    await does('First note');
    await does('Next note');
    await does('Next note');
    await does('Slur');
    const { open } = store.getState().openTune;
    expect(open!.past.map(({ label }) => label)).toEqual([expect.stringMatching(/^slur in /)]);
    await userEvent.keyboard('{Control>}z{/Control}');
    expect(store.getState().openTune.open!.past).toEqual([]);
  });

  test('the palette offers what applies, finds it by its name and does it', async () => {
    server.answer(tuneRoutes.findTune, record);
    const { store } = show();
    await screen.findByRole('heading', { level: 1 });
    await userEvent.keyboard('{Control>}k{/Control}');
    const palette = screen.getByRole('dialog', { name: 'What do you want to do?' });
    expect(within(palette).queryByText('Slur')).toBeNull();
    expect(within(palette).getByRole('option', { name: /Begin the tune on the other bow/ })).toBeTruthy();
    await userEvent.type(within(palette).getByRole('combobox'), 'the other bow');
    await userEvent.keyboard('{Enter}');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(store.getState().openTune.open!.past.map(({ label }) => label)).toEqual([
      expect.stringMatching(/^start on the (up|down)-bow$/),
    ]);
  });

  test.each(['patterns', 'form', 'keys', 'fingering', 'drones', 'ornaments', 'tune', 'twins'] as const)(
    'the sheet “%s” opens by its command and closes by Escape, with the keys back on the page',
    async (name) => {
      server.answer(tuneRoutes.findTune, record);
      server.answer(likenessRoutes.findPartLikenesses, { tunes: [], parts: [] });
      show();
      await screen.findByRole('heading', { level: 1 });
      await does(SHEETS[name].label);
      const isTool = SHEETS[name].tool !== undefined;
      const open = () => screen.queryByRole(isTool ? 'complementary' : 'dialog', { name: isTool ? 'Tools' : /./ });
      expect(open()).toBeTruthy();
      await userEvent.keyboard('{Escape}');
      await waitFor(() => expect(open()).toBeNull());
    },
  );

  test('a mark is made by its key, repeated on the next note by another, and the tool follows the selection', async () => {
    server.answer(tuneRoutes.findTune, record);
    const { store } = show();
    await screen.findByRole('heading', { level: 1 });
    await does('First note');
    await userEvent.keyboard('{Shift>}c{/Shift}{ArrowRight}{ArrowRight};');
    const marked = writtenNotes(store.getState().openTune.open!.tune).filter(({ marks }) => marks?.includes('cut'));
    const notes = writtenNotes(tune);
    expect(marked.map(({ id }) => id)).toEqual([notes[0]!.id, notes[2]!.id]);
    await does('Drones and double stops');
    const panel = screen.getByRole('complementary', { name: 'Tools' });
    const atHand = () => panel.querySelector('[data-at-hand]')!.textContent;
    const before = atHand();
    await userEvent.click(within(panel).getByRole('button', { name: 'Next note (→)' }));
    expect(atHand()).not.toBe(before);
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('complementary', { name: 'Tools' })).toBeNull());
  });

  test('slowing down what is heard edits nothing; the goal is an edit, and steps of it are undone at once', async () => {
    server.answer(tuneRoutes.findTune, record);
    const { store } = show();
    await screen.findByRole('heading', { level: 1 });
    const open = () => store.getState().openTune.open!;
    await userEvent.keyboard('[[[[');
    expect(document.querySelector('[data-practice]')!.getAttribute('data-practice')).toBe('90');
    expect(open().past).toEqual([]);
    await userEvent.keyboard('{{}{{}{{}');
    expect(open().past).toHaveLength(1);
    expect(open().tune.tempoBpm).not.toBe(tune.tempoBpm);
    await userEvent.keyboard('{Control>}z{/Control}');
    expect(open().tune.tempoBpm).toBe(tune.tempoBpm);
  });

  test('undo is still there after another room and back', async () => {
    server.answer(tuneRoutes.findTune, record);
    const first = show();
    await screen.findByRole('heading', { level: 1 });
    await does('First note');
    await userEvent.keyboard('{Shift>}c{/Shift}');
    const edited = first.store.getState().openTune.open!.tune;
    first.unmount();
    server.answer(tuneRoutes.findTune, { ...record, revision: 4, tune: structuredClone(edited) });
    const again = show();
    await screen.findByRole('heading', { level: 1 });
    expect(screen.getByRole('button', { name: /^Undo: cut in / })).toHaveProperty('disabled', false);
    await userEvent.keyboard('{Control>}z{/Control}');
    expect(again.store.getState().openTune.open!.tune).toEqual(tune);
  });

  test('a tune that is not there is said to be so, and is tried again', async () => {
    server.refuse(tuneRoutes.findTune, 'not-found');
    show();
    expect(await screen.findByRole('heading', { name: 'This tune cannot be opened' })).toBeTruthy();
    server.answer(tuneRoutes.findTune, record);
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('heading', { level: 1, name: 'Reel of the Turning Tide' })).toBeTruthy();
  });

  test('a tune without notes offers to enter some', async () => {
    const empty = { ...tune, parts: [{ name: 'A', events: [{ kind: 'bar' as const, id: 'b1' }] }], form: ['A'] };
    server.answer(tuneRoutes.findTune, { ...record, tune: empty });
    show();
    await screen.findByText('This tune has no notes yet.');
    await userEvent.click(screen.getByRole('button', { name: 'Enter notes' }));
    expect(document.querySelector('[data-entry-field]')).not.toBeNull();
  });
});

describe('the book', () => {
  const facets = { types: [], keys: [], tunings: [], tags: [], techniques: [], tunes: 1, removed: 0, asOf: AT };
  const show = () => renderPage(<BookPage />, { path: '/', at: '/' });
  const answerWith = (tunes: readonly TuneSummary[]) => {
    server.answer(bookRoutes.listTunes, { tunes: [...tunes], next: null, isNear: false });
    server.answer(bookRoutes.countBook, { tunes: tunes.length, notRound: 0, short: 0 });
    server.answer(bookRoutes.listFacets, { ...facets, tunes: tunes.length });
    server.answer(bookRoutes.listViews, { views: [] });
  };

  test('tells how many tunes there are and asks for those that are looked for', async () => {
    answerWith([summary(1, { id: ID, title: 'Reel of the Turning Tide' })]);
    show();
    await screen.findByText(/1 tune/);
    await userEvent.type(screen.getAllByRole('textbox')[0]!, 'tide');
    await waitFor(() =>
      expect(
        server.heard.some(({ route, search }) => route === bookRoutes.listTunes && search.get('words') === 'tide'),
      ).toBe(true),
    );
  });

  test('an empty book says what can be done first', async () => {
    answerWith([]);
    show();
    expect(await screen.findByRole('button', { name: /demo/i })).toBeTruthy();
  });

  test('a server that does not answer is said to be so', async () => {
    answerWith([]);
    server.silence(bookRoutes.listTunes);
    show();
    expect(await screen.findByText(/The server does not answer/)).toBeTruthy();
  });
});

describe('other rooms', () => {
  test('the dance check tells to which tempo the tune stands', async () => {
    server.answer(tuneRoutes.findTune, record);
    renderPage(<DancePage />, { path: '/tunes/:id/dance', at: `/tunes/${ID}/dance` });
    expect(await screen.findByRole('heading', { level: 1, name: /Reel of the Turning Tide/ })).toBeTruthy();
    expect(screen.getByText('trying each change …')).toBeTruthy();
  });

  test('the key sheet shows the key under the hand', async () => {
    server.answer(tuneRoutes.findTune, record);
    renderPage(<GroundPage />, { path: '/tunes/:id/ground', at: `/tunes/${ID}/ground` });
    expect((await screen.findAllByText(/D major/)).length).toBeGreaterThan(0);
  });

  test('settings beat by beat say what to do where there is no other', async () => {
    server.answer(tuneRoutes.findTune, record);
    server.answer(versionRoutes.listVersions, { versions: [] });
    renderPage(<AlignmentPage />, { path: '/tunes/:id/settings', at: `/tunes/${ID}/settings` });
    await waitFor(() => expect(document.body.textContent).toMatch(/setting/i));
  });

  test('the peg box shows the fiddle and the way to another tuning', async () => {
    renderPage(<PegsPage />, { path: '/pegs', at: '/pegs?to=A3%20E4%20A4%20E5' });
    expect(await screen.findByLabelText('into')).toBeTruthy();
  });

  test('a choice of the settings is sent on the revision it was made on', async () => {
    server.answer(settingsRoutes.saveSettings, { revision: 1, changed: [], compared: 0 });
    renderPage(<SettingsPage />, { path: '/settings', at: '/settings' });
    const choice = (await screen.findAllByRole('radio')).find((one) => !(one as HTMLInputElement).checked)!;
    await act(() => userEvent.click(choice));
    const saved = () => server.heard.find(({ route }) => route === settingsRoutes.saveSettings);
    await waitFor(() => expect(saved()).toBeTruthy());
    expect(saved()!.body).toMatchObject({ baseRevision: 0 });
  });

  test('a limit that the log says is taken only by a press, with all that goes with it', async () => {
    const kinds = { crossing: { mean: Math.log(1.1), low: 0.02, high: 0.15, attempts: 64 } };
    server.answer(abilityRoutes.findAbility, {
      ability: { ...NO_ABILITY, attempts: 64, since: '2026-05-03', kinds },
      isCurrent: true,
      left: 0,
    });
    server.answer(settingsRoutes.saveSettings, { revision: 1, changed: [], compared: 0 });
    renderPage(<SettingsPage />, { path: '/settings', at: '/settings' });
    const take = await screen.findByRole('button', { name: 'Take 50 ms for crossings' });
    expect(server.heard.some(({ route }) => route === settingsRoutes.saveSettings)).toBe(false);
    await act(() => userEvent.click(take));
    const saved = () => server.heard.find(({ route }) => route === settingsRoutes.saveSettings);
    await waitFor(() => expect(saved()).toBeTruthy());
    const { limits } = (saved()!.body as { settings: { limits: Record<string, object> } }).settings;
    expect(limits.crossingMs).toMatchObject({ value: 50, source: 'learnt', attempts: 64 });
    expect(limits.crossingMsPerDegree).toMatchObject({ value: 1.36, source: 'learnt' });
    expect(limits.strokeMs).toBeUndefined();
  });

  test('the log tells what was played day by day and how a tune comes on; an empty one says where entries come from', async () => {
    server.answer(logRoutes.findSums, { sums: [] });
    const empty = renderPage(<LogPage />, { path: '/log', at: '/log' });
    expect(await screen.findByText(/Nothing is logged/)).toBeTruthy();
    empty.unmount();
    const span = { part: 'A', from: writtenNotes(tune)[0]!.id, to: writtenNotes(tune)[7]!.id };
    const days = ['2026-06-01', '2026-06-02', '2026-06-03', '2026-06-05', '2026-06-06'];
    server.answer(tuneRoutes.findTune, record);
    server.answer(logRoutes.findTunePractice, { revision: 0, practice: USUAL_PRACTICE });
    server.answer(logRoutes.findSums, {
      sums: days.map((day) => ({
        day,
        tuneId: ID,
        title: tune.title,
        what: 'bite' as const,
        drill: null,
        wrong: 'crossing' as const,
        attempts: 4,
        clean: 3,
        cleanBpm: 80,
        minutes: 6,
      })),
    });
    server.answer(logRoutes.findHistory, {
      days: days.map((day, i) => ({
        tuneId: ID,
        title: tune.title,
        span,
        day,
        attempts: 4,
        clean: 3,
        endedClean: true,
        cleanBpm: 70 + 3 * i,
        wishBpm: 109,
        minutes: 20,
      })),
    });
    const shown = renderPage(<LogPage />, { path: '/log', at: '/log?days=3650' });
    expect(await screen.findByText('Saturday 6 June 2026')).toBeTruthy();
    expect(screen.getByText('20 times')).toBeTruthy();
    await waitFor(() => expect(document.querySelector('[data-forecast]')).toBeTruthy());
    expect(document.querySelector('[data-forecast]')!.textContent).toMatch(/109/);
    expect(screen.getByText('+17 %')).toBeTruthy();
    // What does not come is said where it would stand, and what is there stays.
    shown.unmount();
    server.refuse(logRoutes.findHistory, 'database-away');
    renderPage(<LogPage />, { path: '/log', at: '/log?days=3650' });
    expect(await screen.findByRole('alert')).toBeTruthy();
    expect(screen.getByText('Saturday 6 June 2026')).toBeTruthy();
  });
});
