package pyrite.core.expression;

/** What an expression refers to: a {@link Name} as written, or whatever a model resolves names to. */
public interface Referent {}
