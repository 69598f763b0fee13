import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';

/** An element as read: what stands in it, and where it begins in the text. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  /** Its own text, white space around it left out. */
  readonly text: string;
  readonly offset: number;
}

export type ParsedXml =
  | { readonly ok: true; readonly root: XmlElement }
  | { readonly ok: false; readonly line: number; readonly column: number; readonly message: string };

/** Elements inside each other: notation needs a dozen. */
const MAX_NESTED = 60;

/** The parser's node: one key with the children, `:@` with the attributes. */
type RawNode = Record<string, unknown> & { ':@'?: Record<string, string> };

/**
 * Reads XML in the order of the page. Entities are never expanded but for the five of the language itself and character
 * numbers: a document type may define what it likes. Time O(n).
 */
export function parseXml(text: string): ParsedXml {
  // The validator is strict where the parser is not.
  const valid = XMLValidator.validate(text);
  if (valid !== true) {
    const { line, col, msg } = valid.err;
    return { ok: false, line: line || 1, column: col || 1, message: msg };
  }
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    parseTagValue: false,
    parseAttributeValue: false,
    processEntities: false,
    htmlEntities: false,
    ignoreDeclaration: true,
    ignorePiTags: true,
    captureMetaData: true,
    maxNestedTags: MAX_NESTED,
  });
  try {
    const nodes = parser.parse(text) as RawNode[];
    const root = nodes.map(toElement).find((node) => node !== null);
    if (root) return { ok: true, root };
    return { ok: false, line: 1, column: 1, message: 'there is no element in it' };
  } catch (error) {
    const message = error instanceof Error ? error.message : 'not XML';
    return { ok: false, line: 1, column: 1, message };
  }
}

const META = XMLParser.getMetaDataSymbol() as unknown as string;

function toElement(node: RawNode): XmlElement | null {
  const name = Object.keys(node).find((key) => key !== ':@');
  if (name === undefined || name === '#text') return null;
  const inner = node[name] as RawNode[];
  const attributes = Object.fromEntries(
    Object.entries(node[':@'] ?? {}).map(([key, value]) => [key, decodeEntities(String(value))]),
  );
  return {
    name,
    attributes,
    children: inner.map(toElement).filter((child) => child !== null),
    text: decodeEntities(
      inner
        .map((child) => (child['#text'] === undefined ? '' : String(child['#text'])))
        .join('')
        .trim(),
    ),
    offset: (node[META] as unknown as { startIndex?: number } | undefined)?.startIndex ?? 0,
  };
}

const NAMED: Record<string, string> = { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" };

function decodeEntities(text: string): string {
  return text.replace(/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(lt|gt|amp|quot|apos));/gi, (whole, decimal, hex, name) => {
    if (name !== undefined) return NAMED[(name as string).toLowerCase()]!;
    const code = decimal === undefined ? parseInt(hex as string, 16) : Number(decimal);
    const isText = code >= 0x20 && code <= 0x10ffff && (code < 0xd800 || code > 0xdfff);
    return isText ? String.fromCodePoint(code) : whole;
  });
}

export function child(element: XmlElement, name: string): XmlElement | undefined {
  return element.children.find((inner) => inner.name === name);
}

export function childText(element: XmlElement, name: string): string | undefined {
  return child(element, name)?.text;
}

export function childrenOf(element: XmlElement, name: string): XmlElement[] {
  return element.children.filter((inner) => inner.name === name);
}

/** An element to be written. */
export type XmlOut = Record<string, unknown>;

/** `el('step', 'D')`, `el('barline', { location: 'left' }, [ … ])`; a number is written as it prints. */
export function el(name: string, ...rest: (Record<string, string | number> | XmlOut[] | string | number)[]): XmlOut {
  const node: XmlOut = { [name]: [] };
  for (const part of rest)
    if (Array.isArray(part)) node[name] = part;
    else if (typeof part === 'object')
      node[':@'] = Object.fromEntries(Object.entries(part).map(([key, value]) => [key, String(value)]));
    else node[name] = [{ '#text': String(part) }];
  return node;
}

export function buildXml(root: XmlOut): string {
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    format: true,
    indentBy: '  ',
    suppressEmptyNode: true,
    processEntities: true,
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n${(builder.build([root]) as string).trim()}\n`;
}
