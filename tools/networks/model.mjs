// What both networks are written with: a graph of ONNX (onnx.proto of the Open Neural Network Exchange, operator set 13) that is added to node by node.
// Pictures are [1, channels, height, width] in it; the weights that come in are in the order of the other convention, [height, width, in, out].
import proto from 'onnx-proto';

const { onnx } = proto;
const { FLOAT, FLOAT16, UINT8, INT64 } = onnx.TensorProto.DataType;
const count = (shape) => shape.reduce((product, side) => product * side, 1);

/** Weights as a package keeps them: a manifest and one file of numbers, plain, of half precision, or as 8-bit steps between two ends. */
export class Weights {
  #tensors = new Map();

  constructor(entries, bytes) {
    let at = 0;
    for (const { name, shape, dtype, quantization } of entries) {
      const kind = quantization?.dtype ?? dtype;
      const size = { float32: 4, int32: 4, float16: 2, uint8: 1 }[kind];
      const data = bytes.subarray(at, at + size * count(shape));
      this.#tensors.set(name, { name, shape, kind, data, scale: quantization?.scale, least: quantization?.min });
      at += data.length;
    }
    if (at !== bytes.length) throw new Error(`the manifest tells of ${at} bytes, the file has ${bytes.length}`);
  }

  get(name) {
    const found = this.#tensors.get(name);
    if (!found) throw new Error(`no weights are named ${name}`);
    return found;
  }

  /** The numbers of a small tensor. */
  numbers(name) {
    const { kind, data } = this.get(name);
    const view = new DataView(data.buffer, data.byteOffset, data.length);
    if (kind !== 'int32' && kind !== 'float32') throw new Error(`${name} is kept as ${kind}`);
    return Array.from({ length: data.length / 4 }, (_, i) => (kind === 'int32' ? view.getInt32(i * 4, true) : view.getFloat32(i * 4, true)));
  }
}

/** The same numbers with their axes in another order. */
function reordered({ shape, data, ...rest }, order) {
  const size = data.length / count(shape);
  const wanted = order.map((axis) => shape[axis]);
  const strides = shape.map((_, axis) => count(shape.slice(axis + 1)));
  const moved = new Uint8Array(data.length);
  const place = new Array(wanted.length).fill(0);
  for (let to = 0; to < count(wanted); to++) {
    const from = place.reduce((sum, index, axis) => sum + index * strides[order[axis]], 0);
    moved.set(data.subarray(from * size, (from + 1) * size), to * size);
    for (let axis = wanted.length - 1; axis >= 0 && ++place[axis] === wanted[axis]; axis--) place[axis] = 0;
  }
  return { ...rest, shape: wanted, data: moved };
}

const attribute = (name, value) =>
  typeof value === 'string'
    ? { name, type: onnx.AttributeProto.AttributeType.STRING, s: Buffer.from(value) }
    : Array.isArray(value)
      ? { name, type: onnx.AttributeProto.AttributeType.INTS, ints: value }
      : Number.isInteger(value)
        ? { name, type: onnx.AttributeProto.AttributeType.INT, i: value }
        : { name, type: onnx.AttributeProto.AttributeType.FLOAT, f: value };

export class Graph {
  #nodes = [];
  #initializers = [];
  #known = new Map();
  #next = 0;

  /** Adds a node and gives its first output's name. */
  add(opType, inputs, attributes = {}, output = `${opType}_${this.#next++}`) {
    this.#nodes.push({
      opType,
      name: output,
      input: inputs,
      output: [output],
      attribute: Object.entries(attributes).map(([name, value]) => attribute(name, value)),
    });
    return output;
  }

  /** Adds whole numbers or fractions. */
  constant(values, shape = [values.length], whole = false) {
    const key = JSON.stringify([values, shape, whole]);
    if (!this.#known.has(key)) {
      const name = `constant_${this.#next++}`;
      const data = whole ? new BigInt64Array(values.map(BigInt)) : new Float32Array(values);
      this.#initializers.push({ name, dims: shape, dataType: whole ? INT64 : FLOAT, rawData: Buffer.from(data.buffer) });
      this.#known.set(key, name);
    }
    return this.#known.get(key);
  }

  /** Adds weights as they are kept, in another order of axes or another shape where one is given; what is packed is unpacked in the graph, once, when it is loaded. */
  weights(tensor, { order, shape } = {}) {
    const key = JSON.stringify([tensor.name, order, shape]);
    if (this.#known.has(key)) return this.#known.get(key);
    const placed = order ? reordered(tensor, order) : tensor;
    const name = tensor.name.replaceAll('/', '.');
    const dims = shape ?? placed.shape;
    const dataType = { float32: FLOAT, float16: FLOAT16, uint8: UINT8 }[tensor.kind];
    this.#initializers.push({ name: `${name}.kept`, dims, dataType, rawData: placed.data });
    let read = tensor.kind === 'float32' ? `${name}.kept` : this.add('Cast', [`${name}.kept`], { to: FLOAT }, `${name}.read`);
    if (tensor.kind === 'uint8') {
      read = this.add('Mul', [read, this.constant([tensor.scale], [])]);
      read = this.add('Add', [read, this.constant([tensor.least], [])], {}, name);
    }
    this.#known.set(key, read);
    return read;
  }

  /** A convolution whose edges are filled so that the size is kept but for the stride. */
  convolution(input, tensor, { bias, stride = 1, depthwise = false } = {}) {
    const [, , from, to] = tensor.shape;
    // Each channel on its own: [height, width, channels, 1] becomes [channels, 1, height, width].
    const filters = this.weights(tensor, { order: depthwise ? [2, 3, 0, 1] : [3, 2, 0, 1] });
    if (depthwise && to !== 1) throw new Error(`${tensor.name} makes ${to} of each channel`);
    return this.add('Conv', bias ? [input, filters, this.weights(bias)] : [input, filters], {
      auto_pad: 'SAME_UPPER',
      strides: [stride, stride],
      group: depthwise ? from : 1,
    });
  }

  clip(input, least, most) {
    return this.add('Clip', [input, this.constant([least], []), this.constant([most], [])]);
  }

  /** The model's bytes. */
  bytes(inputs, outputs) {
    const value = ([name, ...sides]) => ({
      name,
      type: { tensorType: { elemType: FLOAT, shape: { dim: sides.map((side) => (typeof side === 'number' ? { dimValue: side } : { dimParam: side })) } } },
    });
    const model = onnx.ModelProto.create({
      irVersion: 7,
      producerName: 'pantomet',
      opsetImport: [{ domain: '', version: 13 }],
      graph: { name: 'graph', node: this.#nodes, initializer: this.#initializers, input: inputs.map(value), output: outputs.map(value) },
    });
    return onnx.ModelProto.encode(model).finish();
  }
}
