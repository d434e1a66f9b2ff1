import { Download, X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { downloadFile } from '../../api/download';
import { sentenceOf } from '../../api/request';
import { Button, PrimaryButton } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { useAutosave } from '../../app/saving/save-context';
import { askedFor, newGivenOut, withinRange, type GivenOut } from './export-choice';
import { GivenOutFields, ThinningFields } from './export-fields';

/** The files of a shot, made from what is saved. */
export function FilesSections({ shotId }: { shotId: string }) {
  const autosave = useAutosave();
  const shot = useDesk((state) => state.shot);
  const riderId = useDesk((state) => state.riderId);
  const together = useDesk((state) => state.together);
  const [own, setOwn] = useState<GivenOut>(() => newGivenOut(shot));
  const [busy, setBusy] = useState<{ format: string; cancel: () => void } | null>(null);
  const given = withinRange(own, shot);
  const chosen = shot.riders.filter(({ id }) => id === riderId || together.has(id)).map(({ id }) => id);
  const download = async (format: string) => {
    const gone = new AbortController();
    setBusy({ format, cancel: () => gone.abort() });
    try {
      await autosave.flush();
      const query = format === 'shot' ? '' : `?${askedFor(given, chosen, format)}`;
      await downloadFile(`/api/shots/${shotId}/files/${format}${query}`, gone.signal);
    } catch (error) {
      notify(gone.signal.aborted ? 'done' : 'error', sentenceOf(error));
    } finally {
      setBusy(null);
    }
  };
  const press = (format: string, label: ReactNode, first = false) => {
    const Press = first ? PrimaryButton : Button;
    return (
      <>
        <Press isPending={busy !== null} onPress={() => void download(format)}>
          <Download aria-hidden /> {busy?.format === format ? 'Preparing…' : label}
        </Press>
        {busy?.format === format && (
          <Button onPress={busy.cancel}>
            <X aria-hidden /> Cancel
          </Button>
        )}
      </>
    );
  };
  const fields = { given, chosen, onChange: setOwn };
  return (
    <>
      <Section>
        <GivenOutFields {...fields} />
      </Section>
      <Section>
        <SectionTitle>GLB and USD</SectionTitle>
        <Hint>The models and their baked animation, with wheels, limbs and wings. Without the ground.</Hint>
        <ThinningFields {...fields} shotId={shotId} flush={() => autosave.flush()} />
        <Buttons>{press('glb', 'Download GLB', true)}</Buttons>
        <Buttons>
          {press('usd', 'Download USD')}
          {press('usdz', 'USDZ')}
        </Buttons>
      </Section>
      <Section>
        <SectionTitle>CSV</SectionTitle>
        <Hint>
          One row for each frame and rider, in full precision. Tables add sizes, lenses, cuts and phases.
        </Hint>
        <Tick isSelected={given.facts} onChange={(facts) => setOwn({ ...given, facts })}>
          Lines with rate and units before the header
        </Tick>
        <Buttons>
          {press('csv', 'Download CSV')}
          {press('tables', 'With tables')}
        </Buttons>
      </Section>
      <Section>
        <SectionTitle>Shot file</SectionTitle>
        <Hint>The whole shot: import it again, or bake it on the command line.</Hint>
        <Buttons>{press('shot', 'Download Shot file')}</Buttons>
      </Section>
    </>
  );
}
