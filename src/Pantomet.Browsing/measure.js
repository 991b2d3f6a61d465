// What one document holds of pictures, and of elements whose width somebody may want, as plain facts. Runs in the page; what the facts mean is
// decided outside of it.
(withElements) => {
  const seen = [];
  const scales = new WeakMap();

  // How far transforms and zoom of an element and all around it stretch its sides.
  const matrixOf = (element) => {
    if (!element) return new DOMMatrix();
    const known = scales.get(element);
    if (known) return known;
    const style = getComputedStyle(element);
    const parent = element.assignedSlot ?? element.parentElement ?? element.getRootNode().host ?? null;
    let matrix = matrixOf(parent);
    const add = (text) => {
      try {
        matrix = matrix.multiply(new DOMMatrix(text));
      } catch {
        // A transform that cannot be read alone, such as one by a share of the box, moves and does not stretch.
      }
    };
    if (style.rotate && style.rotate !== "none") add(`rotate(${style.rotate.split(" ").pop()})`);
    if (style.scale && style.scale !== "none") add(`scale(${style.scale.split(" ").slice(0, 2).join(",")})`);
    if (style.transform && style.transform !== "none") add(style.transform);
    scales.set(element, matrix);
    return matrix;
  };
  const stretch = (element) => {
    const m = matrixOf(element);
    const zoom = element.currentCSSZoom ?? 1;
    return [Math.hypot(m.a, m.b) * zoom, Math.hypot(m.c, m.d) * zoom];
  };

  // Counted once a parent: pages with ten thousand children of one are seen in time.
  const places = new WeakMap();
  const nthOf = (element) => {
    const parent = element.parentElement;
    if (!parent) return null;
    if (!places.has(parent)) {
      const counts = new Map();
      const known = new Map();
      for (const one of parent.children) {
        counts.set(one.localName, (counts.get(one.localName) ?? 0) + 1);
        known.set(one, counts.get(one.localName));
      }
      places.set(parent, { counts, known });
    }
    const { counts, known } = places.get(parent);
    return counts.get(element.localName) > 1 ? known.get(element) : null;
  };

  const pathOf = (element) => {
    const root = element.getRootNode();
    const parts = [];
    for (let at = element; at && at.nodeType === 1; at = at.parentElement) {
      if (at.id && root.querySelectorAll(`#${CSS.escape(at.id)}`).length === 1) {
        parts.unshift(`#${CSS.escape(at.id)}`);
        break;
      }
      const nth = nthOf(at);
      parts.unshift(nth ? `${at.localName}:nth-of-type(${nth})` : at.localName);
    }
    const inside = parts.join(" > ");
    return root.host ? `${pathOf(root.host)} >>> ${inside}` : inside;
  };

  const px = (text) => Number.parseFloat(text) || 0;
  const edges = (style, what, suffix = "") =>
    ["left", "right", "top", "bottom"].map((side) => px(style.getPropertyValue(`${what}-${side}${suffix}`)));

  // The content box in CSS pixels before transforms, with border and padding around it.
  const boxOf = (element, style) => {
    const [bl, br, bt, bb] = edges(style, "border", "-width");
    const [pl, pr, pt, pb] = edges(style, "padding");
    let width = Number.parseFloat(style.width);
    let height = Number.parseFloat(style.height);
    if (Number.isNaN(width) || Number.isNaN(height)) {
      if (!element) return null;
      // What flows inside a line has no width of its own.
      const around = element.getBoundingClientRect();
      const [sx, sy] = stretch(element);
      width = around.width / (sx || 1) - bl - br - pl - pr;
      height = around.height / (sy || 1) - bt - bb - pt - pb;
    } else if (style.boxSizing === "border-box") {
      width -= bl + br + pl + pr;
      height -= bt + bb + pt + pb;
    }
    return { width: Math.max(0, width), height: Math.max(0, height), bl, br, bt, bb, pl, pr, pt, pb };
  };

  const isShown = (element) => element.getClientRects().length > 0;

  const placeOf = (element, box, [sx, sy]) => {
    const around = element.getBoundingClientRect();
    return {
      x: around.left + scrollX + (box.bl + box.pl) * sx,
      y: around.top + scrollY + (box.bt + box.pt) * sy,
      width: Math.max(0, around.width - (box.bl + box.br + box.pl + box.pr) * sx),
      height: Math.max(0, around.height - (box.bt + box.bb + box.pt + box.pb) * sy),
    };
  };

  const NOWHERE = { x: 0, y: 0, width: 0, height: 0 };
  const EMPTY = { width: 0, height: 0 };
  const BARE = { bl: 0, br: 0, bt: 0, bb: 0, pl: 0, pr: 0, pt: 0, pb: 0 };
  const sides = ([width, height]) => ({ width, height });

  const placed = (element, style) => {
    const box = isShown(element) ? boxOf(element, style) : null;
    if (!box) return { box: EMPTY, place: NOWHERE };
    const by = stretch(element);
    return { box: { width: box.width, height: box.height }, stretch: sides(by), place: placeOf(element, box, by) };
  };

  const isReserved = (element) => {
    const map = element.computedStyleMap?.();
    if (!map) return true;
    const isFree = (name) => /^(auto|min-content|max-content|fit-content)/.test(String(map.get(name)));
    return !(isFree("width") || isFree("height")) || String(map.get("aspect-ratio")) !== "auto";
  };

  const hasWords = (element) =>
    element.hasAttribute("alt") ||
    ["aria-label", "aria-labelledby"].some((name) => element.getAttribute(name)?.trim()) ||
    ["none", "presentation"].includes(element.getAttribute("role")) ||
    !!element.closest("[aria-hidden=true]");

  const addImage = (element) => {
    const isButton = element.localName === "input";
    const address = isButton ? element.src : element.currentSrc || element.src;
    if (!address) return;
    const style = getComputedStyle(element);
    const { box, place, stretch: stretched } = placed(element, style);
    // Loaded only when somebody comes near, and nobody came.
    if (!isButton && element.loading === "lazy" && !element.complete && box.width === 0) return;
    const natural = isButton ? EMPTY : { width: element.naturalWidth, height: element.naturalHeight };
    seen.push({
      where: pathOf(element),
      kind: "img",
      address,
      box,
      stretch: stretched,
      place,
      natural,
      fit: style.objectFit,
      position: style.objectPosition,
      hasWords: hasWords(element),
      reserved: box.width === 0 || isReserved(element),
      lazy: element.loading === "lazy",
      choice: element.hasAttribute("srcset") || element.parentElement?.localName === "picture",
      broken: !isButton && element.complete && element.naturalWidth === 0,
    });
  };

  const addPoster = (element) => {
    if (!element.poster) return;
    const style = getComputedStyle(element);
    seen.push({
      where: pathOf(element),
      kind: "poster",
      address: element.poster,
      ...placed(element, style),
      fit: style.objectFit === "fill" ? "contain" : style.objectFit,
      position: style.objectPosition,
    });
  };

  const addDrawn = (element) => {
    const href = element.href?.baseVal;
    if (!href) return;
    const address = new URL(href, element.ownerDocument.baseURI).href;
    const around = element.getBoundingClientRect();
    const local = element.getBBox();
    const matrix = element.getScreenCTM();
    const by = matrix ? [Math.hypot(matrix.a, matrix.b), Math.hypot(matrix.c, matrix.d)] : [0, 0];
    const [align, how] = (element.getAttribute("preserveAspectRatio") ?? "xMidYMid meet").trim().split(/\s+/);
    const share = { Min: "0%", Mid: "50%", Max: "100%" };
    const [, across, down] = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(align) ?? [null, "Mid", "Mid"];
    seen.push({
      where: pathOf(element),
      kind: "svg",
      address,
      box: { width: local.width, height: local.height },
      stretch: sides(by),
      place: { x: around.left + scrollX, y: around.top + scrollY, width: around.width, height: around.height },
      fit: align === "none" ? "fill" : how === "slice" ? "cover" : "contain",
      position: `${share[across]} ${share[down]}`,
    });
  };

  // Splits at the commas that stand in no bracket.
  const split = (text) => {
    const parts = [];
    let depth = 0;
    let quote = "";
    let from = 0;
    for (let i = 0; i < text.length; i++) {
      const sign = text[i];
      if (quote) {
        if (sign === "\\") i++;
        else if (sign === quote) quote = "";
      } else if (sign === '"' || sign === "'") quote = sign;
      else if (sign === "(") depth++;
      else if (sign === ")") depth--;
      else if (sign === "," && depth === 0) {
        parts.push(text.slice(from, i).trim());
        from = i + 1;
      }
    }
    parts.push(text.slice(from).trim());
    return parts;
  };

  const unquote = (text) => {
    const inner = text.trim().replace(/^url\(\s*/, "").replace(/\s*\)$/, "");
    return inner.replace(/^(["'])([^]*)\1$/, "$2").replace(/\\(.)/g, "$1");
  };

  // What a layer offers: addresses with the density that each is for.
  const offered = (layer) => {
    if (layer.startsWith("url(")) return [{ address: unquote(layer), density: 1 }];
    const set = /^(?:-webkit-)?image-set\(([^]*)\)$/.exec(layer);
    if (!set) return [];
    return split(set[1])
      .map((option) => {
        const [, image, rest] = /^(url\((?:"(?:[^"\\]|\\.)*"|[^)]*)\)|"(?:[^"\\]|\\.)*")\s*([^]*)$/.exec(option) ?? [];
        const [, number, unit] = /([\d.]+)(x|dppx|dpi|dpcm)/.exec(rest ?? "") ?? [null, "1", "x"];
        const per = { x: 1, dppx: 1, dpi: 1 / 96, dpcm: 2.54 / 96 }[unit];
        return image ? { address: unquote(image), density: Number(number) * per } : null;
      })
      .filter(Boolean);
  };

  const addBackgrounds = (element, pseudo) => {
    const style = getComputedStyle(element, pseudo || null);
    if (pseudo && (style.content === "none" || style.content === "normal")) return;
    const text = style.backgroundImage;
    if (text === "none" || !/url\(|image-set\(/.test(text)) return;
    const shown = isShown(element) && style.display !== "none";
    const isRoot =
      element === document.documentElement ||
      (element === document.body && getComputedStyle(document.documentElement).backgroundImage === "none");
    const box = shown ? boxOf(pseudo ? null : element, style) : null;
    const by = stretch(element);
    const nth = (list, i) => list[i % list.length];
    const [sizes, positions, origins, held] = [
      style.backgroundSize,
      style.backgroundPosition,
      style.backgroundOrigin,
      style.backgroundAttachment,
    ].map(split);
    split(text).forEach((layer, i) => {
      const options = offered(layer);
      if (options.length === 0) return;
      const origin = nth(origins, i);
      let area = EMPTY;
      let place = NOWHERE;
      if (shown && nth(held, i) === "fixed") {
        area = { width: innerWidth, height: innerHeight };
        place = placeOf(element, BARE, by);
      } else if (shown && isRoot) {
        const root = document.documentElement.getBoundingClientRect();
        area = { width: root.width, height: root.height };
        place = { x: root.left + scrollX, y: root.top + scrollY, ...area };
      } else if (box) {
        const pad = origin === "content-box" ? 0 : 1;
        const edge = origin === "border-box" ? 1 : 0;
        const width = box.width + pad * (box.pl + box.pr) + edge * (box.bl + box.br);
        const height = box.height + pad * (box.pt + box.pb) + edge * (box.bt + box.bb);
        area = { width, height };
        place = placeOf(element, BARE, by);
      }
      // Of what is offered the browser takes the first that is dense enough, else the densest.
      const able = options.toSorted((a, b) => a.density - b.density);
      const taken = able.find((one) => one.density >= devicePixelRatio) ?? able.at(-1);
      seen.push({
        where: pathOf(element) + pseudo,
        kind: "background",
        address: new URL(taken.address, document.baseURI).href,
        box: area,
        place,
        pixelsPerPoint: taken.density,
        fit: nth(sizes, i),
        position: nth(positions, i),
        choice: options.length > 1,
        stretch: isRoot || nth(held, i) === "fixed" ? undefined : sides(by),
      });
    });
  };

  const walk = (root) => {
    for (const element of root.querySelectorAll("*")) {
      if (element.localName === "img" || (element.localName === "input" && element.type === "image")) addImage(element);
      else if (element.localName === "video") addPoster(element);
      else if (element.localName === "image" && element.namespaceURI === "http://www.w3.org/2000/svg") addDrawn(element);
      if (!(element instanceof HTMLElement)) continue;
      for (const pseudo of ["", "::before", "::after"]) addBackgrounds(element, pseudo);
      if (element.shadowRoot) walk(element.shadowRoot);
    }
  };
  walk(document);

  // One drawing of many small pictures, each place showing a part of it where it lies.
  const byAddress = Map.groupBy(
    seen.filter((one) => one.kind === "background"),
    (one) => one.address,
  );
  for (const places of byAddress.values()) {
    const isSprite = places.every((one) => one.fit === "auto") && new Set(places.map((one) => one.position)).size > 1;
    for (const one of places) one.sprite = isSprite;
  }

  // Smaller ones nobody points at, and beyond so many nobody looks.
  const elements = () => {
    const found = [];
    for (const element of document.body?.querySelectorAll("*") ?? []) {
      if (found.length >= 4000) break;
      if (!isShown(element)) continue;
      const around = element.getBoundingClientRect();
      if (around.width < 24 || around.height < 8) continue;
      const inner = boxOf(element, getComputedStyle(element));
      found.push({
        where: pathOf(element),
        place: { x: around.left + scrollX, y: around.top + scrollY, width: around.width, height: around.height },
        inner: inner.width * stretch(element)[0],
      });
    }
    return found;
  };
  return JSON.stringify({ images: seen, elements: withElements ? elements() : [] });
}
