/**
 * Fields with a document as JSON, the document as the text that the database has: parsing and writing megabytes again would
 * keep every other request waiting.
 */
export function withDocument(fields: object, name: string, document: string): string {
  return `${JSON.stringify(fields).slice(0, -1)},${JSON.stringify(name)}:${document}}`;
}
