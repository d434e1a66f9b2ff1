import type { GroundHeight, Shot } from '@fleet-rail/core';
import { expose, transfer } from 'comlink';
import { groundHeight, type GroundMesh } from '../ground/ground-height';
import { levelGround } from './apply-operation';
import type { Operation } from './operation';
import { previewOperation } from './preview';

let ground: GroundHeight = levelGround;

const api = {
  setGround(mesh: GroundMesh | null): void {
    ground = mesh === null ? levelGround : groundHeight(mesh);
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
