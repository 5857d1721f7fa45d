package pyrite.core.execution;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.distribution.continuous.BetaDistribution;
import org.hipparchus.distribution.continuous.GammaDistribution;
import org.hipparchus.distribution.continuous.LogNormalDistribution;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.continuous.TriangularDistribution;
import org.hipparchus.distribution.continuous.WeibullDistribution;
import org.hipparchus.distribution.discrete.BinomialDistribution;
import org.hipparchus.distribution.discrete.PoissonDistribution;
import org.hipparchus.random.Well19937c;
import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.Moment;
import pyrite.core.dynamics.Term;

/**
 * Draws values. Each place in a model where something is drawn has a stream of its own, made from the seed of the run
 * and the name of the place: adding a place leaves all others as they were. Values come from uniform numbers by the
 * inverse of the distribution function, so that the same number means the same chance under another parameter.
 */
final class RandomStreams {
    private final long seed;
    private final int replication;
    private final Map<String, Well19937c> streams = new HashMap<>();
    private final Map<Draw, Sampler> samplers = new IdentityHashMap<>();

    /** The inverse distribution function for certain parameters. */
    private record Sampler(double[] parameters, DoubleUnaryOperator inverse) {}

    RandomStreams(long seed, int replication) {
        this.seed = seed;
        this.replication = replication;
    }

    /** A value, with the parameters that a draw has now, coherent SI. */
    double next(Draw draw, Moment moment) {
        return quantile(
                draw,
                moment,
                streams.computeIfAbsent(draw.source(), this::stream).nextDouble());
    }

    /** The value below which a draw stays with a probability. */
    double quantile(Draw draw, Moment moment, double u) {
        double[] parameters = values(draw.parameters(), moment);
        double[] shares = values(draw.shares(), moment);
        if (draw.distribution().isTable()) {
            return Tables.of(draw, parameters, shares, u);
        }
        Sampler known = samplers.get(draw);
        if (known == null || !java.util.Arrays.equals(known.parameters, parameters)) {
            known = new Sampler(parameters, inverse(draw, parameters));
            samplers.put(draw, known);
        }
        return known.inverse.applyAsDouble(u);
    }

    private static double[] values(List<Term> terms, Moment moment) {
        double[] values = new double[terms.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = moment.value(terms.get(i));
        }
        return values;
    }

    /** Seeded with the digest of seed and name, so that streams are independent for all that is known. */
    private Well19937c stream(String source) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(ByteBuffer.allocate(Long.BYTES + Integer.BYTES)
                    .putLong(seed)
                    .putInt(replication)
                    .array());
            ByteBuffer bytes = ByteBuffer.wrap(digest.digest(source.getBytes(StandardCharsets.UTF_8)));
            int[] words = new int[bytes.capacity() / Integer.BYTES];
            for (int i = 0; i < words.length; i++) {
                words[i] = bytes.getInt();
            }
            return new Well19937c(words);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static DoubleUnaryOperator inverse(Draw draw, double[] p) {
        Requirements given = new Requirements(draw, p);
        return switch (draw.distribution()) {
            case UNIFORM -> {
                given.require(p[0] <= p[1], "low is at most high");
                yield u -> p[0] + u * (p[1] - p[0]);
            }
            case TRIANGULAR -> {
                given.require(p[0] <= p[1] && p[1] <= p[2] && p[0] < p[2], "low, mode and high come in this order");
                yield new TriangularDistribution(p[0], p[1], p[2])::inverseCumulativeProbability;
            }
            case NORMAL -> {
                given.require(p[1] >= 0, "the deviation is not negative");
                yield p[1] == 0 ? _ -> p[0] : u -> p[0] + p[1] * Standard.normal(u);
            }
            case TRUNCATED_NORMAL -> {
                given.require(p[1] > 0 && p[2] < p[3], "the deviation is positive and low is less than high");
                NormalDistribution whole = new NormalDistribution(p[0], p[1]);
                double low = whole.cumulativeProbability(p[2]);
                double high = whole.cumulativeProbability(p[3]);
                given.require(high > low, "the mean is not so far outside of low and high that nothing is left");
                yield u -> Math.clamp(whole.inverseCumulativeProbability(low + u * (high - low)), p[2], p[3]);
            }
            case LOGNORMAL -> {
                given.require(p[0] > 0 && p[1] > 0, "mean and deviation are positive");
                double variance = Math.log1p(p[1] * p[1] / (p[0] * p[0]));
                yield new LogNormalDistribution(Math.log(p[0]) - variance / 2, Math.sqrt(variance))
                        ::inverseCumulativeProbability;
            }
            case EXPONENTIAL -> {
                given.require(p[0] > 0, "the mean is positive");
                yield u -> -p[0] * Math.log1p(-u);
            }
            case ERLANG -> {
                given.require(
                        p[0] >= 1 && p[0] == Math.rint(p[0]) && p[1] > 0,
                        "the stages are a whole number and the mean is positive");
                yield new GammaDistribution(p[0], p[1] / p[0])::inverseCumulativeProbability;
            }
            case GAMMA -> {
                given.require(p[0] > 0 && p[1] > 0, "shape and scale are positive");
                yield new GammaDistribution(p[0], p[1])::inverseCumulativeProbability;
            }
            case WEIBULL -> {
                given.require(p[0] > 0 && p[1] > 0, "shape and scale are positive");
                yield new WeibullDistribution(p[0], p[1])::inverseCumulativeProbability;
            }
            case BETA -> {
                given.require(p[0] > 0 && p[1] > 0, "a and b are positive");
                yield new BetaDistribution(p[0], p[1])::inverseCumulativeProbability;
            }
            case PERT -> {
                given.require(p[0] <= p[1] && p[1] <= p[2] && p[0] < p[2], "low, mode and high come in this order");
                double span = p[2] - p[0];
                BetaDistribution beta =
                        new BetaDistribution(1 + 4 * (p[1] - p[0]) / span, 1 + 4 * (p[2] - p[1]) / span);
                yield u -> p[0] + span * beta.inverseCumulativeProbability(u);
            }
            case POISSON -> {
                given.require(p[0] > 0, "the mean is positive");
                PoissonDistribution poisson = new PoissonDistribution(p[0]);
                yield u -> poisson.inverseCumulativeProbability(u);
            }
            case BINOMIAL -> {
                given.require(
                        p[0] >= 0 && p[0] == Math.rint(p[0]) && p[1] >= 0 && p[1] <= 1,
                        "the trials are a whole number and the share is from 0 to 1");
                BinomialDistribution binomial = new BinomialDistribution((int) p[0], p[1]);
                yield u -> binomial.inverseCumulativeProbability(u);
            }
            case CHANCE -> {
                given.require(p[0] >= 0 && p[0] <= 1, "a share is from 0 to 1");
                yield u -> u < p[0] ? 1 : 0;
            }
            case DISCRETE, EMPIRICAL -> throw new IllegalStateException("drawn from a table");
        };
    }

