import {
  eachAction,
  floorAt,
  dressingModels,
  movesByItself,
  needsPhysics,
  physicsFor,
  type NodeHierarchy,
  type Shot,
} from '@fleet-rail/core';
import { useEffect, useRef } from 'react';
import { sentenceOf } from '../../api/request';
import { modelFileUrl } from '../../api/models';
import { openAssetsReader } from '../../workers/scene-assets/assets-client';
import { notify } from '../../ui/notices';
import type { DeskStore } from '../../state/desk-store';

/** Keeps what the shot is played with at hand: the triangles of its ground, and what of its riders' models can move. */
export function useSceneAssets(desk: DeskStore): void {
  const cached = useRef(new Map<string, Promise<NodeHierarchy | null>>());
  useEffect(() => {
    const { reader, close } = openAssetsReader();
    const hierarchies = cached.current;
    const reported = new Set<string>();
    let wantedGround: string | null = null;
    let wantedHierarchies = '';
    let wantedChecked = '';
    const checked = new Map<string, Promise<Awaited<ReturnType<typeof reader.checked>> | null>>();
    const tell = (what: string, error: unknown) => {
      const text = `${what} could not be read: ${sentenceOf(error)}`;
      if (!reported.has(text)) notify('error', text);
      reported.add(text);
    };
    const readPhysics = async (shot: Shot) => {
      if (desk.getState().physics !== null || !needsPhysics(shot)) return;
      try {
        desk.getState().set({ physics: await physicsFor(shot) });
      } catch (error) {
        tell('Physics', error);
      }
    };
    const readGround = async (shot: Shot) => {
      const { model: id, nodes, level } = shot.ground;
      const model = shot.models.find((other) => other.id === id);
      const asset = model?.source.asset;
      const key = JSON.stringify([id, asset, nodes, level]);
      if (key === wantedGround) return;
      wantedGround = key;
      try {
        const floor = id === null && level !== null ? floorAt(level) : null;
        const ground = model && asset ? await reader.ground(modelFileUrl(asset), model.name, nodes) : floor;
        if (wantedGround !== key) return;
        desk.getState().set({ ground });
        if (model && asset && ground === null)
          notify(
            'error',
            `${model.name} has no triangles to stand on; choose another model or other nodes of it.`,
          );
      } catch (error) {
        tell('The ground', error);
      }
    };
    const readHierarchies = async ({ models, riders, cues }: Shot) => {
      // Dynamic bodies collide with all others.
      const forced = needsPhysics({ riders });
      const cued = new Set(eachAction(cues).map(({ action }) => action.rider));
      const worn = new Set(
        riders
          .filter(
            (rider) =>
              forced ||
              rider.hangingParts.length > 0 ||
              movesByItself(rider) ||
              cued.has(rider.id) ||
              rider.emitter?.from === 'part',
          )
          .flatMap(({ model, gait }) => [model, gait?.source ?? null]),
      );
      const assets = models.flatMap(({ id, name, source }) =>
        worn.has(id) && source.asset !== undefined ? [{ id, name, asset: source.asset }] : [],
      );
      const key = JSON.stringify(assets);
      if (key === wantedHierarchies) return;
      wantedHierarchies = key;
      const entries = await Promise.all(
        assets.map(async ({ id, name, asset }) => {
          const reading =
            hierarchies.get(asset) ??
            reader.hierarchy(modelFileUrl(asset), name).catch((error: unknown) => {
              hierarchies.delete(asset);
              tell(name, error);
              return null;
            });
          hierarchies.set(asset, reading);
          return [id, await reading] as const;
        }),
      );
      if (wantedHierarchies !== key) return;
      desk.getState().set({
        hierarchies: new Map(
          entries.flatMap(([id, hierarchy]) => (hierarchy ? [[id, hierarchy] as const] : [])),
        ),
      });
    };
    const readChecked = async ({ models, riders, ground, dressing }: Shot) => {
      const worn = new Set([
        ...riders.flatMap(({ model, gait, emitter }) => [
          model,
          gait?.source ?? null,
          emitter?.model ?? null,
        ]),
        ...dressing.flatMap(dressingModels),
      ]);
      const assets = models.flatMap(({ id, name, source }) =>
        worn.has(id) && source.asset !== undefined ? [{ id, name, asset: source.asset }] : [],
      );
      const floor = models.find(({ id }) => id === ground.model);
      const key = JSON.stringify([assets, floor?.source.asset, ground.nodes]);
      if (key === wantedChecked) return;
      wantedChecked = key;
      const missing = new Set<string>();
      const read = await Promise.all(
        assets.map(async ({ id, name, asset }) => {
          const reading =
            checked.get(asset) ??
            reader.checked(modelFileUrl(asset), name).catch(() => {
              checked.delete(asset);
              return null;
            });
          checked.set(asset, reading);
          const model = await reading;
          if (model === null) missing.add(id);
          return model === null ? [] : [{ id, ...model }];
        }),
      );
      const staticSet = floor?.source.asset
        ? await reader.scenery(modelFileUrl(floor.source.asset), floor.name, ground.nodes).catch(() => {
            missing.add(floor.id);
            return null;
          })
        : null;
      if (wantedChecked !== key) return;
      const all = read.flat();
      desk.getState().set({
        checkModels: {
          hierarchies: new Map(all.map(({ id, hierarchy }) => [id, hierarchy])),
          scene: { models: new Map(all.map(({ id, mesh, rig }) => [id, { mesh, rig }])), missing, staticSet },
        },
      });
    };
    const read = (shot: Shot) => {
      void readPhysics(shot);
      void readGround(shot);
      void readHierarchies(shot);
      void readChecked(shot);
    };
    read(desk.getState().shot);
    const stop = desk.subscribe(({ shot }, before) => {
      if (shot !== before.shot) read(shot);
    });
    return () => {
      stop();
      close();
      hierarchies.clear();
    };
  }, [desk]);
}
