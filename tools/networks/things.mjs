// The network that finds things by their centres (X. Zhou, D. Wang, P. Krähenbühl, "Objects as Points", 2019). Its package keeps a graph: it is walked from its outputs, and each of its operations written as the same one here.
import { Graph } from './model.mjs';

/** The model: a picture whose sides are multiples of 32, red, green and blue from 0 to 255, gives `heat` [1, classes, height / 4, width / 4], how much a cell is the centre of each class, and `reach` [1, 4, height / 4, width / 4], how far the box of a cell reaches left, up, right and down, in pixels. It was trained on 512 x 512. */
export function things({ node: nodes }, weights) {
  const graph = new Graph();
  const byName = new Map(nodes.map((node) => [node.name, node]));
  const made = new Map();
  const of = (name) => {
    const node = byName.get(name);
    if (!made.has(name)) made.set(name, written(node));
    return made.get(name);
  };
  const isConstant = (name) => byName.get(name).op === 'Const';
  // A number for each channel stands in the last place there, in the second here.
  const operand = (name) => {
    if (!isConstant(name)) return of(name);
    const tensor = weights.get(name);
    return graph.weights(tensor, tensor.shape.length === 1 ? { shape: [1, tensor.shape[0], 1, 1] } : tensor.shape.length === 4 ? { order: [0, 3, 1, 2] } : {});
  };
  const decoded = (value) => Buffer.from(value, 'base64').toString();

  function convolution(node, depthwise) {
    const { strides, padding, fused_ops: fused, dilations } = node.attr;
    const [input, filters, bias] = node.input;
    // A filter of one pixel has no edges to fill.
    const isFilled = decoded(padding.s) === 'SAME' || weights.get(filters).shape[0] === 1;
    if (!isFilled || dilations.list.i.some((step) => step !== '1')) throw new Error(`${node.name} is not a plain convolution`);
    const follow = (fused?.list.s ?? []).map(decoded);
    let at = graph.convolution(of(input), weights.get(filters), {
      bias: follow.includes('BiasAdd') ? weights.get(bias) : undefined,
      stride: Number(strides.list.i[1]),
      depthwise,
    });
    for (const operation of follow) {
      if (operation === 'Relu') at = graph.add('Relu', [at]);
      else if (operation === 'Relu6') at = graph.clip(at, 0, 6);
      else if (operation !== 'BiasAdd') throw new Error(`${node.name} is followed by ${operation}`);
    }
    return at;
  }

  function written(node) {
    const { op, input, attr } = node;
    switch (op) {
      case 'Placeholder':
        return 'picture';
      case '_FusedConv2D':
      case 'Conv2D':
        return convolution(node, false);
      case 'FusedDepthwiseConv2dNative':
      case 'DepthwiseConv2dNative':
        return convolution(node, true);
      case 'Mul':
      case 'Add':
        return graph.add(op, input.map(operand));
      case 'Relu6':
        return graph.clip(of(input[0]), 0, 6);
      case 'Relu':
      case 'Sigmoid':
        return graph.add(op, [of(input[0])]);
      case 'Identity':
        return of(input[0]);
      case 'Mean':
        if (String(weights.numbers(input[1])) !== '1,2') throw new Error(`${node.name} is not a mean over the picture`);
        return graph.add('ReduceMean', [of(input[0])], { axes: [2, 3], keepdims: 1 });
      case 'ConcatV2':
        if (weights.numbers(input.at(-1))[0] !== 3) throw new Error(`${node.name} does not put channels together`);
        return graph.add('Concat', input.slice(0, -1).map(of), { axis: 1 });
      case 'ResizeBilinear': {
        if (attr.align_corners.b || attr.half_pixel_centers.b) throw new Error(`${node.name} places its pixels otherwise`);
        // Each is twice as wide and high as what it is made of, whatever the picture's size.
        return graph.add('Resize', [of(input[0]), '', graph.constant([1, 1, 2, 2])], { mode: 'linear', coordinate_transformation_mode: 'asymmetric' });
      }
      default:
        throw new Error(`the operation ${op} of ${node.name} is not known here`);
    }
  }

  graph.add('Identity', [of('tower_0/keypoints')], {}, 'heat');
  graph.add('Identity', [of('tower_0/wh')], {}, 'reach');
  return graph.bytes([['picture', 1, 3, 'height', 'width']], [['heat', 1, 80, 'rows', 'columns'], ['reach', 1, 4, 'rows', 'columns']]);
}
