import academico from '@vexflow-fonts/academico/academico.woff2?url&no-inline';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url&no-inline';
import { Font, VexFlow } from 'vexflow/core';

let loading: Promise<void> | null = null;

/** Loads the engraving fonts, shipped with the pages; must be done before anything is measured. */
export function loadEngravingFonts(): Promise<void> {
  loading ??= Promise.all([Font.load('Bravura', bravura), Font.load('Academico', academico)]).then(() =>
    VexFlow.setFonts('Bravura', 'Academico'),
  );
  return loading;
}
