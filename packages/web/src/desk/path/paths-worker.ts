import { readPaths } from '@fleet-rail/core/paths';
import { expose } from 'comlink';

export type PathsReader = typeof readPaths;

expose(readPaths);
