import { Download } from 'lucide-react';
import { keep, saveText } from '../../api/download';
import { runDiagramShapes } from '../../workers/pictures/run-diagram-shapes';
import { paintShapes, svgOf } from '../../workers/pictures/shapes';
import { DAY } from '../../ui/theme/theme';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useLiveDeskStore } from '../../state/desk-store';

const SIZE = { width: 1280, height: 480 };
/** Scale of its picture. */
const FINER = 2;

/** The run diagram as a drawing to hand over: all of the range, as its bar says. */
export function DiagramSection() {
  const desk = useLiveDeskStore();
  const ready = useDesk(({ evaluation }) => evaluation?.now === null);
  const draw = () => {
    const { shot, evaluation, diagram, riderId } = desk.getState();
    if (evaluation === null) return null;
    const shown = { ...diagram, frames: null, metres: null };
    const selected = shot.riders.find(({ id }) => id === riderId) ?? null;
    // Handed over it is on paper, whatever the light is here.
    const shapes = runDiagramShapes({ shot, evaluation, ...SIZE, theme: DAY, shown, selected });
    return { shapes, name: `${shot.name} run diagram` };
  };
  const saveSvg = () => {
    const drawn = draw();
    if (drawn) saveText(`${drawn.name}.svg`, svgOf(drawn.shapes, SIZE.width, SIZE.height));
  };
  const savePng = () => {
    const drawn = draw();
    if (!drawn) return;
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [FINER * SIZE.width, FINER * SIZE.height];
    const target = canvas.getContext('2d') as CanvasRenderingContext2D;
    target.scale(FINER, FINER);
    paintShapes(target, drawn.shapes);
    canvas.toBlob((blob) => blob && keep(`${drawn.name}.png`, blob), 'image/png');
  };
  return (
    <Section aria-label="Diagram">
      <SectionTitle>Run diagram</SectionTitle>
      <Hint>Distances and speeds over time, for the paths shown in the diagram.</Hint>
      <Buttons>
        <Button isDisabled={!ready} onPress={saveSvg}>
          <Download aria-hidden /> Diagram as SVG
        </Button>
        <Button isDisabled={!ready} onPress={savePng}>
          <Download aria-hidden /> Diagram as PNG
        </Button>
      </Buttons>
    </Section>
  );
}
