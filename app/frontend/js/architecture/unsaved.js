// A text that is being edited beside the saved one: what is kept of it, and when a newer saved text may take its place.

const KEPT = 'pyrite.unsaved.';

export class UnsavedText {
  /**
   * @param address names the text in the storage
   * @param saved the text as it is saved
   * @param base the revision it was read from
   */
  constructor(address, saved, base, storage = localStorage) {
    this.key = KEPT + address;
    this.saved = saved;
    this.base = base;
    this.storage = storage;
  }

  isChanged(text) {
    return text !== this.saved;
  }

  /** Keeps what is typed and not saved, so that it outlives a reload and the end of a session. */
  keep(text) {
    if (this.isChanged(text)) {
      this.storage.setItem(this.key, JSON.stringify({ text, base: this.base, at: Date.now() }));
    } else {
      this.storage.removeItem(this.key);
    }
  }

  /**
   * The text kept by an earlier page with the time it was typed at, ms; it goes on from the revision it was written
   * from. Null if there is none.
   */
  restore() {
    const kept = JSON.parse(this.storage.getItem(this.key) ?? 'null');
    if (!kept || kept.text === this.saved) {
      return null;
    }
    this.base = kept.base;
    return kept;
  }

  /** Takes a newer saved text, unless more was typed since {@code written}; returns whether it did. */
  take({ text, base }, written, current) {
    if (current !== written) {
      return false;
    }
    this.saved = text;
    this.base = base;
    return true;
  }
}
