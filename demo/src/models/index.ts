import { orchardPaths } from '../paths.js';
import { makeBarrel, makeDrone, makeKestrel } from './flyers.js';
import { makeCatalogue } from './catalogue.js';
import { makeHauler, makeTrailer } from './hauler.js';
import { makeGate, makeOrchard } from './orchard.js';
import { makePicker } from './picker.js';

export { makeCatalogue };

/** The demo's models, each under the name of its file. */
export const makeDemoModels = () => ({
  hauler: makeHauler(),
  trailer: makeTrailer(),
  picker: makePicker(),
  kestrel: makeKestrel(),
  drone: makeDrone(),
  barrel: makeBarrel(),
  gate: makeGate(),
  orchard: makeOrchard(orchardPaths()[0]),
});
