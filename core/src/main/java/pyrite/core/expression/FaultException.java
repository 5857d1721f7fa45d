package pyrite.core.expression;

/** An expression cannot be evaluated; carries the fault with its place. */
public final class FaultException extends ExplainedException {
    private final transient Fault fault;

    public FaultException(Fault fault) {
        super(fault.message());
        this.fault = fault;
    }

    public FaultException(Span span, String message) {
        this(new Fault(span, message));
    }

    public Fault fault() {
        return fault;
    }
}
