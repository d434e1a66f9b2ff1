import { modelsInPlay } from '@fleet-rail/core';
import { Download } from 'lucide-react';
import { sentenceOf } from '../../api/request';
import { modelFileUrl } from '../../api/models';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { useDesk } from '../../state/desk-store';
import { RangeNotes } from '../shared/range-notes';
import { DiagramSection } from './diagram-section';
import { FilesSections } from './files-sections';
import { PicturesSection } from './pictures-section';
import { downloadFile } from '../../api/download';

/** Hand over: the files of a shot, made from what is saved. */
export function HandOverStep({ shotId }: { shotId: string }) {
  const shot = useDesk((state) => state.shot);
  const { riders, range, models } = shot;
  const moving = riders.filter((rider) => rider.attachment).length;
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
      <RangeNotes riderId={null} />
      <FilesSections shotId={shotId} />
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
