// Holds the networks that ship with the program against the packages' own run: node check.mjs FOLDER PICTURE...
// Both are given the same pixels; what is told is the largest difference of any number of any output.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ort from 'onnxruntime-web';
import sharp from 'sharp';

const SIDE = 512;
const MOST = 0.001;
const folderOf = (name) => fileURLToPath(new URL(`node_modules/${name}`, import.meta.url));
const [folder, ...pictures] = process.argv.slice(2);

// The package's bundle is one for browsers; of a browser it needs no more than this to compute.
globalThis.window = globalThis;
globalThis.document = { createElement: () => ({ getContext: () => null }) };
const faceapi = await import(join(folderOf('@vladmandic/face-api'), 'dist/face-api.esm.js'));
const { tf } = faceapi;
await tf.setBackend('cpu');
await tf.ready();

const ofFaces = join(folderOf('@vladmandic/face-api'), 'model');
const [manifest] = JSON.parse(readFileSync(join(ofFaces, 'ssd_mobilenetv1_model-weights_manifest.json')));
const plain = (bytes) => bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length);
const faces = new faceapi.SsdMobilenetv1();
faces.loadFromWeightMap(tf.io.decodeWeights(plain(readFileSync(join(ofFaces, manifest.paths[0]))), manifest.weights));

const ofThings = join(folderOf('@vladmandic/human'), 'models');
const model = JSON.parse(readFileSync(join(ofThings, 'centernet.json')));
const things = await tf.loadGraphModel({
  load: async () => ({
    modelTopology: model.modelTopology,
    format: model.format,
    signature: model.signature,
    weightSpecs: model.weightsManifest[0].weights,
    weightData: plain(readFileSync(join(ofThings, 'centernet.bin'))),
  }),
});

ort.env.wasm.numThreads = 1;
// A network is one file, or parts that are numbered from 1.
const session = (name) => {
  const parts = readdirSync(folder).filter((file) => file.startsWith(name)).sort();
  return ort.InferenceSession.create(Buffer.concat(parts.map((file) => readFileSync(join(folder, file)))));
};
const [ourFaces, ourThings] = [await session('faces.onnx'), await session('things.onnx')];

/** The largest difference between two lists of numbers; our channels stand in front of height and width, theirs behind. */
function apart(theirs, ours, channels) {
  const cells = theirs.length / channels;
  let most = 0;
  for (let i = 0; i < theirs.length; i++) most = Math.max(most, Math.abs(theirs[i] - ours[(i % channels) * cells + Math.floor(i / channels)]));
  return most;
}

console.log('| picture | faces: scores | boxes | things: heat | reach, in shares of the side |\n|---|---|---|---|---|');
let worst = 0;
for (const picture of pictures) {
  const fitted = sharp(picture).rotate().flatten({ background: '#ffffff' }).toColourspace('srgb').resize(SIDE, SIDE, { fit: 'contain', position: 'left top', background: '#000000' });
  const pixels = await fitted.removeAlpha().raw().toBuffer();
  const rows = new Float32Array(pixels);
  const planes = new Float32Array(rows.length);
  for (let i = 0; i < rows.length; i++) planes[(i % 3) * SIDE * SIDE + Math.floor(i / 3)] = rows[i];
  const feed = { picture: new ort.Tensor('float32', planes, [1, 3, SIDE, SIDE]) };
  const input = tf.tensor4d(rows, [1, SIDE, SIDE, 3]);
  const { boxes, scores } = faces.forwardInput({ toBatchTensor: () => input });
  const [heat, reach] = things.execute(input, ['tower_0/keypoints', 'tower_0/wh']);
  const [seen, found] = [await ourFaces.run(feed), await ourThings.run(feed)];
  const differences = [
    apart(scores[0].dataSync(), seen.scores.data, 1),
    apart(boxes[0].dataSync(), seen.boxes.data, 1),
    apart(heat.dataSync(), found.heat.data, 80),
    apart(reach.dataSync(), found.reach.data, 4) / SIDE,
  ];
  worst = Math.max(worst, ...differences);
  console.log(`| ${picture.split('/').at(-1)} | ${differences.map((one) => one.toExponential(1)).join(' | ')} |`);
  tf.dispose([input, heat, reach, ...boxes, ...scores]);
}
if (worst > MOST) {
  console.error(`The networks differ by ${worst}, more than ${MOST}.`);
  process.exitCode = 1;
}
