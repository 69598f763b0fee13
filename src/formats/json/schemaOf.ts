import { z } from 'zod';
import { type Fields, type FieldShape, MAX_COUNT, type ShapedFields, type TextShape } from '#core/document';
import { LETTERS } from '#core/pitch';

const length = z
  .object({ n: z.int().min(0).max(MAX_COUNT), d: z.int().min(1).max(MAX_COUNT) })
  .describe('exact length in whole notes: n/d');
const lasting = length.refine(({ n }) => n > 0, 'a note lasts longer than 0');
const pitch = z.object({ letter: z.enum(LETTERS), alter: z.int().min(-2).max(2), octave: z.int().min(-1).max(9) });

/** The schema of what described fields make up. */
export const schemaOfFields = <T>(fields: Fields<T>) => objectSchema(fields as ShapedFields) as unknown as z.ZodType<T>;

function objectSchema(fields: ShapedFields) {
  return z.object(
    Object.fromEntries(
      Object.entries(fields).map(([name, { type, isOptional }]) => {
        const schema = schemaOf(type);
        return [name, isOptional ? schema.optional() : schema];
      }),
    ),
  );
}

function schemaOf(shape: FieldShape): z.ZodType {
  switch (shape.is) {
    case 'among':
      return amongSchema(shape);
    case 'whole':
      return z.int().min(shape.min).max(shape.max);
    case 'number': {
      const number = z.number();
      const above = shape.above === undefined ? number : number.gt(shape.above);
      return (shape.min === undefined ? above : above.min(shape.min)).max(shape.max);
    }
    case 'text':
      return textSchema(shape);
    case 'length':
      return shape.isAboveZero ? lasting : length;
    case 'pitch':
      return pitch;
    case 'list': {
      const items = z.array(schemaOf(shape.of));
      const least = shape.min > 0 ? items.min(shape.min) : items;
      return shape.max === undefined ? least : least.max(shape.max);
    }
    case 'tuple':
      return z.tuple(shape.of.map(schemaOf) as [z.ZodType, ...z.ZodType[]]);
    case 'map':
      return z.record(z.string().regex(shape.names), schemaOf(shape.of));
    case 'object':
      return objectSchema(shape.fields);
    case 'kinds':
      return z.discriminatedUnion(
        'kind',
        Object.values(shape.of).map(objectSchema) as unknown as [z.ZodObject<{ kind: z.ZodLiteral<string> }>],
      );
    case 'nullable':
      return schemaOf(shape.of).nullable();
  }
}

function amongSchema({ values, expected }: Extract<FieldShape, { is: 'among' }>): z.ZodType {
  if (expected !== undefined) return z.number().refine((value) => values.includes(value), expected);
  if (values.length === 1) return z.literal(values[0]!);
  if (values.every((value) => typeof value === 'string')) return z.enum(values);
  return z.union(values.map((value) => z.literal(value)));
}

function textSchema({ pattern, expected, isTrimmed, min, expectedMin, max }: TextShape): z.ZodType {
  const form = z.string().regex(pattern, expected);
  const trimmed = isTrimmed ? form.trim() : form;
  const least = min === undefined ? trimmed : trimmed.min(min, expectedMin);
  return max === undefined ? least : least.max(max);
}
