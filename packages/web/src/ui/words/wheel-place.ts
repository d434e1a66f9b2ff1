import { ownAxes, ownPosition, type Rider, type Wheel } from '@fleet-rail/core';

/** Position of a wheel on its rider, in words. */
export function wheelPlace(rider: Rider, wheel: Wheel): string {
  // A barrel has no left and no front.
  if (rider.wheels.length === 1) return 'Rolling part';
  const axes = ownAxes(rider);
  const places = rider.wheels.map(({ centre }) => ownPosition(axes, centre));
  const [ahead, left] = ownPosition(axes, wheel.centre);
  const [front, rear] = [Math.max(...places.map(([x]) => x)), Math.min(...places.map(([x]) => x))];
  const end =
    front - rear < 1e-3
      ? ''
      : ahead > front - 0.2 * (front - rear)
        ? 'Front'
        : ahead < rear + 0.2 * (front - rear)
          ? 'Rear'
          : 'Middle';
  const side = Math.abs(left) < 1e-3 ? 'axle' : left > 0 ? 'left' : 'right';
  const words = `${end} ${side}`.trim();
  const same = rider.wheels.filter((other, i) => {
    const [x, y] = places[i];
    return Math.abs(x - ahead) < 1e-3 && Math.sign(y) === Math.sign(left) && other !== wheel;
  });
  const text = words[0].toUpperCase() + words.slice(1);
  // Twins on one axle are distinguished by their nodes.
  return same.length > 0 ? `${text} (${wheel.node})` : text;
}
