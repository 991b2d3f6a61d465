// Writes the two networks that ship with the program: node convert.mjs FOLDER
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { faces } from './faces.mjs';
import { Weights } from './model.mjs';
import { things } from './things.mjs';

const folderOf = (name) => fileURLToPath(new URL(`node_modules/${name}`, import.meta.url));
const read = (...path) => readFileSync(join(...path));

const to = process.argv[2];
mkdirSync(to, { recursive: true });

// What is larger than a file of the repository should be lies in parts, numbered from 1.
const MOST = 4_190_000;
const PART = 3_000_000;
function write(name, bytes) {
  if (bytes.length <= MOST) return writeFileSync(join(to, name), bytes);
  for (let at = 0; at < bytes.length; at += PART) writeFileSync(join(to, `${name}.${at / PART + 1}`), bytes.subarray(at, at + PART));
}

const ofFaces = join(folderOf('@vladmandic/face-api'), 'model');
const [manifest] = JSON.parse(read(ofFaces, 'ssd_mobilenetv1_model-weights_manifest.json'));
write('faces.onnx', faces(new Weights(manifest.weights, read(ofFaces, manifest.paths[0]))));

const ofThings = join(folderOf('@vladmandic/human'), 'models');
const { modelTopology, weightsManifest } = JSON.parse(read(ofThings, 'centernet.json'));
write('things.onnx', things(modelTopology, new Weights(weightsManifest[0].weights, read(ofThings, 'centernet.bin'))));
