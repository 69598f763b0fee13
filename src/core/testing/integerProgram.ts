import { CHOICES, MAX_IN_STROKE, type SearchModel } from '#core/search';
import type { Direction } from '#core/tune';

const DIRECTIONS: readonly Direction[] = ['down', 'up'];

interface StrokeVariable {
  readonly name: string;
  readonly first: number;
  readonly notes: number;
  readonly d: number;
  readonly cell: number;
  readonly lands: number;
  readonly link: 'change' | 'retake';
}

/**
 * The objective of a search as an integer program in the LP text format: binary variables choose strokes that cover
 * every note once, whether a note within a stroke is slurred or hooked, and the direction at each meeting point. It
 * shares with the search what a note or a stroke costs, and nothing of how the best is found.
 */
export function integerProgram(model: SearchModel): string {
  const costs: string[] = [];
  const rules: string[] = [];
  const binaries: string[] = [];
  const variable = (name: string, cost: number) => {
    binaries.push(name);
    if (cost !== 0) costs.push(`${cost} ${name}`);
  };
  const total = (terms: object) => (Object.values(terms) as number[]).reduce((sum, cost) => sum + cost, 0);
  for (let point = 0; point < model.meetings; point++) variable(`m${point}`, 0);

  for (const [j, { starts, length, from, to }] of model.chains.entries()) {
    const noteCost = (k: number, choice: (typeof CHOICES)[number], d: number) =>
      starts.reduce((sum, start) => sum + total(model.noteTerms(start + k, choice, DIRECTIONS[d]!)), 0);
    const strokes: StrokeVariable[] = [];
    for (let first = 0; first < length; first++)
      for (let notes = 1; notes <= Math.min(MAX_IN_STROKE, length - first); notes++)
        for (const d of [0, 1])
          for (const link of ['change', 'retake'] as const)
            for (let cell = 0; cell < model.cells; cell++) {
              if (!model.choicesAt(j, first).includes(link)) continue;
              const isSet = first === 0 || link === 'retake';
              if (isSet && cell !== model.home(DIRECTIONS[d]!)) continue;
              const landing = model.land(starts[0]! + first, notes, DIRECTIONS[d]!, cell, first + notes === length);
              const timed = starts.reduce((sum, start) => sum + total(model.strokeTerms(start + first, notes)), 0);
              const name = `x${j}_${first}_${notes}_${d}_${cell}_${link[0]}`;
              variable(name, noteCost(first, link, d) + timed + starts.length * landing.cost);
              strokes.push({ name, first, notes, d, cell, lands: landing.cell, link });
            }
    const sum = (list: readonly StrokeVariable[]) => list.map(({ name }) => name).join(' + ');
    const minus = (list: readonly StrokeVariable[]) => list.map(({ name }) => ` - ${name}`).join('');
    for (let k = 0; k < length; k++) {
      rules.push(`${sum(strokes.filter(({ first, notes }) => first <= k && k < first + notes))} = 1`);
      for (const d of [0, 1]) {
        const within = strokes.filter((s) => s.d === d && s.first < k && k < s.first + s.notes);
        if (within.length === 0) continue;
        const joins = model.choicesAt(j, k).filter((choice) => choice === 'slur' || choice === 'hook');
        const names = joins.map((choice) => {
          const name = `g${j}_${k}_${d}_${choice}`;
          variable(name, noteCost(k, choice, d));
          return name;
        });
        rules.push(`${[...names, '0 m0'].join(' + ')}${minus(within)} = 0`);
      }
    }
    for (let k = 1; k < length; k++)
      for (const d of [0, 1]) {
        const ending = strokes.filter((s) => s.first + s.notes === k && s.d === d);
        const turning = strokes.filter((s) => s.first === k && s.link === 'change' && s.d === 1 - d);
        const lifting = strokes.filter((s) => s.first === k && s.link === 'retake' && s.d === d);
        rules.push(`${sum([...turning, ...lifting])}${minus(ending)} = 0`);
        for (let cell = 0; cell < model.cells; cell++) {
          const out = turning.filter((s) => s.cell === cell);
          if (out.length > 0) rules.push(`${sum(out)}${minus(ending.filter((s) => s.lands === cell))} <= 0`);
        }
      }
    const cameUp = strokes.filter((s) => s.first === 0 && (s.link === 'change') === (s.d === 0));
    const leavesUp = strokes.filter((s) => s.first + s.notes === length && s.d === 1);
    rules.push(`${sum(cameUp)} - m${from} = 0`, `${sum(leavesUp)} - m${to} = 0`);
  }
  return [
    'Minimize',
    ` obj: ${costs.join('\n + ')}`,
    'Subject To',
    ...rules.map((rule, i) => ` r${i}: ${rule.replaceAll(' + ', '\n + ')}`),
    'Binary',
    ...binaries.map((name) => ` ${name}`),
    'End',
  ].join('\n');
}
