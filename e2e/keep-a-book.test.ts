import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { bringIn, openTune } from './bench';
import { expect, type Page, test } from './story';

const table = (page: Page) => page.getByRole('table', { name: 'Tunes' });
const rows = (page: Page) =>
  table(page)
    .getByRole('row')
    .filter({ has: page.getByRole('cell') });
const words = (page: Page) => page.getByRole('textbox', { name: 'Search the book' });

async function openBook(page: Page, query = ''): Promise<void> {
  await page.goto(`/${query}`);
  await expect(table(page)).toBeVisible();
}

/** Takes tunes of a story out of the shared book again. */
async function takeOut(page: Page, search: string): Promise<void> {
  await openBook(page, `?words=${encodeURIComponent(search)}`);
  await page.getByRole('checkbox', { name: 'Choose all' }).check();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText(/^\d+ tunes? removed from the book/)).toBeVisible();
}

test('a tune is found by a misspelt title, by its first notes in another key, and by the filter', async ({ page }) => {
  await openBook(page);
  await words(page).fill('herron slipwai');
  await expect(page.getByText(/These are close:/)).toBeVisible();
  await expect(rows(page)).toHaveCount(1);
  await expect(page.getByRole('link', { name: 'The Heron on the Slipway' })).toBeVisible();
  await words(page).fill('');
  const notes = page.getByRole('textbox', { name: /First notes/ });
  await notes.fill('d h');
  await expect(page.getByText('column 3: expected letters')).toBeVisible();
  await notes.fill('');
  await page.getByRole('button', { name: /Filter/ }).click();
  await page.getByLabel('Type').selectOption('jig');
  await expect(page.getByRole('link', { name: 'Lanterns at the Boathouse' })).toBeVisible();
  await expect(page).toHaveURL(/type=jig/);
  await page.getByRole('button', { name: 'Clear the filter' }).click();
  await expect(page).not.toHaveURL(/type=/);
});

test('a view keeps a filter with its order, and is taken up again', async ({ page }) => {
  await openBook(page, '?type=reel');
  await page.getByRole('button', { name: 'Holds up to' }).click();
  await expect(page).toHaveURL(/sort=tempo/);
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByLabel('Save what is shown as').fill('Reels by room');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await openBook(page);
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByRole('button', { name: 'Reels by room', exact: true }).click();
  await expect(page).toHaveURL(/type=reel/);
  await expect(page.getByRole('columnheader', { name: 'Holds up to' })).toHaveAttribute('aria-sort', 'ascending');
  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByRole('button', { name: 'Delete the view “Reels by room”' }).click();
  await expect(page.getByText('No saved views yet.')).toBeVisible();
});

test('by keys alone tunes are walked, chosen, tagged and untagged by undo, and one is opened', async ({ page }) => {
  await openBook(page);
  await page.keyboard.press('/');
  await expect(words(page)).toBeFocused();
  await page.keyboard.type('the');
  await expect(page).toHaveURL(/words=the$/);
  // The page has drawn the question before its answer is waited for.
  await expect(page.getByText(/^\d+ tunes found/)).toBeVisible();
  await expect(table(page)).toHaveAttribute('aria-busy', 'false');
  await rows(page).first().focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('3 chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Tag', exact: true }).press('Enter');
  await page.keyboard.type('by the keys');
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 tunes tagged “by the keys”.')).toBeVisible();
  await expect(table(page).getByText('by the keys')).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone.')).toBeVisible();
  await expect(table(page).getByText('by the keys')).toHaveCount(0);
  await rows(page).nth(1).focus();
  const title = (await rows(page).nth(1).getAttribute('aria-label'))!;
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
});

test('tunes taken out come back, and only what is out can be gone for good', async ({ page }) => {
  await bringIn(page, 'X:1\nT:Short Stay\nM:4/4\nL:1/8\nK:D\nd8|e8|\n');
  await takeOut(page, 'Short Stay');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Undone.')).toBeVisible();
  await openBook(page, '?words=Short+Stay');
  await takeOut(page, 'Short Stay');
  await page.goto('/?removed=yes&words=Short');
  await expect(page.getByRole('row', { name: 'Short Stay' })).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('button', { name: 'Delete them for good' }).click();
  await expect(page.getByText('Deleted for good.')).toBeVisible();
});

