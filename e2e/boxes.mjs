// What the browser's own tools say of the sizes of elements: the content box, or the padding box for backgrounds, in CSS pixels.
// Called with a file of [{ page, viewport, where, kind }]; prints [[width, height], ...] in their order.
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { chromium } from '@playwright/test';

const wanted = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-background-networking'],
});
const sizes = [];
let open = null;

const find = (where) =>
  `${JSON.stringify(where)}.split(" >>> ").reduce((root, step) => {
    const inner = /^iframe\\((\\d+)\\)$/.exec(step);
    if (inner) return root.querySelectorAll("iframe")[inner[1] - 1].contentDocument;
    return (root.shadowRoot ?? root).querySelector(step);
  }, document)`;

const side = (ax, ay, bx, by) => Math.hypot(bx - ax, by - ay);

for (const { page: path, viewport, where, kind } of wanted) {
  const key = `${path} ${viewport}`;
  if (open?.key !== key) {
    await open?.page.close();
    const page = await browser.newPage({ viewport: { width: viewport, height: 800 } });
    await page.goto(pathToFileURL(path).href);
    const tools = await page.context().newCDPSession(page);
    await tools.send('DOM.enable');
    open = { key, page, tools };
  }
  const [, plain, pseudo] = /^(.*?)(::before|::after)?$/s.exec(where);
  const { result } = await open.tools.send('Runtime.evaluate', { expression: find(plain) });
  let node = { objectId: result.objectId };
  if (pseudo) {
    const { node: told } = await open.tools.send('DOM.describeNode', { objectId: result.objectId });
    node = {
      backendNodeId: told.pseudoElements.find((one) => `::${one.pseudoType}` === pseudo).backendNodeId,
    };
  }
  const { model } = await open.tools.send('DOM.getBoxModel', node);
  const q = kind === 'background' ? model.padding : model.content;
  sizes.push([side(q[0], q[1], q[2], q[3]), side(q[0], q[1], q[6], q[7])]);
}
await browser.close();
console.log(JSON.stringify(sizes));
