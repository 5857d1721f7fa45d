// Rows as spreadsheets put them on the clipboard: cells by tabs, quoted where they hold line breaks.

/** [[cell, …], …]; nothing for a single word or line, which is no row of a table. */
export function pastedRows(text) {
  const rows = [];
  let row = [];
  let cell = '';
  let quoted = false;
  const endCell = () => {
    row.push(cell.trim());
    cell = '';
  };
  const endRow = () => {
    endCell();
    if (row.some((each) => each !== '')) {
      rows.push(row);
    }
    row = [];
  };
  for (let i = 0; i < text.length; i++) {
    const letter = text[i];
    if (quoted && letter === '"' && text[i + 1] === '"') {
      cell += '"';
      i++;
    } else if (letter === '"' && (quoted || cell === '')) {
      quoted = !quoted;
    } else if (letter === '\t' && !quoted) {
      endCell();
    } else if (letter === '\n' && !quoted) {
      endRow();
    } else if (letter !== '\r') {
      cell += letter;
    }
  }
  endRow();
  return rows;
}
