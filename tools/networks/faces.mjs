// The single-shot network that finds faces. Its package keeps weights without a graph: the graph is a MobileNet of thirteen pairs of convolutions
// (A. Howard et al., "MobileNets: Efficient Convolutional Neural Networks for Mobile Vision Applications", 2017) under six pairs of predictors, as the package's own source draws it.
import { Graph } from './model.mjs';

const STRIDED = [2, 4, 6, 12];
const EPSILON = 0.001;

// The side that it was trained on, and for each pair of predictors: pixels for each cell, and boxes that a cell predicts.
const SIDE = 512;
const CELLS = [
  [16, 3],
  [32, 6],
  [64, 6],
  [128, 6],
  [256, 6],
  [512, 6],
];

/** The model: a picture of at most 512 x 512 that lies in the upper left of that square, its sides multiples of 32, red, green and blue from 0 to 255, gives `scores` [1, n], 0 to 1, and `boxes` [1, n, 4], top, left, bottom and right as shares of the square's side. */
export function faces(weights) {
  const graph = new Graph();
  const pointwise = (input, name, stride = 1) =>
    graph.clip(graph.convolution(input, weights.get(`${name}/weights`), { bias: weights.get(`${name}/convolution_bn_offset`), stride }), 0, 6);
  const normal = (input, name) =>
    graph.add('BatchNormalization', [input, ...['gamma', 'beta', 'moving_mean', 'moving_variance'].map((one) => graph.weights(weights.get(`${name}/${one}`)))], {
      epsilon: EPSILON,
    });

  let at = graph.add('Sub', [graph.add('Div', ['picture', graph.constant([127.5], [])]), graph.constant([1], [])]);
  at = pointwise(at, 'MobilenetV1/Conv2d_0_pointwise', 2);
  let eleventh;
  for (let layer = 1; layer <= 13; layer++) {
    const name = `MobilenetV1/Conv2d_${layer}`;
    at = graph.convolution(at, weights.get(`${name}_depthwise/depthwise_weights`), { stride: STRIDED.includes(layer) ? 2 : 1, depthwise: true });
    at = graph.clip(normal(at, `${name}_depthwise/BatchNorm`), 0, 6);
    at = pointwise(at, `${name}_pointwise`);
    if (layer === 11) eleventh = at;
  }

  const seen = [eleventh, at];
  for (let layer = 0; layer < 8; layer++) {
    at = pointwise(at, `Prediction/Conv2d_${layer}_pointwise`, layer % 2 === 1 ? 2 : 1);
    if (layer % 2 === 1) seen.push(at);
  }

  // Each cell predicts several boxes: [1, boxes x values, height, width] becomes [1, height x width x boxes, values].
  const predicted = (input, predictor, kind, values) => {
    const name = `Prediction/BoxPredictor_${predictor}/${kind}`;
    const cells = graph.convolution(input, weights.get(`${name}/weights`), { bias: weights.get(`${name}/biases`) });
    return graph.add('Reshape', [graph.add('Transpose', [cells], { perm: [0, 2, 3, 1] }), graph.constant([1, -1, values], [3], true)]);
  };
  const all = (kind, values) => graph.add('Concat', seen.map((input, i) => predicted(input, i, kind, values)), { axis: 1 });
  const part = (input, from, to) => graph.add('Slice', [input, ...[[from], [to], [2]].map((numbers) => graph.constant(numbers, [1], true))]);

  // Of three classes the second is the face.
  const scores = graph.add('Sigmoid', [part(all('ClassPredictor', 3), 1, 2)]);
  graph.add('Reshape', [scores, graph.constant([1, -1], [2], true)], {}, 'scores');

  // The predicted place is told against a box of its own for each cell: how far its centre lies from that one's, and how much larger it is.
  const known = knownBoxes();
  const [least, most] = [part(known, 0, 2), part(known, 2, 4)];
  const size = graph.add('Sub', [most, least]);
  const half = graph.constant([0.5], []);
  const centre = graph.add('Add', [least, graph.add('Mul', [size, half])]);
  const told = all('BoxEncodingPredictor', 4);
  const moved = graph.add('Add', [graph.add('Mul', [graph.add('Div', [part(told, 0, 2), graph.constant([10], [])]), size]), centre]);
  const grown = graph.add('Mul', [graph.add('Exp', [graph.add('Div', [part(told, 2, 4), graph.constant([5], [])])]), size]);
  const reach = graph.add('Mul', [grown, half]);
  graph.add('Concat', [graph.add('Sub', [moved, reach]), graph.add('Add', [moved, reach])], { axis: 2 }, 'boxes');

  // Those of the whole square stand row by row for each pair of predictors; of a smaller picture its rows and columns are taken.
  function knownBoxes() {
    const whole = graph.weights(weights.get('Output/extra_dim'), { shape: [CELLS.reduce((sum, [pixels, boxes]) => sum + (SIDE / pixels) ** 2 * boxes, 0), 4] });
    let from = 0;
    return graph.add(
      'Concat',
      CELLS.map(([pixels, boxes], i) => {
        const side = SIDE / pixels;
        const until = from + side * side * boxes;
        const own = graph.add('Slice', [whole, ...[[from], [until], [0]].map((numbers) => graph.constant(numbers, [1], true))]);
        from = until;
        const square = graph.add('Reshape', [own, graph.constant([side, side, boxes * 4], [3], true)]);
        const size = graph.add('Slice', [graph.add('Shape', [seen[i]]), ...[[2], [4], [0]].map((numbers) => graph.constant(numbers, [1], true))]);
        const taken = graph.add('Slice', [square, graph.constant([0, 0], [2], true), size, graph.constant([0, 1], [2], true)]);
        return graph.add('Reshape', [taken, graph.constant([1, -1, 4], [3], true)]);
      }),
      { axis: 1 },
    );
  }
  return graph.bytes([['picture', 1, 3, 'height', 'width']], [['scores', 1, 'n'], ['boxes', 1, 'n', 4]]);
}
