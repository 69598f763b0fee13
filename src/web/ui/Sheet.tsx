import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { type ReactNode, use, useEffect, useRef } from 'react';
import { SignButton } from './Button';
import { focusHolder, returnFocus } from './returnFocus';
import { SheetPlace } from './SheetPlace';

export interface SheetProps {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly title: string;
  readonly description?: string;
  readonly children: ReactNode;
  /** For questions that must be answered: no closing by Escape or a click beside it. */
  readonly mustAnswer?: boolean;
  readonly wide?: boolean;
}

/** A sheet of paper: laid over the page, or in the panel beside it. */
export function Sheet(props: SheetProps) {
  return use(SheetPlace) === 'panel' ? <PanelSheet {...props} /> : <WindowSheet {...props} />;
}

/** In the panel: it takes the focus when it is opened; the page stays at hand, and the panel closes by itself. */
function PanelSheet({ title, description, children }: SheetProps) {
  const root = useRef<HTMLElement>(null);
  useEffect(() => {
    const wanted = root.current!.querySelector<HTMLElement>('[data-autofocus]') ?? root.current!;
    wanted.focus({ preventScroll: true });
  }, []);
  return (
    <section ref={root} tabIndex={-1} aria-label={title} className="flex min-h-0 flex-1 flex-col outline-none">
      <header className="px-4 pt-2 pb-1">
        <h2 className="text-xl leading-tight">{title}</h2>
        {description !== undefined && <p className="text-small leading-snug text-muted">{description}</p>}
      </header>
      <div className="@container min-h-0 flex-1 overflow-y-auto px-4 pt-1 pb-4">{children}</div>
    </section>
  );
}

function WindowSheet({ open, onOpenChange, title, description, children, mustAnswer, wide }: SheetProps) {
  const refuse = (event: Event) => {
    if (mustAnswer) event.preventDefault();
  };
  const opener = useRef<Element | null>(null);
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          onOpenAutoFocus={(event) => {
            opener.current = focusHolder();
            const wanted = (event.currentTarget as Element).querySelector<HTMLElement>('[data-autofocus]');
            if (!wanted) return;
            event.preventDefault();
            wanted.focus();
          }}
          onCloseAutoFocus={(event) => {
            // Left alone, the focus would go to a button that opens the sheet, which it has none of its own.
            event.preventDefault();
            returnFocus(opener.current);
          }}
          onEscapeKeyDown={refuse}
          onPointerDownOutside={refuse}
          {...(description === undefined ? { 'aria-describedby': undefined } : {})}
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[92dvh] -translate-x-1/2 -translate-y-1/2 flex-col rounded-lg border border-line bg-surface text-ink shadow-2xl`}
          style={{ width: `min(94vw, ${wide ? '56rem' : '36rem'})` }}
        >
          <header className="flex items-start justify-between gap-4 border-b border-line px-5 pt-4 pb-3">
            <div>
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {description !== undefined && (
                <Dialog.Description className="text-muted">{description}</Dialog.Description>
              )}
            </div>
            {!mustAnswer && (
              <Dialog.Close asChild>
                <SignButton label="Close">
                  <X size={18} aria-hidden />
                </SignButton>
              </Dialog.Close>
            )}
          </header>
          <div className="@container min-h-0 overflow-y-auto px-5 py-4">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
