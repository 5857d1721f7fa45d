// The lines of a story in the order in which they are seen: the steps of a way, under each the ways that leave it, and how
// the way goes on. What is being written stands behind the step it belongs to.

/**
 * @param data what the server tells of the story
 * @param drafts what is being written: { key, anchor, mode, way }
 * @returns { key, type, depth, label, step, way, draft } in order
 */
export function order(data, drafts) {
  const rows = [];
  const leaving = Map.groupBy(data.ways.slice(1), ({ leaves }) => leaves);
  const waiting = new Set(drafts);

  const drawn = (draft, depth) => {
    waiting.delete(draft);
    const isAlternative = draft.mode === 'alternative';
    if (isAlternative) {
      rows.push({
        key: `${draft.key} if`,
        type: 'way',
        depth: depth + 1,
        label: '',
        draft: { node: draft.conditionNode },
      });
    }
    draft.node.dataset.depth = depth + (isAlternative ? 1 : 0);
    rows.push({ key: draft.key, type: 'step', depth, label: '', draft });
    following(draft, isAlternative ? depth + 1 : depth);
  };
  /** What is written behind something that is still being saved. */
  const following = (draft, depth) =>
    drafts.filter((each) => each.anchor.draft === draft && waiting.has(each)).forEach((each) => drawn(each, depth));
  const behind = (step, depth) =>
    drafts
      .filter((draft) => draft.anchor.step === step && draft.mode !== 'first' && waiting.has(draft))
      .forEach((draft) => drawn(draft, depth));

  const told = (way, depth) => {
    if (way.label) {
      rows.push({ key: `way ${way.carrier}`, type: 'way', depth, label: way.label, way });
      drafts
        .filter((draft) => draft.mode === 'first' && draft.way === way.label)
        .forEach((draft) => drawn(draft, depth));
    } else {
      behind(null, depth);
      leaving.get(null)?.forEach((other) => told(other, depth + 1));
    }
    for (const step of way.steps) {
      rows.push({ key: `step ${step.id}`, type: 'step', depth, label: step.label, step });
      leaving.get(step.id)?.forEach((other) => told(other, depth + 1));
      behind(step.id, depth);
    }
    if (way.steps.length || way.label) {
      rows.push({
        key: `end ${way.carrier ?? 'main'} ${way.steps.at(-1)?.id ?? ''}`,
        type: 'end',
        depth,
        label: '',
        way,
      });
    }
  };
  told(data.ways[0], 0);
  [...waiting].forEach((draft) => waiting.has(draft) && drawn(draft, 0));
  return rows;
}
