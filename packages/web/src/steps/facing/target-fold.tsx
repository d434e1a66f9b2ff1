import {
  POSE,
  aimedAt,
  focalAt,
  pictureHalves,
  sourceFrame,
  type Camera,
  type Rider,
} from '@fleet-rail/core';
import { useMemo } from 'react';
import { holdSize, sizeHeld } from '../../edits/hold-size';
import { poseAt } from '../../workers/evaluation/pose-at';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { notify } from '../../ui/notices';
import { Buttons, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { LimitChart } from '../shared/clearance/limit-chart';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { attemptAsked } from '../../commands/attempt';

/** How far a camera's target is and how large a metre of it is in the picture, over time; and a lens that holds its size. */
export function TargetFold({ rider, camera }: { rider: Rider; camera: Camera }) {
  const target = aimedAt(rider);
  if (target?.rider === undefined) return null;
  return (
    <Fold title="Target in the picture">
      <Target rider={rider} camera={camera} targetId={target.rider} />
    </Fold>
  );
}

function Target({ rider, camera, targetId }: { rider: Rider; camera: Camera; targetId: string }) {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const frame = useDesk((state) => state.frame);
  const badge = shot.riders.find(({ id }) => id === targetId)?.badge ?? '';
  const distances = useMemo(() => {
    const [own, its] = [rider.id, targetId].map((id) => evaluation?.riders.get(id));
    if (!evaluation || !own || !its) return null;
    const [a, b] = [new Float64Array(POSE.size), new Float64Array(POSE.size)];
    return Float64Array.from({ length: evaluation.frames }, (_, i) => {
      poseAt(evaluation, own, evaluation.first + i, a);
      poseAt(evaluation, its, evaluation.first + i, b);
      return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
    });
  }, [evaluation, rider.id, targetId]);
  if (distances === null) return null;
  const far = distances[Math.round(frame) - shot.range.first] ?? NaN;
  const { across } = pictureHalves(camera, focalAt(camera, sourceFrame(shot, frame)));
  const holdSizeNow = () => {
    const keys = sizeHeld(shot, camera, distances, frame);
    if (keys === null) notify('error', 'No lens holds that size: focal length must be 1 mm to 10 m.');
    else desk.getState().edit('Hold the size', holdSize(rider.id, keys));
  };
  const holdDistanceNow = async () => {
    const held = await attemptAsked(desk, 'Hold the distance', 'holdDistance', rider.id, targetId, frame);
    if (held === null) return;
    const far = `${showNumber(held.distance, 2)} m from ${badge}`;
    notify(
      'done',
      held.missed < 0.05
        ? `${rider.badge} stays ${far}.`
        : `${rider.badge} stays ${far} where its path lets it; at worst it is ${showNumber(held.missed, 2)} m off that.`,
    );
  };
  return (
    <>
      <LimitChart
        label={`Distance to ${badge}`}
        values={distances}
        step={1}
        limit={null}
        onLimit={() => undefined}
      />
      <Hint>
        {showNumber(far, 2)} m off at this frame: a metre of it is {showNumber(100 / (2 * across * far), 1)} %
        of the picture’s width.
      </Hint>
      <Buttons>
        <Button onPress={holdSizeNow}>Hold the size by the lens</Button>
        <Button onPress={holdDistanceNow}>Hold the distance along the path</Button>
      </Buttons>
    </>
  );
}
