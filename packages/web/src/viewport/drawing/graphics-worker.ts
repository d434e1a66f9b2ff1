import { rendererName } from './renderer-name';

// The first query waits until the graphics side has started; here that stops nobody.
postMessage(rendererName(new OffscreenCanvas(1, 1)));
