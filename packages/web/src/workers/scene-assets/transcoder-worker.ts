// Runs the transcoder of KTX2 pictures, whose text comes first. The server lets this file alone make functions from text,
// and lets it fetch nothing.
addEventListener('message', ({ data }: MessageEvent<string>) => (0, eval)(data) as unknown, { once: true });
