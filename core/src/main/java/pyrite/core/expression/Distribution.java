package pyrite.core.expression;

/**
 * The distributions of the library package Execution (Johnson, Kotz and Balakrishnan: Continuous Univariate
 * Distributions; PERT after Malcolm and others 1959). A mean and a deviation are those of the value itself, also for
 * the lognormal.
 */
public enum Distribution {
    UNIFORM("uniform", "low and high", 2),
    TRIANGULAR("triangular", "low, mode and high", 3),
    NORMAL("normal", "mean and deviation", 2),
    TRUNCATED_NORMAL("truncatedNormal", "mean, deviation, low and high", 4),
    LOGNORMAL("lognormal", "mean and deviation", 2),
    EXPONENTIAL("exponential", "mean", 1),
    /** So many exponential stages whose sum has the mean. */
    ERLANG("erlang", "stages and mean", 2, 1),
    GAMMA("gamma", "shape and scale", 2, 1),
    WEIBULL("weibull", "shape and scale", 2, 1),
    BETA("beta", "a and b", 2, 2),
    PERT("pert", "low, mode and high", 3),
    POISSON("poisson", "mean", 1, 1),
    BINOMIAL("binomial", "trials and share", 2, 2),
    /** One of several values, each with its share. */
    DISCRETE("discrete", "values and as many shares", 2),
    /** A table of values with the share of those up to each; between two of them straight. */
    EMPIRICAL("empirical", "values and the share up to each", 2),
    /** 1 with a share, otherwise 0. */
    CHANCE("chance", "share", 1, 1);

    private final String name;
    private final String parameters;
    private final int arity;
    private final int plain;

    Distribution(String name, String parameters, int arity) {
        this(name, parameters, arity, 0);
    }

    Distribution(String name, String parameters, int arity, int plain) {
        this.name = name;
        this.parameters = parameters;
        this.arity = arity;
        this.plain = plain;
    }

    public String functionName() {
        return name;
    }

    /** In words, for messages. */
    public String parameters() {
        return parameters;
    }

    public int arity() {
        return arity;
    }

    /** Whether it takes two lists of equal length. */
    public boolean isTable() {
        return this == DISCRETE || this == EMPIRICAL;
    }

    /** Whether a parameter is a plain number; the others have the dimension of what is drawn. */
    boolean isPlain(int parameter) {
        return isTable() ? parameter == 1 : parameter < plain;
    }

    /** Whether what is drawn is a plain number, whatever the parameters are. */
    boolean givesNumber() {
        return this == BETA || this == POISSON || this == BINOMIAL;
    }
}
