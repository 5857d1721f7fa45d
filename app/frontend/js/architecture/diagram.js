// A drawing on its canvas: dragging and the wheel move it, Ctrl and the wheel, + and − zoom, 0 fits all of it. Arrow keys go
// from box to box, Enter or a double click opens the page of one.
import { onDrag } from '../frame/drag.js';
import { isTyping } from '../frame/keys.js';
import { onRefresh } from '../frame/live.js';

const STEP = 1.25;
const SMALLEST = 0.15;
const LARGEST = 3;
const READABLE = 0.75;

const svg = () => document.getElementById('diagram');
let view;
let moved = false;

function apply() {
  svg()?.setAttribute('viewBox', `${view.x} ${view.y} ${view.width} ${view.height}`);
}

const scale = () => svg().clientWidth / view.width;

/** Shows all of it, but nothing larger than its natural size and, at first, nothing too small to read. */
function fit(smallest = 0) {
  moved = false;
  const { clientWidth, clientHeight, dataset } = svg();
  const factor = Math.max(smallest, Math.min(1, clientWidth / dataset.width, clientHeight / dataset.height));
  const width = clientWidth / factor;
  const height = clientHeight / factor;
  view = { x: Math.min(0, (dataset.width - width) / 2), y: 0, width, height };
  apply();
}

/** Zooms so that what is under a point of the screen stays there; the middle if none is given. */
function zoom(factor, clientX, clientY) {
  moved = true;
  const wanted = Math.min(LARGEST, Math.max(SMALLEST, scale() * factor)) / scale();
  const frame = svg().getBoundingClientRect();
  const px = ((clientX ?? frame.left + frame.width / 2) - frame.left) / frame.width;
  const py = ((clientY ?? frame.top + frame.height / 2) - frame.top) / frame.height;
  view = {
    x: view.x + view.width * px * (1 - 1 / wanted),
    y: view.y + view.height * py * (1 - 1 / wanted),
    width: view.width / wanted,
    height: view.height / wanted,
  };
  apply();
}

function pan(dx, dy) {
  moved = true;
  view = { ...view, x: view.x - dx / scale(), y: view.y - dy / scale() };
  apply();
}

const boxes = () => [...svg().querySelectorAll('.box')];

function middle(box) {
  const frame = box.querySelector('.shape').getBoundingClientRect();
  return { x: frame.left + frame.width / 2, y: frame.top + frame.height / 2 };
}

/** The box nearest in the direction of an arrow key, sideways distance counting double. */
function neighbour(box, key) {
  const from = middle(box);
  const along = key === 'ArrowLeft' || key === 'ArrowRight' ? 'x' : 'y';
  const across = along === 'x' ? 'y' : 'x';
  const sign = key === 'ArrowRight' || key === 'ArrowDown' ? 1 : -1;
  const ahead = boxes()
    .filter((each) => each !== box)
    .map((each) => ({ each, at: middle(each) }))
    .map(({ each, at }) => ({
      each,
      ahead: (at[along] - from[along]) * sign,
      aside: Math.abs(at[across] - from[across]),
    }))
    .filter((candidate) => candidate.ahead > 4)
    .sort((a, b) => a.ahead + 2 * a.aside - b.ahead - 2 * b.aside);
  return ahead[0]?.each;
}

/** Brings a box that got the focus into sight. */
function reveal(box) {
  const frame = svg().getBoundingClientRect();
  const at = box.querySelector('.shape').getBoundingClientRect();
  const dx =
    at.left < frame.left ? frame.left - at.left + 20 : at.right > frame.right ? frame.right - at.right - 20 : 0;
  const dy =
    at.top < frame.top ? frame.top - at.top + 20 : at.bottom > frame.bottom ? frame.bottom - at.bottom - 20 : 0;
  if (dx || dy) {
    pan(dx, dy);
  }
}

function keys(event) {
  if (!svg() || event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) {
    return;
  }
  const actions = { '+': () => zoom(STEP), '=': () => zoom(STEP), '-': () => zoom(1 / STEP), 0: () => fit() };
  const box = event.target.closest?.('.box');
  if (box && event.key.startsWith('Arrow')) {
    event.preventDefault();
    neighbour(box, event.key)?.focus();
  } else if (box && event.key === 'Enter') {
    location.href = box.dataset.openPage;
  } else if (actions[event.key]) {
    event.preventDefault();
    actions[event.key]();
  }
}

export function startDiagram() {
  if (!svg()) {
    return;
  }
  fit(READABLE);
  const canvas = document.getElementById('work');
  canvas.addEventListener(
    'wheel',
    (event) => {
      if (event.target.closest('#diagram')) {
        event.preventDefault();
        if (event.ctrlKey) {
          zoom(event.deltaY < 0 ? STEP : 1 / STEP, event.clientX, event.clientY);
        } else {
          pan(-event.deltaX, -event.deltaY);
        }
      }
    },
    { passive: false },
  );
  onDrag(canvas, {
    begin: (event) => (event.target.closest('.toggle, .join') ? null : event.target.closest('#diagram')),
    move: ({ dx, dy }) => {
      svg()?.classList.add('moving');
      pan(dx, dy);
    },
    end: () => svg()?.classList.remove('moving'),
  });
  canvas.addEventListener('dblclick', (event) => {
    const box = event.target.closest('.box');
    if (box) {
      location.href = box.dataset.openPage;
    }
  });
  canvas.addEventListener('focusin', (event) => {
    const box = event.target.closest('.box');
    if (box && event.target.matches(':focus-visible')) {
      reveal(box);
    }
  });
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-zoom]');
    if (button) {
      ({ in: () => zoom(STEP), out: () => zoom(1 / STEP), fit: () => fit() })[button.dataset.zoom]();
    }
  });
  document.addEventListener('keydown', keys);
  addEventListener('resize', () => fit());
  // Who has moved the drawing keeps looking at the same spot; else a new layout is fitted anew.
  onRefresh(() => (moved ? apply() : fit(READABLE)));
}
