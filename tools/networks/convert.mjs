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

const ofFaces = join(folderOf('@vladmandic/face-api'), 'model');
const [manifest] = JSON.parse(read(ofFaces, 'ssd_mobilenetv1_model-weights_manifest.json'));
writeFileSync(join(to, 'faces.onnx'), faces(new Weights(manifest.weights, read(ofFaces, manifest.paths[0]))));

const ofThings = join(folderOf('@vladmandic/human'), 'models');
const { modelTopology, weightsManifest } = JSON.parse(read(ofThings, 'centernet.json'));
writeFileSync(join(to, 'things.onnx'), things(modelTopology, new Weights(weightsManifest[0].weights, read(ofThings, 'centernet.bin'))));
