import { useState } from 'react';
import { type Joint, JOINT_WORDS, JOINTS } from '#words/bodyCheck';
import { Button } from '../ui/Button';
import { readBodyCue, writeBodyCue } from './bodyCue';

/** Between blocks, from the elbow to the jaw: the first that fails is what is watched in the next one. */
export function BodyCheck() {
  const [cue, setCue] = useState<Joint | null>(readBodyCue);
  const [isDone, setDone] = useState(false);
  const tell = (joint: Joint | null) => {
    writeBodyCue(joint);
    setCue(joint);
    setDone(true);
  };
  return (
    <div role="group" aria-label="Body check" className="flex flex-wrap items-center gap-x-2 gap-y-1.5">
      <span>Fiddle down for a moment. Go through these in order: which is the first to fail?</span>
      {JOINTS.map((joint) => (
        <Button
          key={joint}
          look="small"
          aria-pressed={cue === joint}
          title={`${JOINT_WORDS[joint].asks}?`}
          className="aria-pressed:border-woad aria-pressed:bg-band aria-pressed:font-bold"
          onClick={() => tell(joint)}
        >
          {JOINT_WORDS[joint].asks}?
        </Button>
      ))}
      <Button look="small" onClick={() => tell(null)}>
        none: all is well
      </Button>
      <span role="status" className="w-full font-medium">
        {cue !== null ? `Next: ${JOINT_WORDS[cue].cue}` : isDone ? 'Good. Go on.' : ''}
      </span>
    </div>
  );
}
