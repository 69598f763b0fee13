import type { Fraction } from '#core/base';
import { type FieldShape, MAX_COUNT, type ShapedFields, type TextShape } from '#core/document';
import { LETTERS, type Pitch } from '#core/pitch';

/** Whether a value is as it should be, with nothing beside it. */
export type Check = (value: unknown) => boolean;

/** An object with all described fields that are needed, any of the others and nothing else. */
export function objectCheck(fields: ShapedFields): Check {
  // Those that are needed first: so they mostly stand in a document that was written here.
  const rows = Object.entries(fields).sort(([, a], [, b]) => Number(a.isOptional) - Number(b.isOptional));
  const names = rows.map(([name]) => name);
  const checks = rows.map(([, { type }]) => checkOf(type));
  const neededCount = rows.filter(([, { isOptional }]) => !isOptional).length;
  return (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
    const given = value as Record<string, unknown>;
    let found = 0;
    let at = 0;
    for (const name in given) {
      // Fields mostly stand in this order, so the next one is looked at first.
      if (names[at] !== name) at = names.indexOf(name);
      if (at < 0 || !checks[at]!(given[name])) return false;
      if (at < neededCount) found += 1;
      at += 1;
    }
    return found === neededCount;
  };
}

/** The check of a described value: it takes nothing that the schema would refuse or change. */
function checkOf(shape: FieldShape): Check {
  switch (shape.is) {
    case 'among':
      return among(shape.values);
    case 'whole': {
      const { min, max } = shape;
      return (value) => Number.isInteger(value) && (value as number) >= min && (value as number) <= max;
    }
    case 'number': {
      const { min = -Infinity, above = -Infinity, max } = shape;
      return (value) => typeof value === 'number' && value >= min && value > above && value <= max;
    }
    case 'text':
      return text(shape);
    case 'length':
      return lasts(shape.isAboveZero ? 1 : 0);
    case 'pitch':
      return pitch;
    case 'list':
      return list(checkOf(shape.of), shape.min, shape.max);
    case 'tuple':
      return tuple(shape.of.map(checkOf));
    case 'map':
      return map(shape.names, checkOf(shape.of));
    case 'object':
      return objectCheck(shape.fields);
    case 'kinds': {
      const checks = new Map(Object.entries(shape.of).map(([kind, fields]) => [kind, objectCheck(fields)]));
      return (value) => checks.get((value as { kind?: string } | null | undefined)?.kind ?? '')?.(value) ?? false;
    }
    case 'nullable': {
      const check = checkOf(shape.of);
      return (value) => value === null || check(value);
    }
  }
}

function among(values: readonly unknown[]): Check {
  const known = new Set(values);
  return (value) => known.has(value);
}

function text({ pattern, isTrimmed = false, min = 0, max = Infinity }: TextShape): Check {
  return (value) =>
    typeof value === 'string' &&
    value.length >= min &&
    value.length <= max &&
    pattern.test(value) &&
    (!isTrimmed || value.trim() === value);
}

function list(check: Check, min: number, max = Infinity): Check {
  return (value) => {
    if (!Array.isArray(value) || value.length < min || value.length > max) return false;
    // A hole is an item too.
    for (const item of value) if (!check(item)) return false;
    return true;
  };
}

function tuple(checks: readonly Check[]): Check {
  return (value) =>
    Array.isArray(value) && value.length === checks.length && checks.every((check, i) => check(value[i]));
}

function map(names: RegExp, check: Check): Check {
  return (value) =>
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.entries(value).every(([name, own]) => names.test(name) && check(own));
}

function countFields(value: object): number {
  let count = 0;
  for (const _name in value) count += 1;
  return count;
}

/** Lengths and pitches are most of a document: they are looked at without a list of fields. */
function lasts(least: number): Check {
  return (value) => {
    if (typeof value !== 'object' || value === null || countFields(value) !== 2) return false;
    const { n, d } = value as Fraction;
    return Number.isInteger(n) && n >= least && n <= MAX_COUNT && Number.isInteger(d) && d >= 1 && d <= MAX_COUNT;
  };
}

const letter: Check = among(LETTERS);

const pitch: Check = (value) => {
  if (typeof value !== 'object' || value === null || countFields(value) !== 3) return false;
  const { alter, octave } = value as Pitch;
  return (
    letter((value as Pitch).letter) &&
    Number.isInteger(alter) &&
    alter >= -2 &&
    alter <= 2 &&
    Number.isInteger(octave) &&
    octave >= -1 &&
    octave <= 9
  );
};
