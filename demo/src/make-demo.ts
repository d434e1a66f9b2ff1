import { mkdir, rm, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { writeShotText } from '@fleet-rail/core';
import { barrelsShot } from './barrels-shot.js';
import { firstTryShot } from './first-try-shot.js';
import { orchardShot } from './orchard-shot.js';
import { liftShot } from './lift-shot.js';
import { makeCatalogue, makeDemoModels } from './models/index.js';

/** Writes the demo's models and shots into demo/made. */
const folder = fileURLToPath(new URL('../made/', import.meta.url));
await rm(folder, { recursive: true, force: true });
await mkdir(folder, { recursive: true });
for (const [name, model] of Object.entries({ ...makeDemoModels(), ...makeCatalogue() })) {
  const bytes = await model.glb();
  await writeFile(`${folder}${name}.glb`, bytes);
  console.log(`demo/made/${name}.glb: ${(bytes.byteLength / 1000).toFixed(0)} kB`);
}
await writeFile(`${folder}quillfen-barrels.shot.json`, writeShotText(barrelsShot()));
const orchard = await orchardShot();
await writeFile(`${folder}quillfen-orchard.shot.json`, writeShotText(orchard));
await writeFile(`${folder}quillfen-first-try.shot.json`, writeShotText(firstTryShot(orchard)));
await writeFile(`${folder}quillfen-lift.shot.json`, writeShotText(await liftShot(orchard)));
