export { DrawSettings } from './draw-settings';
export { ImportCard } from './import-card';
export { DressingCard } from './dressing-card';
export { OperationCard } from './operation-card';
export { ShapeCard } from './shape-card';
