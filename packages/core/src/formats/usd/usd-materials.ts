import type { Material, Texture, TextureInfo } from '@gltf-transform/core';
import type { Transform } from '@gltf-transform/extensions';
import { PrimNames, quoted, singleText, singles, type UsdText } from './usd-text.js';

/** A picture that lies beside the layer. */
export interface UsdPicture {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Materials and the pictures they show. */
export class UsdMaterials {
  readonly pictures: UsdPicture[] = [];
  private readonly files = new Map<Texture, string>();
  private readonly paths = new Map<Material, string>();
  private readonly names = new PrimNames();

  /**
   * @param root   the path of the prim that they are under
   * @param folder where pictures lie, as the layer names it
   */
  constructor(
    materials: Iterable<Material>,
    private readonly root: string,
    private readonly folder: string,
  ) {
    for (const material of materials)
      this.paths.set(material, `${root}/${this.names.give(root, material.getName() || 'material')}`);
  }

  pathOf(material: Material | null): string | null {
    return material === null ? null : (this.paths.get(material) ?? null);
  }

  write(text: UsdText): void {
    if (this.paths.size === 0) return;
    const scope = this.root.slice(this.root.lastIndexOf('/') + 1);
    text.prim('def', 'Scope', scope, [], () => {
      for (const [material, path] of this.paths) this.writeMaterial(text, material, path);
    });
  }

  /** As UsdPreviewSurface, the one description of a surface that every reader of the format has. */
  private writeMaterial(text: UsdText, material: Material, path: string): void {
    const metadata = material.getName() ? [`displayName = ${quoted(material.getName())}`] : [];
    text.prim('def', 'Material', path.slice(path.lastIndexOf('/') + 1), metadata, () => {
      text.line(`token outputs:surface.connect = <${path}/Surface.outputs:surface>`);
      const [r, g, b, a] = material.getBaseColorFactor();
      const inputs: string[] = [];
      const shown = new Map<string, () => void>();
      const picture = (
        name: string,
        texture: Texture | null,
        info: TextureInfo | null,
        space: 'sRGB' | 'raw',
        factors: readonly number[],
      ) => {
        const file = texture && this.fileOf(texture);
        if (!file || !info) return null;
        shown.set(name, () => this.writePicture(text, path, name, file, info, space, factors));
        return (output: string) => `${path}/${name}.outputs:${output}`;
      };
      const base = picture(
        'BaseColor',
        material.getBaseColorTexture(),
        material.getBaseColorTextureInfo(),
        'sRGB',
        [r, g, b, a],
      );
      const put = (declared: string, value: string) => inputs.push(`${declared} = ${value}`);
      const connect = (declared: string, target: string) => inputs.push(`${declared}.connect = <${target}>`);
      if (base) connect('color3f inputs:diffuseColor', base('rgb'));
      else put('color3f inputs:diffuseColor', `(${[r, g, b].map(singleText).join(', ')})`);
      const mode = material.getAlphaMode();
      if (mode !== 'OPAQUE') {
        if (base) connect('float inputs:opacity', base('a'));
        else put('float inputs:opacity', singleText(a));
        if (mode === 'MASK') put('float inputs:opacityThreshold', singleText(material.getAlphaCutoff()));
      }
      const [metal, rough] = [material.getMetallicFactor(), material.getRoughnessFactor()];
      const both = picture(
        'MetallicRoughness',
        material.getMetallicRoughnessTexture(),
        material.getMetallicRoughnessTextureInfo(),
        'raw',
        [1, rough, metal, 1],
      );
      if (both) {
        connect('float inputs:metallic', both('b'));
        connect('float inputs:roughness', both('g'));
      } else {
        put('float inputs:metallic', singleText(metal));
        put('float inputs:roughness', singleText(rough));
      }
      const glow = material.getEmissiveFactor();
      const lit = picture(
        'Emissive',
        material.getEmissiveTexture(),
        material.getEmissiveTextureInfo(),
        'sRGB',
        [...glow, 1],
      );
      if (lit) connect('color3f inputs:emissiveColor', lit('rgb'));
      else if (glow.some((value) => value > 0))
        put('color3f inputs:emissiveColor', `(${glow.map(singleText).join(', ')})`);
      const bumps = picture(
        'Normal',
        material.getNormalTexture(),
        material.getNormalTextureInfo(),
        'raw',
        [2, 2, 2, 1],
      );
      if (bumps) connect('normal3f inputs:normal', bumps('rgb'));
      const shade = picture(
        'Occlusion',
        material.getOcclusionTexture(),
        material.getOcclusionTextureInfo(),
        'raw',
        [1, 1, 1, 1],
      );
      if (shade) connect('float inputs:occlusion', shade('r'));
      text.prim('def', 'Shader', 'Surface', [], () => {
        text.attribute('uniform token info:id', '"UsdPreviewSurface"');
        inputs.forEach((one) => text.line(one));
        text.line('token outputs:surface');
      });
      for (const write of shown.values()) write();
    });
  }

