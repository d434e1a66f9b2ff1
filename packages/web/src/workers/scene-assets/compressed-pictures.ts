import transcoderUrl from 'three/examples/jsm/libs/basis/basis_transcoder.js?url';
import programUrl from 'three/examples/jsm/libs/basis/basis_transcoder.wasm?url';
import { KTX2Loader } from 'three/examples/jsm/loaders/KTX2Loader.js';

/**
 * Reads KTX2 pictures with the transcoder of three. It makes functions from text, which the page's policy forbids: it
 * runs in {@link file://./transcoder-worker.ts}, which the server gives a policy of its own.
 */
class CompressedPictures extends KTX2Loader {
  constructor() {
    super();
    this.setWorkerLimit(2);
    this.workerConfig = supported();
  }

  override init(): Promise<void> {
    this.transcoderPending ??= this.loadTranscoder();
    return this.transcoderPending;
  }

  private async loadTranscoder(): Promise<void> {
    const [transcoder, program] = await Promise.all([
      fetched(transcoderUrl).then((answer) => answer.text()),
      fetched(programUrl).then((answer) => answer.arrayBuffer()),
    ]);
    const { EngineFormat, EngineType, TranscoderFormat, BasisFormat, BasisWorker } =
      KTX2Loader as unknown as Transcoding;
    const body = BasisWorker.toString();
    // Worker source that the loader would put together itself, for a page whose policy forbids that.
    const text = [
      ...Object.entries({ EngineFormat, EngineType, TranscoderFormat, BasisFormat }).map(
        ([name, values]) => `let _${name} = ${JSON.stringify(values)};`,
      ),
      transcoder,
      body.slice(body.indexOf('{') + 1, body.lastIndexOf('}')),
    ].join('\n');
    this.workerPool.setWorkerCreator(() => {
      const worker = new Worker(new URL('./transcoder-worker.ts', import.meta.url), { type: 'module' });
      worker.postMessage(text);
      worker.postMessage({ type: 'init', config: this.workerConfig, transcoderBinary: program });
      return worker;
    });
  }
}

/** The one reader of this thread: its workers are kept. */
export const compressedPictures = new CompressedPictures();

/** Static members of the loader's class for its worker, beside its types. */
interface Transcoding {
  readonly EngineFormat: object;
  readonly EngineType: object;
  readonly TranscoderFormat: object;
  readonly BasisFormat: object;
  readonly BasisWorker: () => void;
}

async function fetched(url: string): Promise<Response> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`The reader of KTX2 pictures is not there (${answer.status}).`);
  return answer;
}

/** Which compressed pictures this browser draws as they are; others are unpacked. */
function supported(): KTX2Loader['workerConfig'] {
  const gl = new OffscreenCanvas(1, 1).getContext('webgl2');
  const has = (name: string) => gl?.getExtension(name) != null;
  const config = {
    astcSupported: has('WEBGL_compressed_texture_astc'),
    astcHDRSupported: false,
    etc1Supported: has('WEBGL_compressed_texture_etc1'),
    etc2Supported: has('WEBGL_compressed_texture_etc'),
    dxtSupported: has('WEBGL_compressed_texture_s3tc'),
    bptcSupported: has('EXT_texture_compression_bptc'),
    pvrtcSupported: has('WEBGL_compressed_texture_pvrtc'),
  };
  // Browsers allow few contexts: this one is returned immediately.
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return config;
}
