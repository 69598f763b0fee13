// What a tune document may hold, field by field, as data.
export { type LinedField, NOTE_FIELDS, type NoteAspect, TUNE_FIELDS } from './fields';
export type { FieldShape, Fields, ShapedField, ShapedFields, TextShape } from './fieldType';
// How much of it.
export { MAX_COUNT, MAX_EVENTS, MAX_PLAYED_EVENTS, playedEvents } from './bounds';