test('several files of several kinds are read in a row, a known tune becomes a setting, and it is compared beat by beat', async ({
  page,
}) => {
  await openBook(page);
  const tern = readFileSync('demo/tern.abc', 'utf8');
  const setting = tern.replace(/^T:.*$/m, 'T:Tern, as the class has it').replace(/\|:/, '|:');
  await page.getByRole('button', { name: 'Bring tunes in' }).click();
  await page.locator('input[type=file]').setInputFiles([
    { name: 'again.abc', mimeType: 'text/plain', buffer: Buffer.from(tern) },
    { name: 'class.abc', mimeType: 'text/plain', buffer: Buffer.from(setting) },
    { name: 'broken.musicxml', mimeType: 'text/xml', buffer: Buffer.from('<score-partwise><part></score-partwise>') },
    {
      name: 'two voices.abc',
      mimeType: 'text/plain',
      buffer: Buffer.from(
        'X:1\nT:Two Voices of One\nM:4/4\nL:1/8\nV:1 name="Fiddle"\nV:2 name="Low"\nK:D\nV:1\nd8|e8|\nV:2\nD8|E8|\n',
      ),
    },
  ]);
  const dialog = page.getByRole('dialog', { name: 'Bring tunes in' });
  await expect(dialog.getByText('3 tunes read.')).toBeVisible();
  await expect(dialog.getByRole('region', { name: 'broken.musicxml' })).toContainText('Not XML');
  // What the book has to the note is left out, what it has under another name is asked about.
  await expect(dialog.getByRole('checkbox', { name: 'Bring in Tern over the Causeway' })).not.toBeChecked();
  const other = dialog.getByRole('region', { name: 'class.abc' });
  await expect(other).toContainText('The book has Tern over the Causeway: 100 % alike.');
  await other.getByRole('button', { name: 'compare them' }).click();
  await expect(other.getByText(/They agree on all/)).toBeVisible();
  await other.getByRole('radio', { name: 'another setting of it' }).check();
  const voices = dialog.getByRole('region', { name: 'two voices.abc' });
  await voices.getByLabel('Melody').selectOption({ label: 'Low (2 notes)' });
  await expect(voices).toContainText('“Low” is read as the melody');
  expect((await new AxeBuilder({ page }).setLegacyMode().include('[role=dialog]').analyze()).violations).toEqual([]);
  await dialog.getByRole('button', { name: 'Add 2 tunes' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Two Voices of One' })).toBeVisible();
  await openTune(page, 'Tern over the Causeway');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Settings beat by beat' }).click();
  await expect(page.getByRole('heading', { name: 'Tern, as the class has it' })).toBeVisible();
  await expect(page.getByText(/They agree on all/)).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Named versions …' }).click();
  await page.getByRole('button', { name: 'Delete “Tern, as the class has it”' }).click();
  await takeOut(page, 'Two Voices');
});

test('an import that is given up leaves nothing behind', async ({ page }) => {
  const many = Array.from(
    { length: 300 },
    (_, i) => `X:${i + 1}\nT:Given Up ${i}\nR:reel\nM:4/4\nL:1/8\nK:D\n|:dAFA d${'abcdefg'[i % 7]}fd|gfed cABc:|\n`,
  ).join('\n');
  await openBook(page);
  let goOn = () => undefined as void;
  const givenUp = new Promise<void>((resolve) => (goOn = resolve));
  await page.route('**/api/imports/*/tunes', async (route) => {
    await givenUp;
    await route.continue().catch(() => undefined);
  });
  await page.getByRole('button', { name: 'Bring tunes in' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'many.abc', mimeType: 'text/plain', buffer: Buffer.from(many) });
  const dialog = page.getByRole('dialog', { name: 'Bring tunes in' });
  await expect(dialog.getByText('300 tunes read.')).toBeVisible({ timeout: 30_000 });
  await dialog.getByRole('button', { name: /^Add \d/ }).click();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  goOn();
  await expect(dialog.getByRole('button', { name: 'Add 300 tunes' })).toBeEnabled({ timeout: 15_000 });
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.goto('/?words=Given+Up');
  await expect(page.getByText('No tune matches.')).toBeVisible();
});

test('the book goes out as files and as a backup that is taken back', async ({ page }) => {
  await openBook(page, '?type=polka');
  await page.getByRole('button', { name: 'Files and backup' }).click();
  const dialog = page.getByRole('dialog', { name: 'Files and backup' });
  await dialog.getByRole('radio', { name: /MusicXML/ }).check();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Marsh Lamps.musicxml');
  expect(readFileSync(await file.path(), 'utf8')).toContain('<work-title>Marsh Lamps</work-title>');
  const [backup] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('link', { name: 'Save a backup' }).click(),
  ]);
  expect(backup.suggestedFilename()).toMatch(/^morrin-backup-\d{4}-\d\d-\d\d\.jsonl\.gz$/);
  await dialog.getByLabel('Restore a backup').setInputFiles(await backup.path());
  await dialog.getByRole('checkbox').check();
  await dialog.getByRole('button', { name: 'Restore this backup' }).click();
  await expect(dialog.getByText('The backup is restored:')).toBeVisible({ timeout: 30_000 });
  // The book as it was is kept, and can be had.
  const copies = dialog.getByRole('list', { name: 'Automatic copies' });
  await expect(copies.getByRole('link')).not.toHaveCount(0);
  await expect(copies).toContainText('the book before a backup was restored');
});

