/** What is played together; a layer that is off is not in the plan at all. */
export const LAYERS = ['melody', 'drones', 'bowing', 'colour', 'backing', 'click', 'tone'] as const;
export type Layer = (typeof LAYERS)[number];
