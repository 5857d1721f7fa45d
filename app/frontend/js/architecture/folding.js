// Folds bodies of the text; what only says where boxes stand is folded from the beginning.

const PLACEMENT = /^\s*@(Placement::)?(Placed|Bent)\b.*\{\s*$/;

/** The range between the brace that ends a line and the one that closes it; null if there is none. */
function body(doc, line) {
  if (!/\{\s*$/.test(line.text)) {
    return null;
  }
  const from = line.from + line.text.lastIndexOf('{') + 1;
  let depth = 1;
  for (let number = line.number + 1; number <= doc.lines; number++) {
    const next = doc.line(number);
    for (let i = 0; i < next.text.length; i++) {
      depth += next.text[i] === '{' ? 1 : next.text[i] === '}' ? -1 : 0;
      if (depth === 0) {
        return { from, to: next.from + i };
      }
    }
  }
  return null;
}

/** What an editor needs to fold bodies. */
export const folding = (cm) => [
  cm.foldService.of((state, start) => body(state.doc, state.doc.lineAt(start))),
  cm.codeFolding({ placeholderText: '…' }),
  cm.foldGutter({ openText: '▾', closedText: '▸' }),
  cm.keymap.of(cm.foldKeymap),
];

/** Folds every placement of a text that was just shown. */
export function foldPlacements(cm, view) {
  const { doc } = view.state;
  const effects = [];
  for (let number = 1; number <= doc.lines; number++) {
    const line = doc.line(number);
    const range = PLACEMENT.test(line.text) ? body(doc, line) : null;
    if (range) {
      effects.push(cm.foldEffect.of(range));
    }
  }
  if (effects.length) {
    view.dispatch({ effects });
  }
}
