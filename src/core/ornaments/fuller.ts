import { applyDrones, lineChoices } from '#core/drones';
import { type Tune, writtenNotes } from '#core/tune';
import type { OrnamentScene } from './ornamentFacts';
import { ornament, type OrnamentRule, ornamentSpots } from './rules';

/** A fuller version: layers put on one after the other. */
export interface FullerStep {
  readonly on: string;
  readonly tune: Tune;
  /** Notes that get this layer. */
  readonly notes: number;
}

/** Ornaments that come first, each sparingly: two in a phrase of four bars. */
const RULES: readonly { readonly on: string; readonly rule: OrnamentRule }[] = [
  { on: 'cuts on the beat', rule: { ornament: 'cut', spot: 'on-beat', mostInPhrase: 2 } },
  { on: 'rolls on long notes', rule: { ornament: 'roll', spot: 'long-notes', mostInPhrase: 2 } },
];

/**
 * Versions with ever more layers: cuts, rolls, and drones on stressed beats, each only where it fits on every pass and where
 * nothing of its kind is yet. A layer that finds no place is passed over. Time O(n) a layer.
 */
export function fullerVersions(scene: OrnamentScene): FullerStep[] {
  const steps: FullerStep[] = [];
  let current = scene.drones.tune;
  for (const { on, rule } of RULES) {
    const marked = new Set(writtenNotes(current).flatMap(({ id, marks }) => (marks ? [id] : [])));
    const ids = ornamentSpots(scene, rule).filter((id) => !marked.has(id));
    if (ids.length === 0) continue;
    current = ornament({ ...scene, drones: { ...scene.drones, tune: current } }, ids, rule.ornament);
    steps.push({ on, tune: current, notes: ids.length });
  }
  if (writtenNotes(current).some(({ drone }) => drone)) return steps;
  const choices = lineChoices(scene.drones, () => true, 'stressed');
  const notes = [...choices.values()].filter(({ kind }) => kind !== 'none').length;
  if (notes > 0) steps.push({ on: 'drones on stressed beats', tune: applyDrones(current, choices), notes });
  return steps;
}
