import { readdirSync, readFileSync } from 'node:fs';
import { perform } from '#core/performance';
import { reportTune } from '#core/report';
import { Fiddle } from '#core/sound';
import { readAbc } from '#formats/abc';
import { kept, openTune } from './bench';
import { expect, type Page, test } from './story';

const player = (page: Page) => page.locator('[data-player]');
/** What is going on while it plays. */
const playing = (page: Page) => page.locator('[data-playing]');
const mark = (page: Page) => page.locator('[data-play-mark]');
const heardNote = async (page: Page) => Number(await mark(page).getAttribute('data-index'));

/** Listening as it is set by whoever opens the page first. */
const listenWith = (page: Page, settings: object) =>
  page.addInitScript(
    (value) => {
      if (!localStorage.getItem('morrin.listen')) localStorage.setItem('morrin.listen', JSON.stringify(value));
    },
    {
      layers: ['melody', 'drones', 'bowing', 'colour'],
      countIn: 0,
      loop: false,
      answer: false,
      climb: 0,
      compare: null,
      balance: { melody: 1, second: 1, backing: 1, click: 1, tone: 1 },
      ...settings,
    },
  );

test('a tune is played from where one stands, the mark goes with it over staff and lanes, and stops', async ({
  page,
}) => {
  await listenWith(page, { countIn: 1 });
  await openTune(page, 'The Heron on the Slipway');
  await page.locator('[data-note]').nth(7).click();
  await page.getByRole('button', { name: 'Play from here (Space)' }).click();
  await expect(playing(page)).toContainText('counting in');
  await expect(mark(page)).toHaveCSS('opacity', '1', { timeout: 15_000 });
  expect(await heardNote(page)).toBeLessThan(14);
  const line = page.locator('[data-line]').first();
  const [markBox, lineBox] = [(await mark(page).boundingBox())!, (await line.locator('svg').last().boundingBox())!];
  expect(markBox.height).toBeGreaterThan(0.9 * lineBox.height);
  const before = markBox.x;
  await expect.poll(async () => (await mark(page).boundingBox())!.x).toBeGreaterThan(before + 30);
  await page.getByRole('button', { name: 'Stop (Space)' }).click();
  await expect(mark(page)).toHaveCSS('opacity', '0');
  await expect(player(page)).toHaveAttribute('data-player', 'idle');
});

test('a range loops by keys alone; a slur is changed while it plays, and the place stays', async ({ page }) => {
  await listenWith(page, {});
  await openTune(page, 'The Heron on the Slipway');
  await page.locator('[data-note]').first().focus();
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('x');
  await page.keyboard.press('Space');
  await expect(playing(page)).toContainText(/round \d+/, { timeout: 20_000 });
  await expect.poll(() => heardNote(page)).toBeLessThan(8);
  const rounds = Number(await player(page).getAttribute('data-rounds'));
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: /^Undo: slur/ })).toBeEnabled();
  // It goes on in the same round: neither from the beginning nor stopped.
  await expect(player(page)).toHaveAttribute('data-player', 'playing');
  expect(Number(await player(page).getAttribute('data-rounds'))).toBeGreaterThanOrEqual(rounds);
  await expect
    .poll(async () => Number(await player(page).getAttribute('data-rounds')), { timeout: 20_000 })
    .toBeGreaterThan(rounds);
  await page.keyboard.press('Space');
  await expect(player(page)).toHaveAttribute('data-player', 'idle');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^Redo: slur/ })).toBeEnabled();
  await kept(page);
});

