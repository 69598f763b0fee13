// Pictures of the main views from the demo data, for README and docs; `npm run screenshots`.
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ROOT } from './lib/root.mjs';
import { startTestServer } from './lib/testServer.mjs';

const FOLDER = join(ROOT, process.env.PICTURES ?? 'docs/screenshots');
const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const book = async (page) => {
  await page.locator('[data-own]').first().waitFor();
};
const bench = (title, note) => async (page) => {
  await page.getByRole('link', { name: title, exact: true }).click();
  await page.locator('[data-note]').first().waitFor();
  if (note !== undefined) await page.locator('[data-note]').nth(note).click();
};
const mends = async (page) => {
  await bench('The Heron on the Slipway')(page);
  await page.getByRole('button', { name: 'see its mends' }).click();
};
/** A take of the simulated player with some mistakes, under the score. */
const take = async (page) => {
  await bench('The Heron on the Slipway')(page);
  await page.keyboard.press('Shift+K');
  await page.getByLabel('Listen to', { exact: true }).selectOption('the simulated player');
  for (const name of ['late finger', 'left out', 'sharp']) await page.getByRole('checkbox', { name }).check();
  await page.getByRole('button', { name: 'Let it play' }).click();
  await page.locator('[data-take]').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(600);
};
const dance = async (page) => {
  await bench('Tin Roof at Low Water')(page);
  await page.getByRole('link', { name: 'Dance', exact: true }).click();
  await page.getByRole('button', { name: 'Find the fewest changes' }).click();
  await page.locator('[data-standing=done]').waitFor();
  await page.locator('[data-gains=new]').waitFor();
};
/** A tune in bites, today's session, and one bite running. */
const practice = async (page) => {
  await page.getByRole('link', { name: 'Practice' }).click();
  await page.getByRole('list', { name: 'Today’s session' }).waitFor();
};
/** What was played, and how a tune comes on. */
const log = async (page) => {
  await page.getByRole('link', { name: 'Log' }).click();
  await page.getByLabel('Tune', { exact: true }).selectOption({ label: 'The Heron on the Slipway' });
  await page.locator('[data-forecast]').waitFor();
};
const bites = async (page) => {
  await bench('The Heron on the Slipway')(page);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Practise it' }).click();
  await page
    .getByRole('button', { name: /^Cut before/ })
    .first()
    .waitFor();
};
const running = async (page) => {
  await bites(page);
  await page.getByRole('button', { name: /^Practise bars 1–2 of B/ }).click();
  await page.locator('[data-run] [data-layer="signs"]').waitFor();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
};
const sets = async (page) => {
  await page.getByRole('link', { name: 'Sets' }).click();
  await page.getByRole('link', { name: /Reels at the boathouse/ }).click();
  await page.locator('[data-set=known]').waitFor();
};
const sheet = (title, note, key) => async (page) => {
  await bench(title, note)(page);
  await page.keyboard.press(key);
  await page.locator('[data-panel]').waitFor();
};
const ground = (title) => async (page) => {
  await bench(title)(page);
  await page.getByRole('link', { name: 'Ground' }).click();
  await page.locator('[data-mode]').waitFor();
};
/** Tunes one string up by what the screen says, and lets it drift. */
const pegs = async (page) => {
  await page.getByRole('link', { name: 'Pegs' }).click();
  await page.getByLabel('into').selectOption('A3 D4 A4 E5');
  await page.getByRole('button', { name: 'simulated fiddle' }).click();
  for (const turn of ['a semitone up', 'a semitone up'])
    await page.getByRole('button', { name: turn, exact: true }).click();
  for (let tries = 0; tries < 30; tries++) {
    await page.waitForTimeout(1100);
    const stands = await page.locator('[data-stands]').getAttribute('data-stands');
    if (stands === 'stands') break;
    await page.getByRole('button', { name: stands === 'low' ? 'a touch up' : 'a touch down', exact: true }).click();
  }
  await page.getByRole('button', { name: 'In tune: track its drift' }).click();
  await page.getByLabel(/time goes/).selectOption('10');
  await page.waitForTimeout(7000);
  await page.getByLabel(/time goes/).selectOption('1');
};
const settings = async (page) => {
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: /^stop, turn, bow on/ }).check();
  await page.locator('[data-outcome]').waitFor();
};
const entering = async (page) => {
  await bench('Marsh Lamps', 6)(page);
  await page.keyboard.press('Enter');
  for (const key of ['p', 'd', '2', 'a', '0']) await page.keyboard.press(key);
};
const handOut = async (page) => {
  await bench('The Heron on the Slipway')(page);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Hand-out on paper' }).click();
  await page.locator('[data-sign="bows"]').first().waitFor({ state: 'attached' });
  await page.getByLabel('calls').check();
};
/** Files with a fault, with a tune that the book has under another name, and one that was played. */
const broughtIn = async (page) => {
  const tern = readFileSync(join(ROOT, 'demo/tern.abc'), 'utf8').replace(/^T:.*$/m, 'T:Tern, as the class has it');
  const slack =
    'X:1\nT:The Slack Tide\nR:reel\nM:4/4\nL:1/8\nK:D\n|:d2(AF A)dfd|e2ce aece|d2AF A(dfd|e2cA d2:|\n|:f2df afdf|(ge)ce aece|f2df afdf|(ed)cA d2FA:|\n';
  await page.getByRole('button', { name: 'Bring tunes in' }).click();
  await page.locator('input[type=file]').setInputFiles([
    {
      name: 'as the class has it.abc',
      mimeType: 'text/plain',
      buffer: Buffer.from(tern.replace('|:B|e2B', '|:B|g2B')),
    },
    { name: 'from the jetty.abc', mimeType: 'text/plain', buffer: Buffer.from(slack) },
  ]);
  await page.getByText(/tunes read\./).waitFor();
  await page.getByText('The book has').waitFor();
};
const alignment = async (page) => {
  await bench('Marsh Lamps')(page);
  const id = page.url().split('/').pop();
  await page.evaluate(async (tuneId) => {
    const { tune } = await (await fetch(`/api/tunes/${tuneId}`)).json();
    // As somebody else plays it: some notes held, some others, a bar less.
    let count = 0;
    const parts = tune.parts.map((part) => ({
      ...part,
      events: part.events.map((event) => {
        if (event.kind !== 'note') return event;
        count += 1;
        const letters = 'CDEFGAB';
        const moved = letters[(letters.indexOf(event.pitch.letter) + 1) % 7];
        return count % 11 === 0
          ? { ...event, pitch: { ...event.pitch, letter: moved, alter: moved === 'F' || moved === 'C' ? 1 : 0 } }
          : event;
      }),
    }));
    await fetch(`/api/tunes/${tuneId}/versions`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        name: 'As Wenna has it',
        tune: { ...tune, parts },
        kind: 'setting',
        taughtBy: 'Wenna Tarr',
        learnedOn: '2025-11-08',
        note: 'for the Saturday class',
      }),
    });
  }, id);
  await page.goto(`${new URL(page.url()).origin}/tunes/${id}/settings`);
  await page.getByText(/They agree on/).waitFor();
};

