import { useState } from 'react';
import { EXPORT_FORMATS, type ExportFormat, exportRoutes } from '#contract/exports';
import type { TuneSet } from '#contract/sets';
import { FILE_KINDS } from '#formats/kinds';
import { failureWords } from '#words/failure';
import { ask } from '../api/ask';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Select } from '../ui/Select';

const FORMATS = EXPORT_FORMATS.map((value) => ({
  value,
  name: value === 'csv' ? 'Table (CSV)' : FILE_KINDS[value].label,
}));

/** The tunes of a set as a file, in their order. */
export function SaveSet({ set }: { readonly set: TuneSet }) {
  const [format, setFormat] = useState<ExportFormat>('abc');
  const [isMaking, setMaking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const make = async () => {
    setMaking(true);
    setProblem(null);
    const ids = set.tunes.map(({ tuneId }) => tuneId);
    const answer = await ask(exportRoutes.exportTunes, {
      body: { format, choice: { ids, inOrder: true }, name: set.name },
    });
    setMaking(false);
    if (answer.ok) saveFile(answer.value.name, answer.value.file);
    else setProblem(`The file could not be made. ${failureWords(answer.failure)}`);
  };
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Button disabled={isMaking} onClick={() => void make()}>
        {isMaking ? 'Making the file …' : 'Save as'}
      </Button>
      <Select label="Kind of file" value={format} options={FORMATS} onChange={setFormat} />
      {problem && <Alert look="small">{problem}</Alert>}
    </span>
  );
}
