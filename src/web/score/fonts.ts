import academico from '@vexflow-fonts/academico/academico.woff2?url&no-inline';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url&no-inline';
import { Font, Metrics, VexFlow } from 'vexflow/core';

let loading: Promise<void> | null = null;

/** Loads the engraving fonts, shipped with the pages; must be done before anything is measured. */
export function loadEngravingFonts(): Promise<void> {
  loading ??= Promise.all([Font.load('Bravura', bravura), Font.load('Academico', academico)]).then(() => {
    VexFlow.setFonts('Bravura', 'Academico');
    Metrics.getFontInfo = copied(Metrics.getFontInfo.bind(Metrics));
    Metrics.getStyle = copied(Metrics.getStyle.bind(Metrics));
  });
  return loading;
}

/** VexFlow looks up flat records for every element and clones each deeply: a fifth of its time. A spread does the same. */
function copied<T extends object>(look: (key: string) => T): (key: string) => T {
  const known = new Map<string, T>();
  return (key) => {
    const found = known.get(key) ?? look(key);
    known.set(key, found);
    return { ...found };
  };
}
