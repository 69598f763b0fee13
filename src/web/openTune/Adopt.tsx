import { Volume2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Tune } from '#core/tune';
import { Button, SignButton } from '../ui/Button';
import type { SheetProps } from './sheetProps';

interface AdoptProps extends Pick<SheetProps, 'onApply' | 'onPreview' | 'onHear'> {
  /** The tune with what is proposed. */
  readonly next: Tune;
  /** What undo calls it. */
  readonly label: string;
  /** What is proposed, for those who do not see it. */
  readonly name: string;
  readonly isNow?: boolean;
  readonly look?: 'small' | 'main';
  /** Beside the button: `take it`, `taken`. */
  readonly children?: ReactNode;
  /** It cannot be heard: it changes nothing that sounds. */
  readonly isSilent?: boolean;
}

/** A proposal: heard, looked at in the score while it is pointed at, and taken. */
export function Adopt(props: AdoptProps) {
  const { next, label, name, isNow = false, look = 'small', children, isSilent = false } = props;
  const { onApply, onPreview, onHear } = props;
  const show = () => onPreview(next);
  const hide = () => onPreview(null);
  return (
    <span className="inline-flex items-center gap-1 whitespace-nowrap" onPointerLeave={hide} onBlur={hide}>
      {!isSilent && (
        <SignButton
          label={`Hear it: ${name}`}
          className="size-8"
          onPointerMove={show}
          onFocus={show}
          onClick={() => onHear(isNow ? null : next)}
        >
          <Volume2 size={16} aria-hidden />
        </SignButton>
      )}
      <Button
        look={look}
        disabled={isNow}
        onPointerMove={show}
        onFocus={show}
        onClick={() => {
          hide();
          onApply(next, label);
        }}
      >
        {children ?? (isNow ? 'as it is' : 'take it')}
        <span className="sr-only">: {name}</span>
      </Button>
    </span>
  );
}
