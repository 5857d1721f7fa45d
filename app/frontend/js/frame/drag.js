// Dragging by pointer, for everything that is dragged: rows onto rows, boxes onto boxes, a drawing, the edge of a column.

/** A press that moves less is a click, px. */
const THRESHOLD = 4;
/** So near to the edge of what scrolls, dragging scrolls it, px. */
const EDGE = 28;
const SPEED = 12;

/**
 * Lets things in an element be dragged.
 *
 * @param host listens for presses
 * @param begin (event) gives what is dragged, null if nothing is
 * @param goal (element, event, dragged) gives where it would be dropped, null if nowhere
 * @param show (goal, dragged) marks the goal; null takes the mark away
 * @param move ({ dx, dy }, event, dragged) receives each step, px
 * @param drop (dragged, goal) is called if it is let go over a goal
 * @param end (dragged) is called in any case
 * @param scroller (dragged) gives the element to scroll when the pointer comes near its edge
 */
export function onDrag(host, { begin, goal, show = () => {}, move, drop, end = () => {}, scroller = () => null }) {
  host.addEventListener('pointerdown', (event) => {
    const dragged = event.button === 0 ? begin(event) : null;
    if (dragged !== null && dragged !== undefined) {
      press(event, dragged, { goal, show, move, drop, end, scroller });
    }
  });
  // The browser's own dragging of links and pictures would take the pointer away.
  host.addEventListener('dragstart', (event) => event.preventDefault());
}

function press(pressed, dragged, { goal, show, move, drop, end, scroller }) {
  let last = { x: pressed.clientX, y: pressed.clientY };
  let started = false;
  let scrolling = 0;

  const goalAt = (event) => goal?.(document.elementFromPoint(event.clientX, event.clientY), event, dragged) ?? null;
  const scroll = (event) => {
    cancelAnimationFrame(scrolling);
    const box = scroller(dragged)?.getBoundingClientRect();
    if (!box) {
      return;
    }
    const step = event.clientY < box.top + EDGE ? -SPEED : event.clientY > box.bottom - EDGE ? SPEED : 0;
    if (step) {
      scroller(dragged).scrollTop += step;
      scrolling = requestAnimationFrame(() => scroll(event));
    }
  };
  const onMove = (event) => {
    const step = { dx: event.clientX - last.x, dy: event.clientY - last.y };
    if (!started && Math.hypot(step.dx, step.dy) < THRESHOLD) {
      return;
    }
    if (!started) {
      started = true;
      getSelection()?.removeAllRanges();
      document.documentElement.classList.add('dragging');
    }
    last = { x: event.clientX, y: event.clientY };
    move?.(step, event, dragged);
    if (goal) {
      show(goalAt(event), dragged);
      scroll(event);
    }
  };
  const leave = () => {
    cancelAnimationFrame(scrolling);
    removeEventListener('pointermove', onMove);
    removeEventListener('pointerup', onUp);
    removeEventListener('pointercancel', leave);
    removeEventListener('keydown', onKey, true);
    document.documentElement.classList.remove('dragging');
    show(null, dragged);
    if (started) {
      end(dragged);
    }
  };
  const onUp = (event) => {
    const target = started && goal ? goalAt(event) : null;
    leave();
    if (started) {
      swallowClick();
    }
    if (target) {
      drop(dragged, target);
    }
  };
  const onKey = (event) => {
    if (event.key === 'Escape' && started) {
      event.stopPropagation();
      leave();
      swallowClick();
    }
  };
  addEventListener('pointermove', onMove);
  addEventListener('pointerup', onUp);
  addEventListener('pointercancel', leave);
  addEventListener('keydown', onKey, true);
}

/** The release of a drag is no click on what is under it. */
export function swallowClick() {
  const swallow = (event) => {
    event.preventDefault();
    event.stopPropagation();
  };
  addEventListener('click', swallow, { capture: true, once: true });
  setTimeout(() => removeEventListener('click', swallow, true));
}

/** Where in a row the pointer is: above its middle part { before }, below it { behind }, else { into }. */
export function placeInRow(row, event, edge = 0.28) {
  const box = row.getBoundingClientRect();
  const part = (event.clientY - box.top) / box.height;
  return part < edge ? 'before' : part > 1 - edge ? 'behind' : 'into';
}

/** Marks one element at a time with a class, as the goal of a drag. */
export function goalMark() {
  let marked = null;
  return (goal, how = 'into') => {
    marked?.classList.remove('before', 'behind', 'into');
    goal?.classList.add(how);
    marked = goal;
  };
}
