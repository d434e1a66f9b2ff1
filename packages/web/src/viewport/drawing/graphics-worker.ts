import { rendererName } from './renderer-name';

// Whoever asks the graphics side first waits until it has started; here that stops nobody.
postMessage(rendererName(new OffscreenCanvas(1, 1)));
