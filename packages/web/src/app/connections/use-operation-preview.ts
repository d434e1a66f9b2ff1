import { useEffect } from 'react';
import type { GroundMesh } from '@fleet-rail/core';
import { PreviewClient } from '../../workers/operations/preview-client';
import type { DeskStore } from '../../state/desk-store';

/** Keeps the preview of the operation that is being set up current with its settings and the shot. */
export function useOperationPreview(desk: DeskStore): void {
  useEffect(() => {
    let client: PreviewClient | null = null;
    let sentGround: GroundMesh | null = null;
    const opened = (): PreviewClient => {
      client ??= new PreviewClient((preview) => {
        const { operation, shot, set } = desk.getState();
        if (preview.operation === operation && preview.shot === shot) set({ preview });
      });
      return client;
    };
    const stop = desk.subscribe(({ operation, shot, ground, preview, set }, before) => {
      if (operation === null) {
        if (preview !== null) set({ preview: null });
        return;
      }
      const sameGround = ground === sentGround;
      if (!sameGround) opened().setGround(ground);
      sentGround = ground;
      if (operation !== before.operation || shot !== before.shot || !sameGround)
        opened().preview(shot, operation);
    });
    return () => {
      stop();
      client?.close();
    };
  }, [desk]);
}
