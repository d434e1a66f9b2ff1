import { expect, it } from '@jest/globals';
import { Rider, Wheel, defaultsOf } from '@fleet-rail/core';
import * as THREE from 'three';
import { KnownSoles, contactPatchesOf } from './contact-patches';

/** A cart 2 m long and 1 m wide whose body is 0.3 m above its wheels' lowest place. */
function cart(): THREE.Group {
  const group = new THREE.Group();
  const body = new THREE.Mesh(new THREE.BoxGeometry(1, 0.5, 2));
  body.position.y = 0.55;
  const wheel = new THREE.Object3D();
  wheel.name = 'wheel';
  wheel.position.set(0.5, 0.4, 0.7);
  group.add(body, wheel);
  return group;
}

const rider = (): Rider => ({
  ...defaultsOf(Rider),
  id: 'c',
  name: 'Cart',
  wheels: [{ ...defaultsOf(Wheel), node: 'wheel', centre: [0.5, 0.4, 0.7], radius: 0.4, axle: '+x' }],
});

it('a body stands where its underside is, a wheel where its rim is lowest', () => {
  const group = cart();
  group.position.set(10, 3, -4);
  group.updateMatrixWorld(true);
  const [body, wheel] = contactPatchesOf(group, new KnownSoles().of('c', group, rider()));
  expect(body.low.toArray().map((value) => Number(value.toFixed(9)))).toEqual([10, 3.3, -4]);
  expect(wheel.low.toArray().map((value) => Number(value.toFixed(9)))).toEqual([10.5, 3, -3.3]);
  expect(body.size[0] / body.size[1]).toBeCloseTo(2, 9);
});

it('what is turned and made larger stands as it is seen', () => {
  const group = cart();
  group.rotation.y = Math.PI / 2;
  group.scale.setScalar(2);
  group.updateMatrixWorld(true);
  const [body, wheel] = contactPatchesOf(group, new KnownSoles().of('c', group, rider()));
  expect(body.yaw).toBeCloseTo(Math.PI / 2, 9);
  expect(body.low.y).toBeCloseTo(0.6, 9);
  // Its rim is twice as far from its middle, which is twice as high.
  expect(wheel.low.toArray()[1]).toBeCloseTo(0, 9);
  expect(wheel.low.x).toBeCloseTo(1.4, 9);
});
