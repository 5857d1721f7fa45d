// What the keys do in the grid.

/** What a key does, or null if it is not the grid's. */
export function keys(grid, does, event) {
  if (!grid.rows.total) {
    const first = { n: does.add, h: does.heading, o: does.note, f: does.filter };
    return grid.editable || event.key === 'f' ? (first[event.key] ?? null) : null;
  }
  const { row, column } = grid.cursor;
  const page = Math.max(1, Math.floor(grid.body.clientHeight / 60));
  const extend = (step) => {
    grid.choose(row, row + step);
    grid.goTo(row + step);
  };
  if (event.ctrlKey || event.metaKey) {
    return event.key.toLowerCase() === 'a'
      ? () => grid.choose(0, grid.rows.total - 1)
      : event.key === 'Home'
        ? () => grid.goTo(0)
        : event.key === 'End'
          ? () => grid.goTo(grid.rows.total - 1)
          : null;
  }
  if (event.altKey) {
    return grid.editable
      ? { ArrowUp: does.up, ArrowDown: does.down, ArrowLeft: does.outdent, ArrowRight: does.indent }[event.key]
      : null;
  }
  const moves = {
    ArrowDown: () => (event.shiftKey ? extend(1) : grid.goTo(row + 1)),
    ArrowUp: () => (event.shiftKey ? extend(-1) : grid.goTo(row - 1)),
    ArrowRight: () => grid.goTo(row, column + 1),
    ArrowLeft: () => grid.goTo(row, column - 1),
    PageDown: () => grid.goTo(row + page),
    PageUp: () => grid.goTo(row - page),
    f: does.filter,
    Home: () => grid.goTo(row, 0),
    End: () => grid.goTo(row, grid.columns.shown.length - 1),
    ' ': () => grid.choose(row, row, !grid.chosen.has(grid.here()?.id)),
    Escape: () => {
      grid.chosen.clear();
      grid.render();
    },
  };
  const edits = {
    Enter: () => grid.edit(),
    F2: () => grid.edit(),
    n: does.add,
    N: does.addBelow,
    h: does.heading,
    o: does.note,
    d: does.duplicate,
    Delete: does.remove,
    s: does.setAttribute,
    r: does.replace,
    l: does.link,
  };
  return moves[event.key] ?? (grid.editable ? edits[event.key] : null);
}
