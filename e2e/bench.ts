import { expect, type Page } from '@playwright/test';
import { readAbc } from '#formats/abc';

/** Opens a tune of the book by its title, at its own address, and waits until it is engraved. */
export async function openTune(page: Page, title: string): Promise<void> {
  const answer = await page.request.get(`/api/book/tunes?words=${encodeURIComponent(title)}`);
  const { tunes } = (await answer.json()) as { tunes: { id: string; title: string }[] };
  await engraved(page, tunes.find((tune) => tune.title === title)!.id);
}

/** Puts the tune of an ABC text into the book, as the import does, and opens it. */
export async function addTune(page: Page, abc: string): Promise<void> {
  const { tune } = readAbc(abc).tunes[0]!;
  const answer = await page.request.post('/api/tunes', { data: { tunes: [{ tune }] } });
  const { tunes } = (await answer.json()) as { tunes: { id: string }[] };
  await engraved(page, tunes[0]!.id);
}

async function engraved(page: Page, id: string): Promise<void> {
  await page.goto(`/tunes/${id}`);
  await expect(page.locator('[data-note]').first()).toBeVisible();
}

/** Brings an ABC text in by pasting it into the sheet, and keeps it. */
export async function bringIn(page: Page, abc: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Bring tunes in' }).click();
  await page.getByLabel('Text').fill(abc);
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('button', { name: /^Add \d/ }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

export async function kept(page: Page): Promise<void> {
  await expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'kept');
}

export function verdict(page: Page) {
  return page.locator('[data-verdict]');
}

/** The rhythm of an odd count: pair-first shuffle makes seven strokes of its pickup bar. */
export const ODD_REEL = (title: string) => `X:1
T:${title}
R:reel
M:4/4
L:1/8
K:D
|:dAFA defd|cAEA cdec|dBGB dgfe|d2A2 d2 z2:|
|:fgaf gfed|cdec A2A2|BcdB AFDF|E2 A2 d4:|
`;

/** Chooses something of one of the bench's menus. */
export async function fromMenu(page: Page, menu: 'Mark' | 'Bow' | 'Hand' | 'More', name: string): Promise<void> {
  await page.getByRole('button', { name: menu, exact: true }).click();
  await page.getByRole('menuitem', { name }).click();
}

/** The tools beside the score. */
export function tools(page: Page) {
  return page.getByRole('complementary', { name: 'Tools' });
}

/** Says that the tune comes round. */
export async function comesRound(page: Page): Promise<void> {
  await expect(verdict(page)).toContainText('It comes round');
}