test('the tempo climbs with each round, and another way is heard by turns', async ({ page }) => {
  await listenWith(page, { loop: true });
  await openTune(page, 'The Heron on the Slipway');
  await page.locator('[data-note]').first().focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight');
  // From four fifths of the goal on.
  for (let i = 0; i < 4; i++) await page.keyboard.press('[');
  await page.getByRole('button', { name: 'Sound and loop' }).click();
  await page.getByLabel('tempo climbs each round by').selectOption('6');
  await page.getByLabel('by turns with').selectOption({ label: 'a lilt that is dotted' });
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Play bar 1 of A over and over (Space)' }).click();
  await expect(playing(page)).toContainText('the other way', { timeout: 15_000 });
  const goal = Number(await page.locator('[data-goal]').getAttribute('data-goal'));
  const sounding = async () => Number(/at (\d+) half/.exec((await playing(page).textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(sounding, { timeout: 15_000 }).toBeGreaterThan(0.82 * goal);
  expect(await sounding()).toBeLessThanOrEqual(goal);
  await page.getByRole('button', { name: 'Stop (Space)' }).click();
});

test('the thread of passes leads the listener, and is led by what is heard', async ({ page }) => {
  await listenWith(page, {});
  await openTune(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: 'Play from here (Space)' }).click();
  await expect(mark(page)).toHaveCSS('opacity', '1', { timeout: 15_000 });
  const second = page.getByRole('button', { name: /^B, 2nd time/ });
  await second.click();
  await expect(second).toHaveAttribute('aria-current', 'true', { timeout: 10_000 });
  await expect.poll(() => heardNote(page)).toBeGreaterThan(150);
});

test.describe('with a clock of its own', () => {
  test.use({ ownContext: true });

  test('the goal by keys and by tapping; the practice tempo edits nothing', async ({ page }) => {
    await page.clock.install();
    await openTune(page, 'The Heron on the Slipway');
    const foot = page.getByRole('contentinfo');
    const tempo = async () => Number(await foot.locator('[data-goal]').getAttribute('data-goal'));
    const first = await tempo();
    await page.locator('[data-note]').first().focus();
    await page.keyboard.press('[');
    await page.keyboard.press('[');
    await expect(foot.locator('[data-practice]')).toHaveAttribute('data-practice', '90');
    await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
    await page.keyboard.press('}');
    await expect(foot).toContainText(`${first + 2} half notes`);
    await page.keyboard.press('{');
    await page.keyboard.press('{');
    await expect(foot).toContainText(`${first - 2} half notes`);
    await page.clock.pauseAt(Date.now() + 60_000);
    for (let i = 0; i < 4; i++) {
      await page.keyboard.press('y');
      await page.clock.runFor(750);
    }
    await page.clock.resume();
    const tapped = await tempo();
    expect(tapped).toBeGreaterThan(60);
    expect(tapped).toBeLessThan(82);
    while ((await page.getByRole('button', { name: /^Undo: / }).count()) > 0) await page.keyboard.press('Control+z');
    expect(await tempo()).toBe(first);
    await kept(page);
  });
});

test('without a sound device the mark goes all the same', async ({ page }) => {
  await listenWith(page, {});
  await page.addInitScript(() => {
    Object.defineProperty(window, 'AudioContext', { value: undefined });
  });
  await openTune(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: 'Play from here (Space)' }).click();
  await expect(playing(page)).toContainText('no sound device');
  await expect.poll(() => heardNote(page)).toBeGreaterThan(3);
});

test('sound files are made: WAV with progress, cancelled without a file, click track, MIDI', async ({ page }) => {
  test.setTimeout(90_000);
  await listenWith(page, {});
  await openTune(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: 'Sound and loop' }).click();
  await page.getByRole('button', { name: 'Sound files …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Sound files' });
  let files = 0;
  page.on('download', () => (files += 1));
  await dialog.getByRole('button', { name: 'Make: Sound (WAV)' }).click();
  await expect(dialog.getByRole('progressbar')).toBeVisible();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(dialog.getByRole('progressbar')).toHaveCount(0);
  expect(files).toBe(0);
  for (const [name, ending, least] of [
    ['Make: Sound (WAV)', '.wav', 2_000_000],
    ['Make: Click track (WAV)', ' click.wav', 2_000_000],
    ['Make: Notes (MIDI)', '.mid', 1000],
  ] as const) {
    const download = page.waitForEvent('download', { timeout: 60_000 });
    await dialog.getByRole('button', { name, exact: true }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe(`The Heron on the Slipway${ending}`);
    expect(readFileSync(await file.path()).length).toBeGreaterThan(least);
    await expect(dialog).toContainText('is ready');
  }
});

test('the fiddle on the audio thread plays the same samples as anywhere else', async ({ page }) => {
  await page.goto('/');
  const file = readdirSync('dist/web/assets').find((name) => name.startsWith('fiddle.worklet'))!;
  const { tune } = readAbc(readFileSync('demo/slow-ferry.abc', 'utf8')).tunes[0]!;
  const { plan } = perform(reportTune(tune), {
    layers: new Set(['melody', 'drones', 'bowing', 'colour', 'backing', 'click', 'tone']),
    span: null,
    countIn: 1,
    answer: false,
    isHuman: true,
  });
  const RATE = 44100;
  const length = 6 * RATE;
  const onThread = await page.evaluate(
    async ({ plan: sent, rate, count, url }) => {
      const context = new OfflineAudioContext(1, count, rate);
      await context.audioWorklet.addModule(url);
      const programme = { id: 1, plan: sent, loop: null, knots: { seconds: [0, 1], places: [0, 1] } };
      const node = new AudioWorkletNode(context, 'fiddle', {
        numberOfInputs: 0,
        outputChannelCount: [1],
        processorOptions: { first: { kind: 'play', programme, at: 0 } },
      });
      node.connect(context.destination);
      const rendered = await context.startRendering();
      return Array.from(rendered.getChannelData(0));
    },
    { plan, rate: RATE, count: length, url: `/assets/${file}` },
  );
  const here = new Float32Array(length);
  new Fiddle(plan, RATE).next(here);
  let [apart, loudest] = [0, 0];
  for (let i = 0; i < length; i++) {
    apart = Math.max(apart, Math.abs(here[i]! - onThread[i]!));
    loudest = Math.max(loudest, Math.abs(here[i]!));
  }
  expect(loudest).toBeGreaterThan(0.05);
  expect(apart).toBeLessThan(1e-6);
});

/** Counts as the fiddle does when its device had nothing to play, but plays nothing itself. */
const IDLE_WORKLET = `registerProcessor('idle', class extends AudioWorkletProcessor {
  began = 0;
  frames = 0;
  latest = 50;
  process() {
    if (this.began === 0) this.began = Date.now();
    const late = Date.now() - this.began - (1000 * this.frames) / sampleRate;
    if (late > this.latest) {
      this.latest = late + 50;
      this.port.postMessage(Date.now());
    }
    this.frames += 128;
    return true;
  }
});`;

test.describe('beside a device that plays nothing', () => {
  // The page itself loads no script of a story.
  test.use({ ownContext: true, bypassCSP: true });

  test('a minute is played without a gap while the page is busy', async ({ page }) => {
    test.setTimeout(120_000);
    await listenWith(page, { loop: true, layers: ['melody', 'drones', 'bowing', 'colour', 'backing', 'click'] });
    await openTune(page, 'The Heron on the Slipway');
    await page.getByRole('button', { name: 'Play the whole tune over and over (Space)' }).click();
    await expect(mark(page)).toHaveCSS('opacity', '1', { timeout: 15_000 });
    const { gaps, starved } = await page.evaluate(async (script) => {
      const starvedAt: number[] = [];
      const context = new AudioContext();
      await context.audioWorklet.addModule(URL.createObjectURL(new Blob([script], { type: 'text/javascript' })));
      const idle = new AudioWorkletNode(context, 'idle');
      idle.port.onmessage = ({ data }) => void starvedAt.push(data as number);
      idle.connect(context.destination);
      const gapsAt: number[] = [];
      const fiddle = document.querySelector('[data-underruns]')!;
      new MutationObserver(() => gapsAt.push(Date.now())).observe(fiddle, { attributeFilter: ['data-underruns'] });
      const until = performance.now() + 60_000;
      // Work as an edit of a long tune makes it, five times a second.
      while (performance.now() < until) {
        const end = performance.now() + 80;
        let sum = 0;
        while (performance.now() < end) sum += Math.sqrt(sum + 1);
        await new Promise((resolve) => setTimeout(resolve, 120));
      }
      await context.close();
      return { gaps: gapsAt, starved: starvedAt };
    }, IDLE_WORKLET);
    await expect(player(page)).toHaveAttribute('data-player', 'playing');
    expect(Number(await player(page).getAttribute('data-rounds'))).toBeGreaterThan(0);
    // A machine that is busy with something else altogether starves every device, each at moments of its own: those gaps
    // are not the page's. Where the device that plays nothing has none, the fiddle may have none.
    const own = gaps.filter((gap) => !starved.some((at) => Math.abs(gap - at) < 500));
    console.log(
      `${gaps.length} gaps, ${own.length} of them its own; a device that plays nothing had ${starved.length}`,
    );
    expect(own.length).toBeLessThanOrEqual(starved.length / 10);
  });
});
