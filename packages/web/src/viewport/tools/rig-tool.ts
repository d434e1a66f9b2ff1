import { POSE, axisVector, ownAxes, type Rider, type Vec3, type Wheel } from '@fleet-rail/core';
import * as THREE from 'three';
import { changeGait, changeWheel } from '../../edits/contact-edits';
import { poseAt } from '../../workers/evaluation/pose-at';
import { showNumber } from '../../ui/quantity';
import type { RigGrip } from '../lines/rig-overlay';
import { selectTool } from './select-tool';
import type { ToolContext, StagePointer, StageTool } from './stage-tool';

/** A foot that is held. */
interface HeldFoot {
  readonly rider: Rider;
  readonly foot: string;
  readonly gesture: string;
}

/** Dragged grip of a wheel, with the wheel and the rider's own space as they were. */
interface HeldWheel {
  readonly rider: Rider;
  readonly wheel: Wheel;
  readonly grip: RigGrip['grip'];
  readonly toWorld: THREE.Matrix4;
  readonly grabbed: THREE.Vector3;
  readonly gesture: string;
}

/** Drags a wheel's middle along its side, its rim to another radius, or a foot to another node; everywhere else the ordinary hand. */
export function rigTool(context: ToolContext): StageTool {
  const { stage, desk, onHover } = context;
  const ordinary = selectTool(context, false);
  let held: HeldWheel | HeldFoot | null = null;

  /** Position of the pointer on the side of a wheel, in the rider's own space. */
  const onSide = ({ x, y }: StagePointer, wheel: Wheel, toWorld: THREE.Matrix4): THREE.Vector3 | null => {
    const toOwn = toWorld.clone().invert();
    const ray = stage.projection.rayAt(x, y).ray.clone().applyMatrix4(toOwn);
    const normal = new THREE.Vector3(...axisVector(wheel.axle));
    const side = new THREE.Plane().setFromNormalAndCoplanarPoint(normal, new THREE.Vector3(...wheel.centre));
    return ray.intersectPlane(side, new THREE.Vector3());
  };

  return {
    ...ordinary,
    press(at) {
      const hit = stage.picks.rig(at.x, at.y);
      const { shot, riderId } = desk.getState();
      const rider = shot.riders.find(({ id }) => id === riderId);
      const wheel = rider?.wheels.find(({ node }) => node === hit?.node);
      if (rider && hit?.grip === 'foot') {
        held = { rider, foot: hit.node, gesture: `foot ${at.time}` };
        return true;
      }
      const toWorld = rider && ownSpace(context, rider);
      const grabbed = wheel && toWorld && onSide(at, wheel, toWorld);
      if (!hit || !rider || !wheel || !toWorld || !grabbed) return ordinary.press?.(at) ?? false;
      held = { rider, wheel, grip: hit.grip, toWorld, grabbed, gesture: `wheel ${at.time}` };
      return true;
    },
    drag(at) {
      if (held === null) return ordinary.drag?.(at);
      if ('foot' in held) {
        held = dragFoot(context, held, at);
        return;
      }
      const { rider, wheel, grip, toWorld, grabbed, gesture } = held;
      const now = onSide(at, wheel, toWorld);
      if (now === null) return;
      const { ahead } = ownAxes(rider);
      const by = now.clone().sub(grabbed);
      const tidy = (value: number) => Math.round(value * 1e3) / 1e3;
      const part: Partial<Wheel> =
        grip === 'centre'
          ? { centre: wheel.centre.map((value, k) => tidy(value + by.getComponent(k))) as Vec3 }
          : { radius: Math.max(0.005, tidy(wheel.radius + by.dot(new THREE.Vector3(...ahead)))) };
      desk.getState().edit('Wheel', changeWheel(rider.id, wheel.node, part), gesture);
      onHover(
        part.radius === undefined
          ? `${wheel.node} at ${(part.centre ?? wheel.centre).map((value) => showNumber(value, 3)).join(', ')}`
          : `${wheel.node} radius ${showNumber(part.radius, 3)} m`,
      );
    },
    drop(at, dragged) {
      if (held === null) return ordinary.drop?.(at, dragged);
      held = null;
      onHover(null);
    },
    hover(at) {
      const hit = stage.picks.rig(at.x, at.y);
      onHover(
        hit &&
          (hit.grip === 'foot'
            ? `Drag ${hit.node} to another node`
            : `Drag the ${GRIPS[hit.grip]} of ${hit.node}`),
      );
      return hit !== null || (ordinary.hover?.(at) ?? false);
    },
    leave() {
      onHover(null);
      ordinary.leave?.();
    },
  };
}

const GRIPS = { rim: 'radius', centre: 'middle' } as const;

/** A foot that is dragged is the node nearest to the pointer that is none of the others. */
function dragFoot({ stage, desk, onHover }: ToolContext, held: HeldFoot, at: StagePointer): HeldFoot {
  const { rider, foot, gesture } = held;
  const { hierarchies, edit } = desk.getState();
  const feet = rider.gait?.feet ?? [];
  const names = (hierarchies.get(rider.model ?? '')?.nodes ?? []).map(({ name }) => name);
  const free = names.filter((name) => name === foot || !feet.some(({ node }) => node === name));
  const places = free.flatMap((name) => {
    const position = stage.figures.partPlace(rider.id, name, true);
    return position ? [{ name, position }] : [];
  });
  const node = stage.projection.nearestOf(places, at.x, at.y, Infinity)?.name ?? foot;
  onHover(node);
  if (node === foot) return held;
  const changed = feet.map((one) => (one.node === foot ? { ...one, node } : one));
  edit('Foot', changeGait(rider.id, { feet: changed }), gesture);
  return { ...held, foot: node, rider: { ...rider, gait: rider.gait && { ...rider.gait, feet: changed } } };
}

/** From a rider's own space into the scene, at the shown frame. */
function ownSpace({ desk }: ToolContext, rider: Rider): THREE.Matrix4 | null {
  const { evaluation, frame } = desk.getState();
  const evaluated = evaluation?.riders.get(rider.id);
  if (!evaluation || !evaluated) return null;
  const pose = new Float64Array(POSE.size);
  poseAt(evaluation, evaluated, frame, pose);
  return new THREE.Matrix4().compose(
    new THREE.Vector3(pose[0], pose[1], pose[2]),
    new THREE.Quaternion(pose[3], pose[4], pose[5], pose[6]),
    new THREE.Vector3(...rider.rest.scale),
  );
}
