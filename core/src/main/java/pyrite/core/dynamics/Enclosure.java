package pyrite.core.dynamics;

/** Bounds of a quantity between two instants, and of its first and second time derivatives. */
public final class Enclosure {
    private final Jet jet;
    private final double noise;

    /** @param jet what contains its value and derivatives throughout */
    Enclosure(Jet jet, double noise) {
        this.jet = jet;
        this.noise = noise;
    }

    /**
     * The width of the value's bounds at the middle instant alone. Bounds cannot become narrower than that, however
     * short the time between the instants.
     */
    public double noise() {
        return noise;
    }

    /** Whether no value in the bounds is outside the domain of what computes it, and none is infinite. */
    public boolean isBounded() {
        return !jet.value().isPartial() && jet.value().isBounded();
    }

    /** Whether the value has finite bounds, although some of what computes it may be at the edge of a domain. */
    public boolean isFinite() {
        return jet.value().isBounded();
    }

    /** A lower bound of the value. */
    public double low() {
        return jet.value().low();
    }

    /** An upper bound of the value. */
    public double high() {
        return jet.value().high();
    }

    /** The largest absolute value in the bounds. */
    public double magnitude() {
        return jet.value().magnitude();
    }

    /** Whether the quantity surely never falls, or surely never rises. */
    public boolean isMonotone() {
        return isRising() || isFalling();
    }

    /** Whether the quantity surely never falls. */
    boolean isRising() {
        return isBounded() && jet.rate().low() >= 0;
    }

    /** Whether the quantity surely never rises. */
    boolean isFalling() {
        return isBounded() && jet.rate().high() <= 0;
    }

    /** Whether the quantity surely has no kink and no jump. */
    public boolean isSmooth() {
        return isBounded() && jet.rate().isBounded() && jet.curvature().isBounded();
    }

    /** Whether the quantity is surely convex, so that it has one minimum at most between the ends. */
    public boolean isConvex() {
        return isBounded() && jet.rate().isBounded() && jet.curvature().low() >= 0;
    }

    /** Whether the quantity is surely concave, so that it is smallest at an end. */
    public boolean isConcave() {
        return isBounded() && jet.rate().isBounded() && jet.curvature().high() <= 0;
    }

    public Enclosure negated() {
        return new Enclosure(jet.negated(), noise);
    }

    Enclosure smaller(Enclosure other) {
        return new Enclosure(jet.smaller(other.jet), Math.max(noise, other.noise));
    }
}
