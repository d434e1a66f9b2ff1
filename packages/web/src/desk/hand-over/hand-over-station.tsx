import { modelsInPlay } from '@fleet-rail/core';
import { Download, X } from 'lucide-react';
import { useState } from 'react';
import { sentenceOf } from '../../api/request';
import { modelFileUrl } from '../../api/models';
import { Button, PrimaryButton } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../desk-store';
import { DiagramSection } from './diagram-section';
import { PicturesSection } from './pictures-section';
import { useAutosave } from '../saving/save-context';
import { downloadFile } from '../../api/download';

const FILES = [
  {
    id: 'glb',
    title: 'GLB',
    text: 'The models as they were made, and the ride as one animation that moves them, its wheels, limbs and wings with it. The ground stays out.',
  },
  {
    id: 'csv',
    title: 'CSV',
    text: 'One row a frame and rider: position, rotation, distance and speed, in full precision; and one for each part that moves by itself.',
  },
  {
    id: 'shot',
    title: 'Shot file',
    text: 'Everything decided here, to import again or to bake on the command line with the models next to it.',
  },
] as const;

/** Hand over: the files of a shot, made from what is saved. */
export function HandOverStation({ shotId }: { shotId: string }) {
  const autosave = useAutosave();
  const shot = useDesk((state) => state.shot);
  const { riders, range, models } = shot;
  const [busy, setBusy] = useState<{ id: string; cancel: () => void } | null>(null);
  const [within, setWithin] = useState(0);
  const download = async (id: string) => {
    const gone = new AbortController();
    setBusy({ id, cancel: () => gone.abort() });
    try {
      await autosave.flush();
      const thinned = id === 'glb' && within > 0 ? `?within=${within}` : '';
      await downloadFile(`/api/shots/${shotId}/files/${id}${thinned}`, gone.signal);
    } catch (error) {
      notify(gone.signal.aborted ? 'done' : 'error', sentenceOf(error));
    } finally {
      setBusy(null);
    }
  };
  const moving = riders.filter((rider) => rider.hitch).length;
  const played = modelsInPlay(shot);
  const kept = models.filter(({ id, source }) => source.asset !== undefined && played.has(id));
  return (
    <>
      <PanelTitle>Hand over</PanelTitle>
      <Section>
        <Hint>
          {moving} {moving === 1 ? 'rider' : 'riders'} on paths, frames {range.first} to {range.last}.
        </Hint>
      </Section>
      {FILES.map(({ id, title, text }, i) => {
        const Press = i === 0 ? PrimaryButton : Button;
        return (
          <Section key={id}>
            <SectionTitle>{title}</SectionTitle>
            <Hint>{text}</Hint>
            {id === 'glb' && (
              <>
                <QuantityField
                  label="Tolerance"
                  kind="length"
                  min={0}
                  max={1}
                  step={0.0005}
                  digits={4}
                  value={within}
                  onChange={setWithin}
                />
                <Hint>
                  {within === 0
                    ? 'Every frame is a key.'
                    : 'Keys that are not needed to stay within it are left out.'}
                </Hint>
              </>
            )}
            <Buttons>
              <Press isPending={busy !== null} onPress={() => void download(id)}>
                <Download aria-hidden /> {busy?.id === id ? 'Preparing…' : `Download ${title}`}
              </Press>
              {busy?.id === id && (
                <Button onPress={busy.cancel}>
                  <X aria-hidden /> Cancel
                </Button>
              )}
            </Buttons>
          </Section>
        );
      })}
      <PicturesSection shotId={shotId} />
      <DiagramSection />
      {kept.length > 0 && (
        <Section>
          <SectionTitle>Models of the shot file</SectionTitle>
          <Buttons>
            {kept.map((model) => (
              <Button
                key={model.id}
                onPress={() =>
                  void downloadFile(modelFileUrl(model.source.asset as string)).catch((error: unknown) =>
                    notify('error', sentenceOf(error)),
                  )
                }
              >
                <Download aria-hidden /> {model.name}
              </Button>
            ))}
          </Buttons>
        </Section>
      )}
    </>
  );
}
