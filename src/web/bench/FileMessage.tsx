import { useEffect, useRef, useState } from 'react';
import type { ExportFormat } from '#contract/exports';
import { exportRoutes } from '#contract/exports';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';

/** Fetches the tune as a file and hands it to the browser; says so where that fails. */
export function FileMessage({
  id,
  format,
  onClose,
}: {
  readonly id: string;
  readonly format: ExportFormat;
  readonly onClose: () => void;
}) {
  const [failure, setFailure] = useState<Failure | null>(null);
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void ask(exportRoutes.exportTunes, { body: { format, choice: { ids: [id] } } }).then((answer) => {
      if (!answer.ok) return setFailure(answer.failure);
      saveFile(answer.value.name, answer.value.file);
      onClose();
    });
  }, [id, format, onClose]);
  if (!failure) return null;
  return (
    <Sheet open onOpenChange={onClose} title="The file was not made">
      <Alert className="mb-3">{failureWords(failure)}</Alert>
      <Button onClick={onClose}>Close</Button>
    </Sheet>
  );
}