  private writePicture(
    text: UsdText,
    path: string,
    name: string,
    file: string,
    info: TextureInfo,
    space: 'sRGB' | 'raw',
    factors: readonly number[],
  ): void {
    const placed = info.getExtension<Transform>('KHR_texture_transform');
    const set = (placed?.getTexCoord() ?? info.getTexCoord()) === 1 ? 'st1' : 'st';
    const coordinates = `${path}/${name}Place`;
    text.prim('def', 'Shader', `${name}Place`, [], () => {
      text.attribute('uniform token info:id', '"UsdPrimvarReader_float2"');
      text.attribute('string inputs:varname', quoted(set));
      text.line('float2 outputs:result');
    });
    if (placed) this.writePlaced(text, coordinates, `${name}Placed`, placed);
    text.prim('def', 'Shader', name, [], () => {
      text.attribute('uniform token info:id', '"UsdUVTexture"');
      text.attribute('asset inputs:file', `@${file}@`);
      text.line(
        `float2 inputs:st.connect = <${path}/${placed ? `${name}Placed` : `${name}Place`}.outputs:result>`,
      );
      text.attribute('token inputs:sourceColorSpace', quoted(space));
      text.attribute('token inputs:wrapS', quoted(WRAPS[info.getWrapS()] ?? 'repeat'));
      text.attribute('token inputs:wrapT', quoted(WRAPS[info.getWrapT()] ?? 'repeat'));
      text.attribute('float4 inputs:scale', singles(factors, 4).slice(1, -1));
      // Normals are stored from 0 to 1 and meant from −1 to 1.
      if (name === 'Normal') text.attribute('float4 inputs:bias', '(-1, -1, -1, 0)');
      text.line('float3 outputs:rgb');
      for (const channel of ['r', 'g', 'b', 'a']) text.line(`float outputs:${channel}`);
    });
  }

  /** glTF places pictures from their upper edge, turned the other way round; see its KHR_texture_transform. */
  private writePlaced(text: UsdText, from: string, name: string, placed: Transform): void {
    const [u, v] = placed.getOffset();
    const [su, sv] = placed.getScale();
    const turn = placed.getRotation();
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    text.prim('def', 'Shader', name, [], () => {
      text.attribute('uniform token info:id', '"UsdTransform2d"');
      text.line(`float2 inputs:in.connect = <${from}.outputs:result>`);
      // In places from the lower edge, t = 1 − v: scaled, turned and moved in that order.
      text.attribute('float2 inputs:scale', `(${singleText(su)}, ${singleText(sv)})`);
      text.attribute('float inputs:rotation', singleText((turn * 180) / Math.PI));
      text.attribute(
        'float2 inputs:translation',
        `(${singleText(u + sin * sv)}, ${singleText(1 - v - cos * sv)})`,
      );
      text.line('float2 outputs:result');
    });
  }

  /** The file a picture lies in; none for one without bytes. */
  private fileOf(texture: Texture): string | null {
    const known = this.files.get(texture);
    if (known) return known;
    const bytes = texture.getImage();
    if (bytes === null) return null;
    const kind =
      texture
        .getMimeType()
        .replace(/^image\//, '')
        .replace('jpeg', 'jpg') || 'png';
    const base = (texture.getName() || texture.getURI() || 'picture')
      .replace(/^.*[\\/]/, '')
      .replace(/\.\w+$/, '');
    const name = `${this.names.give('pictures', base)}.${kind}`;
    this.pictures.push({ name: `${this.folder}/${name}`, bytes });
    const file = `./${this.folder}/${name}`;
    this.files.set(texture, file);
    return file;
  }
}

/** Wrap modes of a texture, by the numbers of glTF. */
const WRAPS: Readonly<Record<number, string>> = { 10497: 'repeat', 33071: 'clamp', 33648: 'mirror' };