const PICTURES = [
  ['book', WIDE, 'day', book],
  ['bench', WIDE, 'day', mends],
  ['bench-evening', WIDE, 'evening', bench('The Ferry Bell Rings Late', 12)],
  ['bench-phone', PHONE, 'day', bench('The Heron on the Slipway', 3)],
  ['sets', WIDE, 'day', sets],
  ['take', WIDE, 'day', take],
  ['dance', WIDE, 'day', dance],
  ['drones', WIDE, 'day', sheet('Slow Ferry Home', 8, 'c')],
  ['practice', WIDE, 'day', practice],
  ['bites', WIDE, 'day', bites],
  // Before an attempt of today is in it.
  ['log', WIDE, 'day', log],
  ['running', WIDE, 'evening', running],
  ['ground', WIDE, 'day', ground('The Heron on the Slipway')],
  ['pegs', WIDE, 'day', pegs],
  ['entry', WIDE, 'day', entering],
  ['hand-out', WIDE, 'day', handOut],
  ['import', WIDE, 'day', broughtIn],
  // Last: they change the book, and how all the others are counted.
  ['alignment', WIDE, 'day', alignment],
  ['settings', WIDE, 'day', settings],
];

mkdirSync(FOLDER, { recursive: true });
const wanted = process.argv.slice(2);
const { url, stop } = await startTestServer('pictures');
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});
try {
  for (const [name, viewport, theme, prepare] of PICTURES) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const context = await browser.newContext({ viewport, reducedMotion: 'reduce' });
    await context.addInitScript(
      ([theme, welcome]) => {
        localStorage.setItem('morrin.theme', theme);
        localStorage.setItem('morrin.welcome', welcome);
      },
      [theme, name === 'welcome' ? 'new' : 'seen'],
    );
    const page = await context.newPage();
    await page.goto(url);
    await page.getByRole('table').waitFor();
    await prepare(page);
    await page.waitForTimeout(400);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    await context.close();
  }
} finally {
  await browser.close();
  await stop();
}
