import { ModelBuilder, type Paint } from '../model-builder.js';
import { ball, box, drum, moved, turned } from '../shapes.js';

const OAK: Paint = [120, 92, 64];
const IRON: Paint = [70, 76, 80];
const LIGHT: Paint = [247, 231, 178];
const ORANGE: Paint = [214, 106, 47];
const WHITE: Paint = [240, 238, 230];

/** Sleepers across under rails; their top is at height 0. */
function makeTie(): ModelBuilder {
  const model = new ModelBuilder();
  model
    .node('tie')
    .setMesh(model.mesh('tie', [{ shape: moved(box(2.3, 0.16, 0.24, 0.94), [0, -0.08, 0]), paint: OAK }]));
  return model;
}

function makePost(): ModelBuilder {
  const model = new ModelBuilder();
  model.node('post').setMesh(
    model.mesh('post', [
      { shape: moved(box(0.13, 1.3, 0.13), [0, 0.45, 0]), paint: OAK },
      { shape: moved(drum(0.1, 0.08, 4, 0.01), [0, 1.14, 0]), paint: OAK },
    ]),
  );
  return model;
}

/** Its arm reaches to the right, over the row on its left. */
function makeLamp(): ModelBuilder {
  const model = new ModelBuilder();
  const post = model.node('lamp_post');
  post.setMesh(
    model.mesh('lamp_post', [
      { shape: moved(drum(0.07, 4.2, 8, 0.05), [0, 2.1, 0]), paint: IRON },
      { shape: moved(drum(0.14, 0.3, 8), [0, 0.15, 0]), paint: IRON },
      { shape: moved(turned(drum(0.035, 1.1, 6), [0, 0, Math.PI / 2]), [-0.5, 4.15, 0]), paint: IRON },
    ]),
  );
  // Hangs by its origin, so that it can swing.
  model.node('lantern', [-1, 4.15, 0], post).setMesh(
    model.mesh('lantern', [
      { shape: moved(drum(0.02, 0.3, 5), [0, -0.15, 0]), paint: IRON },
      { shape: moved(drum(0.2, 0.14, 8, 0.06), [0, -0.34, 0]), paint: IRON },
      { shape: moved(ball(0.13, 8, 5), [0, -0.48, 0]), paint: LIGHT },
    ]),
  );
  return model;
}

function makeCone(): ModelBuilder {
  const model = new ModelBuilder();
  model.node('cone').setMesh(
    model.mesh('cone', [
      { shape: moved(box(0.42, 0.04, 0.42), [0, 0.02, 0]), paint: ORANGE },
      { shape: moved(drum(0.16, 0.62, 10, 0.03), [0, 0.35, 0]), paint: ORANGE },
      { shape: moved(drum(0.115, 0.12, 10, 0.09), [0, 0.36, 0]), paint: WHITE },
    ]),
  );
  return model;
}

/** Things to lay along paths, each under the name of its file. */
export const makeCatalogue = () => ({
  tie: makeTie(),
  post: makePost(),
  lamp: makeLamp(),
  cone: makeCone(),
});
