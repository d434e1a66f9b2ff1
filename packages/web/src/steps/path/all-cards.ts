export { DrawSettings } from './draw-settings';
export { ImportCard } from './import-card';
export { LaidCard } from './laid-card';
export { OperationCard } from './operation-card';
export { ShapeCard } from './shape-card';
