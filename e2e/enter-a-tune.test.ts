import { type Tune, writtenNotes } from '#core/tune';
import { readAbc } from '#formats/abc';
import { cases } from '../src/core/testing/share';
import { keysFor, soundOf } from '../src/web/testing/keysFor';
import { TIDE_REEL } from '../src/web/testing/tideReel';
import { addTune, kept, ODD_REEL } from './bench';
import { expect, type Page, test } from './story';

/** All of it in the deep run, else its first four bars. */
const ABC = cases(2) === 2 ? TIDE_REEL : TIDE_REEL.slice(0, TIDE_REEL.indexOf('|\n')) + ':|\n';
const source = readAbc(ABC).tunes[0]!.tune;

async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 40; presses++) {
    const label = await page.evaluate(() => {
      const focused = document.activeElement;
      return focused === document.body
        ? ''
        : `${focused?.getAttribute('aria-label') ?? ''} ${focused?.textContent ?? ''}`;
    });
    if (name.test(label)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`${name} was not reached with the tab key`);
}

/** Begins a tune and enters it, all by keys; gives the tune as the server has it. */
async function enterByKeys(page: Page, title: string, way: 'calls' | 'letters'): Promise<Tune> {
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  await tabTo(page, /Begin a tune/);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Title')).toBeFocused();
  await page.keyboard.type(title);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await tabTo(page, /^ ?Enter notes/);
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-entry-field]')).toBeFocused();
  for (const key of keysFor(source, way)) await page.keyboard.press(key === ' ' ? 'Space' : key);
  await page.keyboard.press('Escape');
  await kept(page);
  const answer = await page.request.get(`/api/tunes/${page.url().split('/').pop()}`);
  return ((await answer.json()) as { tune: Tune }).tune;
}

test('a reel is entered by keys alone, in calls and again in letters, and is the same tune', async ({ page }) => {
  test.setTimeout(150_000);
  const calls = await enterByKeys(page, 'Entered by Calls', 'calls');
  expect(soundOf(calls)).toEqual(soundOf(source));
  expect(calls.form).toEqual(source.form);
  const fingersOf = () => page.locator('[data-sign="fingers"]').allTextContents();
  const fingers = await fingersOf();
  const letters = await enterByKeys(page, 'Entered by Letters', 'letters');
  expect(soundOf(letters)).toEqual(soundOf(source));
  expect(await fingersOf()).toEqual(fingers);
  // The first thing undone is the last thing entered.
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Redo:/ })).toBeEnabled();
});

test('keys that come quickly are all taken', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a tune' }).click();
  await page.getByLabel('Title').fill('Quick Keys');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await page.getByRole('button', { name: 'Enter notes', exact: true }).click();
  await page.keyboard.press('w');
  const bars = cases(16);
  await page.keyboard.type('abcdefg'.repeat(bars), { delay: 0 });
  await expect(page.locator('[data-note]')).toHaveCount(7 * bars);
});

test('a press in the score moves the caret, and what is typed next goes there', async ({ page }) => {
  await page.goto('/?words=Marsh+Lamps');
  await page.getByRole('link', { name: 'Marsh Lamps', exact: true }).click();
  const notes = page.locator('[data-note]');
  await notes.nth(2).click();
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-entry-field]')).toBeFocused();
  await notes.nth(0).click();
  await expect(page.locator('[data-entry-field]')).toBeFocused();
  await page.keyboard.press('e');
  await page.keyboard.press('0');
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /: E, E string, open/);
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-entry-field]')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /: A, A string, open/);
});

