package pyrite.core.expression;

/** What an expression refers to: a {@link Name} as written, or the identity to which a model resolves it. */
public interface Referent {}
