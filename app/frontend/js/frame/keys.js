// Keys that mean something everywhere leave alone whoever is typing.

/** Whether a key goes into a field or into the editor, whose inner elements are hidden from the page. */
export const isTyping = (event) => event.target.closest('input, textarea, select, .notation-host') !== null;
