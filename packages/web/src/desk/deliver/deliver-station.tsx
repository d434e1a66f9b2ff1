import { Download } from 'lucide-react';
import { useState } from 'react';
import { sentenceOf } from '../../api/request';
import { modelFileUrl } from '../../api/models';
import { Button, PrimaryButton } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { useDesk } from '../desk-store';
import { useAutosave } from '../saving/save-context';
import { downloadFile } from './download';

const FILES = [
  {
    id: 'glb',
    title: 'GLB',
    text: 'The models as they were made, and the ride as one animation that moves them, a key a frame. The ground stays out.',
  },
  {
    id: 'csv',
    title: 'CSV',
    text: 'One row a frame and rider: place, rotation, distance and speed, in full precision.',
  },
  {
    id: 'shot',
    title: 'Shot file',
    text: 'Everything decided here, to import again or to bake on the command line with the models beside it.',
  },
] as const;

/** Hand over: the files of a shot, made from what is saved. */
export function DeliverStation({ shotId }: { shotId: string }) {
  const autosave = useAutosave();
  const { riders, range, models } = useDesk((state) => state.shot);
  const [busy, setBusy] = useState<string | null>(null);
  const deliver = async (id: string) => {
    setBusy(id);
    try {
      await autosave.flush();
      await downloadFile(`/api/shots/${shotId}/files/${id}`);
    } catch (error) {
      notify('error', sentenceOf(error));
    } finally {
      setBusy(null);
    }
  };
  const moving = riders.filter((rider) => rider.hitch).length;
  const kept = models.filter(
    (model) => model.source.asset !== undefined && riders.some((rider) => rider.model === model.id),
  );
  return (
    <>
      <PanelTitle>Deliver</PanelTitle>
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
            <Buttons>
              <Press isPending={busy !== null} onPress={() => void deliver(id)}>
                <Download aria-hidden /> {busy === id ? 'Making it…' : `Download ${title}`}
              </Press>
            </Buttons>
          </Section>
        );
      })}
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