test('chosen tunes are printed as one book with contents', async ({ page }) => {
  await openBook(page, '?type=jig');
  await page.getByRole('button', { name: 'Files and backup' }).click();
  await page.getByRole('link', { name: /printed book/ }).click();
  await page.getByLabel('Name of the book').fill('Jigs for Saturday');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the book' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Jigs for Saturday.pdf');
  expect(
    readFileSync(await file.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  await expect(page.getByText(/The book is made: 1 tune on \d+ pages\./)).toBeVisible();
});

for (const theme of ['day', 'evening'])
  test(`the book, its filter and its files have no faults of access in the ${theme} theme`, async ({ page }) => {
    await openBook(page, '?round=no');
    if (theme === 'evening') await page.getByRole('button', { name: 'To the evening theme' }).click();
    await page.getByRole('checkbox', { name: 'Choose all' }).check();
    expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([]);
    await page.getByRole('button', { name: 'As files' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect((await new AxeBuilder({ page }).setLegacyMode().include('[role=dialog]').analyze()).violations).toEqual([]);
  });

test('an empty book offers what can be done first', async ({ page }) => {
  const empty = {
    types: [],
    keys: [],
    tunings: [],
    tags: [],
    techniques: [],
    tunes: 0,
    removed: 0,
    asOf: '2026-02-03T10:00:00.000Z',
  };
  await page.route('**/api/book/facets', (route) => route.fulfill({ json: empty }));
  await page.route('**/api/book/tunes?*', (route) => route.fulfill({ json: { tunes: [], next: null, isNear: false } }));
  await page.route('**/api/book/count?*', (route) => route.fulfill({ json: { tunes: 0, notRound: 0, short: 0 } }));
  await page.goto('/');
  const first = page.getByRole('region', { name: 'The book is empty' });
  for (const deed of ['Bring tunes in', 'Begin a tune', 'Load the demo', 'Restore a backup'])
    await expect(first.getByRole('button', { name: deed })).toBeVisible();
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([]);
  await first.getByRole('button', { name: 'Begin a tune' }).click();
  await expect(page.getByRole('dialog', { name: 'Begin a tune' })).toBeVisible();
});

test('a tune that was played into a MIDI file is heard, quantised and previewed', async ({ page }) => {
  await openTune(page, 'Marsh Lamps');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Save as a file' }).press('ArrowRight');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'MIDI' }).press('Enter'),
  ]);
  expect(file.suggestedFilename()).toBe('Marsh Lamps.mid');
  const midi = { name: 'marsh lamps.mid', mimeType: 'audio/midi', buffer: readFileSync(await file.path()) };
  await openBook(page);
  await page.getByRole('button', { name: 'Bring tunes in' }).click();
  await page.locator('input[type=file]').setInputFiles(midi);
  const dialog = page.getByRole('dialog', { name: 'Bring tunes in' });
  await expect(dialog.getByText('1 tune read.')).toBeVisible();
  await expect(dialog.getByText(/Onsets were moved by \d+ ms on average/)).toBeVisible();
  await expect(dialog.getByLabel('The first bars as they were heard')).toContainText('|');
  await dialog.getByLabel('Shortest note').selectOption('eighth');
  await expect(dialog.getByText('1 tune read.')).toBeVisible();
});
