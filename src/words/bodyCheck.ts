/** What is looked at between blocks, in this order: the first that fails is what is watched next. */
export const JOINTS = ['elbow', 'wrist', 'fingers', 'shoulder', 'grip', 'jaw'] as const;
export type Joint = (typeof JOINTS)[number];

export const JOINT_WORDS: Readonly<Record<Joint, { readonly asks: string; readonly cue: string }>> = {
  elbow: { asks: 'does the elbow open', cue: 'Let the elbow open.' },
  wrist: { asks: 'does the wrist bend', cue: 'Let the wrist bend.' },
  fingers: { asks: 'do the fingers give', cue: 'Let the fingers of the bow hand give.' },
  shoulder: { asks: 'does the shoulder rest', cue: 'Let the shoulder rest.' },
  grip: { asks: 'is the grip light', cue: 'Hold the bow lightly.' },
  jaw: { asks: 'is the jaw loose', cue: 'Let the jaw go.' },
};
