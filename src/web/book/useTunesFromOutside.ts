import { type DragEvent, useEffect, useState } from 'react';
import type { ImportInput } from './importProtocol';

/** Files and texts that are dropped on the book or pasted into it, ready to be read. */
export function useTunesFromOutside() {
  const [importing, setImporting] = useState<{ readonly input: ImportInput } | null>(null);
  const [isOver, setOver] = useState(false);
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      if ((event.target as Element).closest('input, textarea')) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length > 0) setImporting((current) => current ?? { input: { kind: 'files', files } });
      else if (/^[XTK]:/m.test(text) || /^\s*<\?xml|^\s*<score-/.test(text))
        setImporting((current) => current ?? { input: { kind: 'text', text } });
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);
  const dropZone = {
    onDragOver: (event: DragEvent) => {
      event.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      const files = [...event.dataTransfer.files];
      const text = event.dataTransfer.getData('text/plain');
      if (files.length > 0) setImporting({ input: { kind: 'files', files } });
      else if (text) setImporting({ input: { kind: 'text', text } });
    },
  };
  return {
    importing,
    isOver,
    dropZone,
    begin: () => setImporting({ input: null }),
    end: () => setImporting(null),
  };
}
