import type { Part, Tune } from '#core/tune';
import { findEvent, freshIds, withOneStart } from './document';

/** Most passes that a form is made of. */
const MAX_PASSES = 1000;

/** The first letter that names no part yet: A … Z, then A2, B2 … */
export function freshPartName(tune: Tune): string {
  const taken = new Set(tune.parts.map(({ name }) => name));
  for (let i = 0; ; i++) {
    const letter = String.fromCharCode(65 + (i % 26));
    const name = i < 26 ? letter : `${letter}${Math.floor(i / 26) + 1}`;
    if (!taken.has(name)) return name;
  }
}

/** Plays in a row with which each part first comes. */
export function firstRun(form: readonly string[], name: string): number {
  const from = form.indexOf(name);
  if (from < 0) return 0;
  let to = from;
  while (form[to] === name) to += 1;
  return to - from;
}

/** A new empty part behind another, played as often in a row as that one, after its last pass or at the end. */
export function addPart(
  tune: Tune,
  after: string,
): { readonly tune: Tune; readonly name: string; readonly caret: string } {
  const name = freshPartName(tune);
  const bar = freshIds(tune)('bar');
  const at = tune.parts.findIndex((part) => part.name === after);
  const parts = [...tune.parts];
  parts.splice(at + 1, 0, { name, events: [{ kind: 'bar', id: bar }] });
  const last = tune.form.lastIndexOf(after);
  const form = [...tune.form];
  form.splice(
    last < 0 ? form.length : last + 1,
    0,
    ...Array.from({ length: Math.max(1, firstRun(tune.form, after)) }, () => name),
  );
  return { tune: { ...tune, parts, form }, name, caret: bar };
}

/** Cuts a part in two at a bar; every pass of it is followed by one of the new part. null at its first bar. */
export function splitPart(tune: Tune, barId: string): { readonly tune: Tune; readonly name: string } | null {
  const location = findEvent(tune, barId);
  if (!location || location.index === 0 || location.part.events[location.index]!.kind !== 'bar') return null;
  const name = freshPartName(tune);
  const { part, partIndex, index } = location;
  const halves: Part[] = [
    { ...part, events: part.events.slice(0, index) },
    { name, events: part.events.slice(index) },
  ];
  const parts = [...tune.parts];
  parts.splice(partIndex, 1, ...halves);
  const runs = runsOf(tune.form);
  const form = runs.flatMap(({ name: played, plays }) =>
    played === part.name
      ? [...Array.from({ length: plays }, () => played), ...Array.from({ length: plays }, () => name)]
      : Array.from({ length: plays }, () => played),
  );
  return { tune: { ...tune, parts, form }, name };
}

/** A part under another name, in the form too; the tune as it is where the name is taken or empty. */
export function renamePart(tune: Tune, from: string, to: string): Tune {
  const name = to.trim().slice(0, 24);
  if (name === '' || tune.parts.some((part) => part.name === name)) return tune;
  return {
    ...tune,
    parts: tune.parts.map((part) => (part.name === from ? { ...part, name } : part)),
    form: tune.form.map((played) => (played === from ? name : played)),
  };
}

/** A part moved to another place on the page; the playing order stays. */
export function movePart(tune: Tune, name: string, to: number): Tune {
  const part = tune.parts.find((candidate) => candidate.name === name);
  if (!part) return tune;
  const parts = tune.parts.filter((candidate) => candidate !== part);
  parts.splice(Math.min(parts.length, Math.max(0, to)), 0, part);
  return withOneStart({ ...tune, parts });
}

/** A tune without a part; the last one stays. */
export function removePart(tune: Tune, name: string): Tune {
  if (tune.parts.length === 1) return tune;
  const parts = tune.parts.filter((part) => part.name !== name);
  const form = tune.form.filter((played) => played !== name);
  return withOneStart({ ...tune, parts, form: form.length > 0 ? form : parts.map((part) => part.name) });
}

/** How often a part is played in a row, each time it comes. */
export function setPlays(tune: Tune, name: string, plays: number): Tune {
  const times = Math.min(64, Math.max(1, Math.round(plays)));
  const form = runsOf(tune.form).flatMap((run) =>
    Array.from({ length: run.name === name ? times : run.plays }, () => run.name),
  );
  return { ...tune, form: form.slice(0, MAX_PASSES) };
}

/** The playing order; names that are no part are left out, and an order of none is not taken. */
export function setForm(tune: Tune, form: readonly string[]): Tune {
  const names = new Set(tune.parts.map(({ name }) => name));
  const known = form.filter((name) => names.has(name)).slice(0, MAX_PASSES);
  return known.length > 0 ? { ...tune, form: known } : tune;
}

/**
 * Reads a playing order as it is written down: part names in a row (`AABB`), or with spaces where names are longer.
 * null where something in it is no part.
 */
export function parseForm(tune: Tune, text: string): string[] | null {
  const names = tune.parts.map(({ name }) => name).sort((a, b) => b.length - a.length);
  const found: string[] = [];
  let rest = text.trim();
  while (rest !== '') {
    const name = names.find((candidate) => rest.startsWith(candidate));
    if (name === undefined || found.length >= MAX_PASSES) return null;
    found.push(name);
    rest = rest.slice(name.length).trimStart();
  }
  return found.length > 0 ? found : null;
}

function runsOf(form: readonly string[]): { name: string; plays: number }[] {
  const runs: { name: string; plays: number }[] = [];
  for (const name of form) {
    const last = runs[runs.length - 1];
    if (last?.name === name) last.plays += 1;
    else runs.push({ name, plays: 1 });
  }
  return runs;
}
