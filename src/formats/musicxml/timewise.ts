import { childrenOf, type XmlElement } from './xml';

/** The score with measures inside parts, whichever way it was written; null where it is no score. */
export function byPart(root: XmlElement): XmlElement | null {
  if (root.name === 'score-partwise') return root;
  if (root.name !== 'score-timewise') return null;
  const parts = new Map<string, XmlElement[]>();
  for (const measure of childrenOf(root, 'measure'))
    for (const part of childrenOf(measure, 'part')) {
      const id = part.attributes.id ?? '';
      parts.set(id, [...(parts.get(id) ?? []), { ...part, name: 'measure', attributes: measure.attributes }]);
    }
  const head = root.children.filter(({ name }) => name !== 'measure');
  const list = [...parts].map(([id, children]): XmlElement => ({
    ...root,
    name: 'part',
    attributes: { id },
    children,
  }));
  return { ...root, name: 'score-partwise', children: [...head, ...list] };
}
