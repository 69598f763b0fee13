import type { Fraction } from '#core/base';
import type { Pitch } from '#core/pitch';

/** What a value of the document may be, as data: a schema, a quick check and a codec are made from it elsewhere. */
export type FieldShape =
  /** One of some values; `expected` says of numbers what they should be. */
  | { readonly is: 'among'; readonly values: readonly (string | number | boolean)[]; readonly expected?: string }
  | { readonly is: 'whole'; readonly min: number; readonly max: number }
  /** `above`: larger than that, where a least amount cannot be named. */
  | { readonly is: 'number'; readonly min?: number; readonly above?: number; readonly max: number }
  | TextShape
  /** An exact length in whole notes; above 0 where it has to last. */
  | { readonly is: 'length'; readonly isAboveZero: boolean }
  | { readonly is: 'pitch' }
  | { readonly is: 'list'; readonly of: FieldShape; readonly min: number; readonly max?: number }
  | { readonly is: 'tuple'; readonly of: readonly FieldShape[] }
  /** Any number of fields whose names follow a pattern. */
  | { readonly is: 'map'; readonly names: RegExp; readonly of: FieldShape }
  | { readonly is: 'object'; readonly fields: ShapedFields }
  /** One of some objects, told by their `kind`. */
  | { readonly is: 'kinds'; readonly of: Readonly<Record<string, ShapedFields>> }
  | { readonly is: 'nullable'; readonly of: FieldShape };

export interface TextShape {
  readonly is: 'text';
  readonly pattern: RegExp;
  /** What is said of a text that does not follow the pattern, and of one that is too short. */
  readonly expected: string;
  readonly isTrimmed?: boolean;
  readonly min?: number;
  readonly expectedMin?: string;
  readonly max?: number;
}

export interface ShapedField {
  readonly type: FieldShape;
  readonly isOptional: boolean;
}

export type ShapedFields = Readonly<Record<string, ShapedField>>;

declare const described: unique symbol;

/** A shape that the compiler holds to the type it describes. */
export type FieldType<T> = FieldShape & { readonly [described]?: T };

/** A type for every field of `T`: one that is left out, or described as something else, does not compile. */
export type Fields<T, More = unknown> = {
  readonly [K in keyof Required<T>]: {
    readonly type: FieldType<Exclude<T[K], undefined>>;
    readonly isOptional: undefined extends T[K] ? true : false;
  } & More;
};

const as = <T>(shape: FieldShape): FieldType<T> => shape as FieldType<T>;

export const among = <const V extends string | number | boolean>(values: readonly V[], expected?: string) =>
  as<V>({ is: 'among', values, ...(expected === undefined ? {} : { expected }) });
export const whole = (min: number, max: number) => as<number>({ is: 'whole', min, max });
export const amount = (bounds: { readonly min?: number; readonly above?: number; readonly max: number }) =>
  as<number>({ is: 'number', ...bounds });
export const text = (shape: Omit<TextShape, 'is'>) => as<string>({ is: 'text', ...shape });
export const lasting = (isAboveZero: boolean) => as<Fraction>({ is: 'length', isAboveZero });
export const pitched = as<Pitch>({ is: 'pitch' });
export const list = <T>(of: FieldType<T>, min: number, max?: number) =>
  as<readonly T[]>({ is: 'list', of, min, ...(max === undefined ? {} : { max }) });
export const four = <T>(of: FieldType<T>) => as<readonly [T, T, T, T]>({ is: 'tuple', of: [of, of, of, of] });
export const mapped = <T>(names: RegExp, of: FieldType<T>) => as<Readonly<Record<string, T>>>({ is: 'map', names, of });
export const object = <T>(fields: Fields<T>) => as<T>({ is: 'object', fields: fields as ShapedFields });
export const kinds = <T>(of: Readonly<Record<string, ShapedFields>>) => as<T>({ is: 'kinds', of });
export const orNull = <T>(of: FieldType<T>) => as<T | null>({ is: 'nullable', of });

/** A field that is always there, and one that may be left out. */
export const needed = <T>(type: FieldType<T>) => ({ type, isOptional: false as const });
export const optional = <T>(type: FieldType<T>) => ({ type, isOptional: true as const });
