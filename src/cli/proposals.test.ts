import { readdirSync, readFileSync } from 'node:fs';
import { reportTune } from '#core/report';
import { adoptBowing, type Candidate, DEFAULT_WISHES, idiomOf, proposeBowings } from '#core/search';
import { barSumFaults, type NoteEvent, type RestEvent, type Tune, writtenBars } from '#core/tune';
import { readAbc } from '#formats/abc';

const tunes = readdirSync('demo')
  .sort()
  .flatMap((file) => readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes.map(({ tune }) => tune))
  // A sketch whose bars do not add up leads back to its pickup in two ways.
  .filter((tune) => barSumFaults(tune).length === 0);
const proposed = tunes.map((tune) => ({ tune, found: proposeBowings(reportTune(tune), DEFAULT_WISHES, 5) }));

const barsOf = (tune: Tune) => [...writtenBars(tune).values()].flat();
const shape = (events: readonly (NoteEvent | RestEvent)[]) =>
  events.flatMap((event, i) => (event.kind === 'note' && i > 0 ? [event.link] : [])).join(' ');
const each = (count: (adopted: Tune, candidate: Candidate) => void) => {
  for (const { tune, found } of proposed) for (const one of found) count(adoptBowing(tune, one), one);
};

test('three or more ideas are proposed for each tune, the first as the dance is bowed', () => {
  for (const { tune, found } of proposed) {
    expect({ title: tune.title, found: found.length >= 3 }).toEqual({ title: tune.title, found: true });
    const home = idiomOf(tune).templates.map(({ name }) => name);
    for (const { template } of found) for (const name of template.split(' + ')) expect(home).toContain(name);
    expect(new Set(found.map(({ template }) => template)).size).toBeGreaterThanOrEqual(2);
    expect(found.map(({ regret }) => regret)).toEqual([...found.map(({ regret }) => regret)].sort((a, b) => a - b));
    // Against the best that keeps to one: what mixes two is there only where it is better.
    for (const { template, regret } of found) if (!template.includes(' + ')) expect(regret).toBeGreaterThanOrEqual(0);
    expect(found[0]!.regret).toBeLessThanOrEqual(0);
    expect(Object.values(found[0]!.terms).reduce((sum, term) => sum + term, 0)).toBe(found[0]!.cost);
  }
});

test('every one comes round, and no tuplet is split', () => {
  let tuplets = 0;
  each((adopted, { figures }) => {
    expect(figures.comesRound).toBe(true);
    for (const { events } of barsOf(adopted))
      for (const event of events)
        if (event.kind === 'note' && event.tuplet && !event.tuplet.first) {
          tuplets += 1;
          expect(event.link).not.toBe('change');
        }
  });
  expect(tuplets).toBeGreaterThan(20);
});

test('equal bars are bowed alike: 85 % of them or more', () => {
  let [equal, alike] = [0, 0];
  each((adopted) => {
    const shapes = new Map<string, string[]>();
    for (const { events } of barsOf(adopted)) {
      const music = JSON.stringify(events.map((event) => [event.duration, event.kind === 'note' && event.pitch]));
      shapes.set(music, [...(shapes.get(music) ?? []), shape(events)]);
    }
    for (const [first, ...others] of shapes.values())
      for (const other of others) {
        equal += 1;
        if (other === first) alike += 1;
      }
  });
  expect(equal).toBeGreaterThan(80);
  expect(alike / equal).toBeGreaterThanOrEqual(0.85);
});

test('hair is shared out: it no longer makes the price of a proposal', () => {
  each((_adopted, { cost, terms }) => expect(terms.hair).toBeLessThan(0.25 * cost));
});
