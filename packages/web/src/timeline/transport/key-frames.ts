import { mapFrames, type Rider } from '@fleet-rail/core';
import type { DeskState } from '../../state/desk-store';

/** The frame of the selected rider's next key in a direction; where there is none, it stays. */
export function keyFrom(
  { shot, riderId, evaluation, frame }: Pick<DeskState, 'shot' | 'riderId' | 'evaluation' | 'frame'>,
  way: 1 | -1,
): number {
  const rider = shot.riders.find(({ id }) => id === riderId);
  if (!rider) return frame;
  const { shown } = mapFrames(evaluation?.riders.get(rider.id)?.timing?.steps ?? [], shot.range);
  const { own, work } = keyFrames(rider);
  const frames = [...own.flatMap((at) => shown(at) ?? []), ...work];
  const ahead = frames.map(Math.round).filter((at) => way * (at - frame) > 0);
  return ahead.length === 0 ? frame : way > 0 ? Math.min(...ahead) : Math.max(...ahead);
}

/** The frames at which a rider has keys, of whatever is keyed: of its timing in its own time, else in that of the shot. */
function keyFrames({ attachment, transformKeys, camera, parentKeys }: Rider): {
  own: number[];
  work: number[];
} {
  const pace = attachment?.pace;
  const paced = pace?.mode === 'keys' ? pace.keys : pace?.mode === 'speed' ? pace.speeds : [];
  const others = [
    ...(attachment?.offsetKeys ?? []),
    ...(attachment?.influence ?? []),
    ...(attachment?.facing.influence ?? []),
    ...(camera?.keys ?? []),
    ...parentKeys,
  ];
  return {
    own: [...paced, ...(attachment === null ? (transformKeys?.keys ?? []) : [])].flatMap(
      ({ frame }) => frame ?? [],
    ),
    work: others.map(({ frame }) => frame),
  };
}
