import { Maximize, ZoomIn } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import styled, { useTheme } from 'styled-components';
import { IconButton } from '../../ui/icon-button';
import { floorHeight } from '../../workers/scene-assets/ground-height';
import { nextTask } from '../../ui/next-task';
import { Board } from '../board/board';
import { useDesk, useDeskStore, useSelectedRider } from '../../state/desk-store';
import type { StepId } from '../../state/steps';
import { observeSize } from '../../ui/use-size';
import { HeatLegend } from '../lines/heat-legend';
import { KeptViews } from '../views/kept-views';
import { makeContext } from '../drawing/make-context';
import { Picture } from '../drawing/picture';
import { newLabelPlaces, PlacedLabels, Tag } from '../labels/placed-labels';
import { CamerasView } from '../views/cameras-view';
import { SeamView } from '../views/seam-view';
import { Settling } from './settling';
import { startGraphics } from '../drawing/smooth-edges';
import { useStageQuality } from '../drawing/stage-quality';
import { StageBanner } from './stage-banner';
import { QualityMenu } from './quality-menu';
import { StillNotice } from './still-notice';
import { StageView } from './stage-view';
import type { Box } from '../tools/stage-tool';
import { useNudgeKeys } from '../pointer/use-nudge-keys';
import { useStagePointer } from '../pointer/use-stage-pointer';
import { ViewChoice } from '../views/view-choice';

const Frame = styled.div`
  position: relative;
  width: 100%;
  height: 100%;
  min-height: 0;
  overflow: hidden;
  /* Until there is a picture. */
  background: ${({ theme }) => theme.sky};
  & > canvas {
    display: block;
    width: 100%;
    height: 100%;
    touch-action: none;
  }
`;

const Bar = styled.div`
  position: absolute;
  left: 12px;
  bottom: 12px;
  display: flex;
  gap: 8px;
  & > button {
    background: ${({ theme }) => theme.panel};
    border-color: ${({ theme }) => theme.hairline};
  }
`;

const Lasso = styled.div`
  position: absolute;
  border: 1px dashed ${({ theme }) => theme.signal};
  pointer-events: none;
`;

const Readout = styled(Tag)`
  left: auto;
  right: 12px;
  top: 12px;
  font-size: 13px;
  line-height: 22px;
  padding: 0 8px;
`;

const Cost = styled(Tag)`
  left: 50%;
  top: 12px;
`;

/** The scene: paths, riders, ground, and what the pointer does there. */
export function Stage({ station: step }: { station: StepId }) {
  const desk = useDeskStore();
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const selected = useSelectedRider();
  const [stage, setStage] = useState<StageView | null>(null);
  const [fault, setFault] = useState<unknown>(null);
  const [places] = useState(newLabelPlaces);
  const [hover, setHover] = useState<string | null>(null);
  const [box, setBox] = useState<Box | null>(null);
  const stats = useDesk((state) => state.stats);
  const cost = useRef<HTMLSpanElement>(null);
  const quality = useStageQuality((state) => state.quality);
  const [stale, setStale] = useState(false);
  // A picture while forces are computed would soon be old.
  const settling = useDesk(({ evaluation }) => (evaluation?.settling ?? null) !== null);

  // Disposed while still in the page: listeners on the document are found from there.
  useLayoutEffect(() => {
    const element = canvas.current;
    if (!element) return;
    let gone = false;
    let takeDown = (): void => undefined;
    const build = () => {
      const view = new StageView(element, useStageQuality.getState().quality, (labels, drawing, pictured) => {
        const { ms, calls, triangles } = drawing;
        places.setState(labels, true);
        setStale(!pictured);
        // Told past React: it changes with every picture.
        if (cost.current)
          cost.current.textContent = `${ms.toFixed(1)} ms, ${calls} draws, ${triangles} triangles`;
      });
      const stop = observeSize(element.parentElement ?? element, (width, height) =>
        view.resize(width, height),
      );
      takeDown = () => {
        stop();
        view.dispose();
      };
      setStage(view);
      desk.getState().set({
        eye: () => view.eye(),
        seen: (frame) => view.seen(frame),
        stands: () => view.stands(),
        drawStage: () => view.drawNow(),
        onLevel: (x, y) => {
          const { left, top } = element.getBoundingClientRect();
          return view.projection.onLevel(x - left, y - top, floorHeight(desk.getState().ground));
        },
        alongPath: (path, x, y) => {
          const { left, top } = element.getBoundingClientRect();
          const along = desk.getState().shot.paths.find(({ id }) => id === path);
          return (along && view.picks.placeOnPath(along, x - left, y - top, true)?.distance) ?? null;
        },
      });
    };
    // In tasks of their own: with all that came before them in one, a click would wait for all of it.
    startGraphics()
      .then(nextTask)
      .then(() => (gone ? undefined : makeContext(element)))
      .then(nextTask)
      .then(() => gone || build())
      .catch(setFault);
    return () => {
      gone = true;
      takeDown();
      setStage(null);
      desk
        .getState()
        .set({ eye: null, seen: null, stands: null, drawStage: null, alongPath: null, onLevel: null });
    };
  }, [places, desk]);
  useEffect(() => {
    if (!stage) return;
    const update = () => stage.update(desk.getState(), theme, step);
    update();
    return desk.subscribe(update);
  }, [stage, desk, theme, step]);
  useEffect(() => stage?.choose(quality), [stage, quality]);
  useStagePointer(canvas, stage, desk, step, setHover, setBox);
  const nudge = useNudgeKeys(desk);
  const view = useDesk((state) => state.view);
  const seam = useDesk((state) => state.seam);
  const beside = useDesk((state) => state.beside);

  // An error outside of rendering would reach no error boundary.
  if (fault !== null) throw fault;
  return (
    <Frame aria-label="Stage" role="group">
      <canvas
        ref={canvas}
        tabIndex={0}
        role="application"
        aria-label="Stage view. Arrow keys move the chosen points, Page Up and Page Down lift them, Delete deletes them."
        onKeyDown={nudge}
      />
      {box && (
        <Lasso
          style={{
            left: Math.min(box.x0, box.x1),
            top: Math.min(box.y0, box.y1),
            width: Math.abs(box.x1 - box.x0),
            height: Math.abs(box.y1 - box.y0),
          }}
        />
      )}
      <PlacedLabels places={places} />
      <Picture />
      <StageBanner />
      {stale && !settling && <StillNotice onDraw={() => stage?.drawNow()} />}
      <Settling />
      <HeatLegend />
      {stats && <Cost ref={cost} role="note" aria-label="Drawing" />}
      {hover && <Readout aria-hidden>{hover}</Readout>}
      <Bar>
        <ViewChoice />
        <KeptViews />
        <QualityMenu />
        <IconButton label="Show everything" isDisabled={stage === null} onPress={() => stage?.fit()}>
          <Maximize aria-hidden />
        </IconButton>
        {selected && view !== 'through' && (
          <IconButton
            label={`Zoom to ${selected.badge}`}
            isDisabled={stage === null}
            onPress={() => stage?.fitRiders([selected.id])}
          >
            <ZoomIn aria-hidden />
          </IconButton>
        )}
      </Bar>
      {view !== 'through' && !seam && !beside && <Board />}
      {beside && (
        <CamerasView shows={beside} take={(wanted, width) => stage?.picturesThrough(wanted, width) ?? []} />
      )}
      {seam && <SeamView closeUps={(frames, id) => stage?.closeUps(frames, id) ?? []} />}
    </Frame>
  );
}
