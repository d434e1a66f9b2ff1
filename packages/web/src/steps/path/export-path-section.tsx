import type { ShotPath } from '@fleet-rail/core';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { downloadFile } from '../../api/download';
import { sentenceOf } from '../../api/request';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons } from '../../ui/panel';
import { Fold } from '../../ui/fold';
import { Select } from '../../ui/select';
import { useAutosave } from '../../app/saving/save-context';

const KINDS = [
  { id: 'svg', name: 'SVG, its heights beside it' },
  { id: 'obj', name: 'OBJ lines' },
  { id: 'csv', name: 'CSV' },
  { id: 'glb', name: 'glTF lines' },
];

/** A path as a file that imports as the same curve. */
export function GiveOutSection({ shotId, path }: { shotId: string; path: ShotPath }) {
  const autosave = useAutosave();
  const [kind, setKind] = useState('svg');
  const give = async () => {
    try {
      await autosave.flush();
      await downloadFile(`/api/shots/${shotId}/files/path/${encodeURIComponent(path.id)}?kind=${kind}`);
    } catch (error) {
      notify('error', sentenceOf(error));
    }
  };
  return (
    <Fold title="Export path">
      <Select label="Format" options={KINDS} value={kind} onChange={setKind} />
      <Buttons>
        <Button onPress={() => void give()}>
          <Download aria-hidden /> Download {path.name}
        </Button>
      </Buttons>
    </Fold>
  );
}
