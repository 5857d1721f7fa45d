// Linking in a drawing: the handle of a box dragged onto another box, or L on the one that has the focus.
import { goalMark, onDrag } from '../frame/drag.js';
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { isTyping } from '../frame/keys.js';
import { selected } from '../frame/thread.js';
import { ask, common } from '../grid/dialog.js';
import { element } from '../frame/dom.js';
import { makeLinks, openPicker } from '../links/picker.js';

const SVG = 'http://www.w3.org/2000/svg';

const called = (box) => box.querySelector('.title').textContent;

/** Asks which of the links that the rules allow is meant, and makes it. */
async function join(from, to) {
  const [left, right] = [from.dataset.select, to.dataset.select];
  const response = await fetch(at(`links/between.json?${new URLSearchParams({ left, right })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  const ways = response?.ok ? await response.json() : null;
  if (!ways?.length) {
    say(
      ways
        ? `The link rules allow no link between ${called(from)} and ${called(to)}.`
        : 'The server cannot be reached; try again.',
    );
    return;
  }
  const input = element(
    'select',
    {},
    ...ways.map(({ words }, i) => element('option', { value: String(i), textContent: `${words} ${called(to)}` })),
  );
  const answer = await ask(common(), `Link ${called(from)}`, [{ name: 'way', label: 'It', input }], 'Link');
  if (answer) {
    const { kind, out } = ways[Number(answer.way)];
    const refused = await makeLinks(kind, [out ? left : right], [out ? right : left]);
    if (refused) {
      say(refused);
    }
  }
}

/** Draws a line from the handle of a box to the pointer. */
function lineFrom(handle) {
  const svg = handle.ownerSVGElement;
  const place = (x, y) => new DOMPoint(x, y).matrixTransform(svg.getScreenCTM().inverse());
  const grip = handle.getBoundingClientRect();
  const start = place(grip.left + grip.width / 2, grip.top + grip.height / 2);
  const line = document.createElementNS(SVG, 'path');
  line.classList.add('joining');
  svg.append(line);
  return {
    to: (event) => {
      const end = place(event.clientX, event.clientY);
      line.setAttribute('d', `M${start.x} ${start.y}L${end.x} ${end.y}`);
    },
    remove: () => line.remove(),
  };
}

function startDraggingHandles() {
  const mark = goalMark();
  onDrag(document, {
    begin: (event) => {
      const handle = event.target.closest('#diagram .join');
      return handle && { handle, from: handle.closest('.box') };
    },
    move: (_, event, dragged) => {
      dragged.line ??= lineFrom(dragged.handle);
      dragged.line.to(event);
    },
    goal: (target, _, { from }) => {
      const box = target?.closest('#diagram .box') ?? null;
      return box === from ? null : box;
    },
    show: (box) => mark(box),
    drop: ({ from }, box) => join(from, box),
    end: ({ line }) => line.remove(),
  });
}

export function startJoining() {
  if (!document.getElementById('diagram')) {
    return;
  }
  const link = (id) => (id ? openPicker([id]) : say('Select a box first.'));
  startDraggingHandles();
  document.addEventListener('click', (event) => event.target.closest('[data-link-selected]') && link(selected()));
  document.addEventListener('keydown', (event) => {
    const box = event.target.closest?.('#diagram[data-editable="true"] .box');
    if (event.key === 'l' && box && !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event)) {
      event.preventDefault();
      link(box.dataset.select);
    }
  });
}