    /** Says what is wrong with parameters, in words. */
    private record Requirements(Draw draw, double[] parameters) {
        void require(boolean holds, String rule) {
            if (!holds) {
                List<String> given = new ArrayList<>();
                for (double parameter : parameters) {
                    given.add(Double.toString(parameter));
                }
                throw new ImpossibleDraw(draw.distribution().functionName() + " cannot be drawn with "
                        + String.join(", ", given) + ": " + rule);
            }
        }
    }

    /** The parameters of a distribution make no sense. */
    static final class ImpossibleDraw extends RuntimeException {
        ImpossibleDraw(String message) {
            super(message);
        }
    }

    private static final class Standard {
        private static final NormalDistribution NORMAL = new NormalDistribution(0, 1);

        static double normal(double u) {
            return NORMAL.inverseCumulativeProbability(Math.max(u, Double.MIN_NORMAL));
        }
    }

    private static final class Tables {
        private static final double WHOLE = 1e-9;

        static double of(Draw draw, double[] values, double[] shares, double u) {
            Requirements given = new Requirements(draw, shares);
            given.require(values.length == shares.length && values.length > 0, "there are as many shares as values");
            return draw.distribution() == pyrite.core.expression.Distribution.DISCRETE
                    ? discrete(given, values, shares, u)
                    : empirical(given, values, shares, u);
        }

        private static double discrete(Requirements given, double[] values, double[] shares, double u) {
            double sum = 0;
            for (double share : shares) {
                given.require(share >= 0, "no share is negative");
                sum += share;
            }
            given.require(Math.abs(sum - 1) <= WHOLE, "the shares add up to 1");
            double upTo = 0;
            for (int i = 0; i < values.length; i++) {
                upTo += shares[i];
                if (u < upTo) {
                    return values[i];
                }
            }
            return values[values.length - 1];
        }

        private static double empirical(Requirements given, double[] values, double[] shares, double u) {
            for (int i = 1; i < values.length; i++) {
                given.require(values[i] >= values[i - 1] && shares[i] >= shares[i - 1], "values and shares ascend");
            }
            given.require(Math.abs(shares[shares.length - 1] - 1) <= WHOLE && shares[0] >= 0, "the last share is 1");
            if (u <= shares[0]) {
                return values[0];
            }
            for (int i = 1; i < values.length; i++) {
                if (u <= shares[i]) {
                    double within = (u - shares[i - 1]) / (shares[i] - shares[i - 1]);
                    return values[i - 1] + within * (values[i] - values[i - 1]);
                }
            }
            return values[values.length - 1];
        }
    }
}
