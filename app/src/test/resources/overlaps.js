// Which texts, controls and marks of a page lie over others, as far as they are in sight: "one × other".
const LEAST_WIDTH = 3;
const LEAST_HEIGHT = 4;
const LARGEST_MARK = 30;

const isLeftOut = (element) =>
  element.closest('svg, [hidden], dialog:not([open]), script, template, option, .cm-editor') ||
  (element.closest('details:not([open])') && !element.closest('summary')) ||
  getComputedStyle(element).visibility === 'hidden' ||
  getComputedStyle(element).opacity === '0';

/** What a rectangle of an element leaves in sight of all that cuts it off. */
function seen(element, { left, right, top, bottom }) {
  const box = { left, right, top, bottom };
  for (let around = element; around && around !== document.body; around = around.parentElement) {
    const { overflowX, overflowY } = getComputedStyle(around);
    if (/hidden|auto|scroll|clip/.test(overflowX + overflowY)) {
      const edge = around.getBoundingClientRect();
      Object.assign(box, {
        left: Math.max(box.left, edge.left),
        right: Math.min(box.right, edge.right),
        top: Math.max(box.top, edge.top),
        bottom: Math.min(box.bottom, edge.bottom),
      });
    }
  }
  return box;
}

/** What is fixed or sticks lies over the rest on purpose. */
function layer(element) {
  for (let around = element; around; around = around.parentElement) {
    if (/sticky|fixed/.test(getComputedStyle(around).position)) {
      return around;
    }
  }
  return null;
}

const boxes = [];
const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (walker.nextNode()) {
  const { currentNode: node } = walker;
  const element = node.parentElement;
  if (node.textContent.trim() && !isLeftOut(element)) {
    const range = document.createRange();
    range.selectNodeContents(node);
    [...range.getClientRects()].forEach((rect) =>
      boxes.push({ element, name: node.textContent.trim().slice(0, 30), box: seen(element, rect) }),
    );
  }
}
[...document.querySelectorAll('button, input, select, textarea')]
  .filter((control) => !isLeftOut(control))
  .forEach((control) =>
    boxes.push({
      element: control,
      name: `[${control.ariaLabel ?? control.name ?? control.textContent.trim()}]`,
      box: seen(control, control.getBoundingClientRect()),
    }),
  );

[...document.querySelectorAll('svg:not(svg svg)')]
  .filter((mark) => mark.clientWidth <= LARGEST_MARK && !isLeftOut(mark.parentElement))
  .forEach((mark) => boxes.push({ element: mark, name: '[mark]', box: seen(mark, mark.getBoundingClientRect()) }));

const over = (a, b) =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > LEAST_WIDTH &&
  Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > LEAST_HEIGHT;
const isField = (element) => element.matches('input, select');
/** What stands in something, and the mark or the keys that stand in a field beside it, lie there on purpose. */
const belong = (a, b) =>
  a === b || a.contains(b) || b.contains(a) || (a.parentElement === b.parentElement && (isField(a) || isField(b)));
const found = new Set();
boxes.forEach((one, i) =>
  boxes.slice(i + 1).forEach((other) => {
    if (
      over(one.box, other.box) &&
      !belong(one.element, other.element) &&
      layer(one.element) === layer(other.element)
    ) {
      found.add(`${one.name} × ${other.name}`);
    }
  }),
);
return [...found];