test('notes are put on the staff with the mouse, chosen by dragging, moved, copied and taken away', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a tune' }).click();
  await page.getByLabel('Title').fill('By Mouse');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await page.getByRole('button', { name: 'Enter notes', exact: true }).click();
  await page.getByRole('button', { name: 'by staff (W)' }).click();
  const staff = page.locator('[data-staff-target]').first();
  const box = (await staff.boundingBox())!;
  // The staff's top line, F5, lies 30 px down; each step is 5 px.
  for (const step of [0, 2, 4]) await staff.click({ position: { x: box.width - 20, y: 30 + 5 * step } });
  const notes = page.locator('[data-note]');
  await expect(notes).toHaveCount(3);
  await expect(notes.nth(0)).toHaveAttribute('aria-label', /: F sharp/);
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /: D/);
  await expect(notes.nth(2)).toHaveAttribute('aria-label', /: B/);
  await page.getByRole('button', { name: 'done (Esc)', exact: true }).click();

  const middle = async (index: number) => {
    const target = (await notes.nth(index).boundingBox())!;
    return [target.x + target.width / 2, target.y + target.height / 2] as const;
  };
  await page.mouse.move(...(await middle(0)));
  await page.mouse.down();
  await page.mouse.move(...(await middle(2)), { steps: 6 });
  await page.mouse.up();
  await expect(page.locator('[data-note][aria-selected="true"]')).toHaveCount(3);
  await page.keyboard.press('Alt+ArrowUp');
  await expect(notes.nth(0)).toHaveAttribute('aria-label', /: G/);
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+Alt+v');
  await expect(notes).toHaveCount(6);
  await expect(
    page.getByRole('button', { name: /Undo: paste on the lower strings: perfect fifth down/ }),
  ).toBeEnabled();
  await page.keyboard.press('Delete');
  await expect(notes).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(notes).toHaveCount(6);
});

test('the form is changed by keys, and its length answers', async ({ page }) => {
  await page.goto('/?words=Marsh+Lamps');
  await page.getByRole('link', { name: 'Marsh Lamps', exact: true }).click();
  await page.getByRole('button', { name: 'Form: parts and their order' }).click();
  const sums = page.locator('[data-sums]');
  await expect(sums).toContainText('32 bars');
  const order = page.getByLabel('Playing order');
  await order.fill('AABBA');
  await order.press('Enter');
  await expect(sums).toContainText('40 bars');
  await order.fill('AAXB');
  await expect(page.getByText('Expected parts by name: A, B.')).toBeVisible();
  await order.fill('ABAB');
  await order.press('Enter');
  const grip = page.getByRole('button', { name: /^Move part B/ });
  await grip.focus();
  const said = page.locator('[id^=DndLiveRegion]');
  await page.keyboard.press('Space');
  await expect(said).toContainText('moved over droppable area B');
  await page.keyboard.press('ArrowUp');
  await expect(said).toContainText('moved over droppable area A');
  await page.keyboard.press('Space');
  await expect(page.locator('[data-part]').first()).toHaveAttribute('data-part', 'B');
});

test('words from elsewhere are pasted as notes; one that is none is said, and nothing is entered', async ({ page }) => {
  await addTune(page, ODD_REEL('Pasted Into'));
  await page.locator('[data-note]').last().click();
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-entry-field]')).toBeFocused();
  const paste = (text: string) =>
    page.locator('[data-entry-field]').evaluate((field, words) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', words);
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    }, text);
  const before = await page.locator('[data-note]').count();
  await paste('D:0 A:1 \u0007<b>what?</b>');
  await expect(page.getByRole('alert')).toContainText('word 3: expected a call such as D:2');
  expect(await page.locator('[data-note]').count()).toBe(before);
  await paste('D:0 D:1 d | e');
  await expect(page.locator('[data-note]')).toHaveCount(before + 4);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-note]')).toHaveCount(before);
});

test('a tune of two thousand notes is edited like any other, and nothing typed is lost', async ({ page }) => {
  test.setTimeout(120_000);
  const line = `${'dAFA defd|'.repeat(25)}\n`;
  await addTune(page, `X:1\nT:Two Thousand\nR:reel\nM:4/4\nL:1/8\nK:D\n${line.repeat(10)}`);
  await expect(page.locator('[data-note]').first()).toBeVisible({ timeout: 30_000 });
  await page.locator('[data-note]').nth(11).click();
  for (let k = 0; k < 5; k++) await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('s');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-entry-field]')).toBeFocused();
  for (const key of ['d', '0', 'a', '1', 'e', '2']) await page.keyboard.press(key);
  await page.keyboard.press('Escape');
  await kept(page);
  const answer = await page.request.get(`/api/tunes/${page.url().split('/').pop()}`);
  const { tune } = (await answer.json()) as { tune: Tune };
  const notes = writtenNotes(tune);
  expect(notes).toHaveLength(2003);
  expect(notes.slice(-3).map(({ pitch }) => pitch.letter)).toEqual(['D', 'B', 'G']);
  expect(notes[11]!.pitch).toEqual({ letter: 'F', alter: 1, octave: 5 });
  expect(notes[11]!.link).toBe('slur');
});
