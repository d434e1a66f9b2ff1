import type { GroundHeight, GroundMesh, Shot } from '@fleet-rail/core';
import { expose, transfer } from 'comlink';
import { groundHeightOf } from '../scene-assets/ground-height';
import type { Operation } from './operation';
import { previewOperation } from './preview';

let ground: GroundHeight = groundHeightOf(null);

const api = {
  setGround(mesh: GroundMesh | null): void {
    ground = groundHeightOf(mesh);
  },
  preview(shot: Shot, operation: Operation) {
    const preview = previewOperation(shot, operation, ground);
    return transfer(
      preview,
      preview.lines.map((line) => line.buffer as ArrayBuffer),
    );
  },
};

export type PreviewWorker = typeof api;

expose(api);
