/** Saving the preview as a WebM: frame by frame with its own time, however long each takes to draw. */
import {
  BufferTarget,
  CanvasSource,
  Output,
  QUALITY_HIGH,
  WebMOutputFormat,
  getFirstEncodableVideoCodec
} from 'mediabunny';

export class CannotEncode extends Error {}

/** Encode frames of a canvas; `draw` puts each onto it, `progress` is told a share. Stopping keeps what is done. */
export async function encode(
  canvas: HTMLCanvasElement,
  frames: number,
  rate: number,
  draw: (frame: number) => void,
  progress: (share: number) => void,
  stopped: () => boolean
): Promise<Blob> {
  const size = { width: canvas.width, height: canvas.height };
  const codec = await getFirstEncodableVideoCodec(['vp9', 'vp8', 'av1'], size);
  if (!codec) throw new CannotEncode('This browser cannot encode films. A newer one can.');
  const output = new Output({ format: new WebMOutputFormat(), target: new BufferTarget() });
  const source = new CanvasSource(canvas, { codec, bitrate: QUALITY_HIGH });
  output.addVideoTrack(source, { frameRate: rate });
  await output.start();
  for (let frame = 0; frame < frames && !stopped(); frame++) {
    draw(frame);
    await source.add(frame / rate, 1 / rate);
    progress((frame + 1) / frames);
    // The page stays usable meanwhile.
    await new Promise((go) => setTimeout(go));
  }
  await output.finalize();
  return new Blob([output.target.buffer ?? new ArrayBuffer(0)], { type: 'video/webm' });
}
