package pyrite.core.model;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;

/**
 * What an element may have besides kind, owner and names. Each property has one type of value; {@link Shape} says which,
 * so that storing, comparing and printing need no case for each property.
 */
public final class Property<T> implements Comparable<Property<?>> {
    /** The types of values. */
    public enum Shape { TEXT, FLAG, REFERENCE, REFERENCES, EXPRESSION, VALUE, MULTIPLICITY, CHOICE }

    public static final Property<List<Reference>> TYPES = new Property<>("types", Shape.REFERENCES);
    /** Subclassification of definitions, subsetting of usages: both are written {@code :>}. */
    public static final Property<List<Reference>> SPECIALIZES = new Property<>("specializes", Shape.REFERENCES);
    public static final Property<List<Reference>> REDEFINES = new Property<>("redefines", Shape.REFERENCES);
    public static final Property<Multiplicity> MULTIPLICITY = new Property<>("multiplicity", Shape.MULTIPLICITY);
    public static final Property<FeatureValue> VALUE = new Property<>("value", Shape.VALUE);
    /** {@code in}, {@code out}, {@code inout} or {@code return}. */
    public static final Property<String> DIRECTION = new Property<>("direction", Shape.CHOICE);
    public static final Property<Boolean> ABSTRACT = new Property<>("abstract", Shape.FLAG);
    /** {@code public}, {@code protected} or {@code private}, where it is written. */
    public static final Property<String> VISIBILITY = new Property<>("visibility", Shape.CHOICE);
    /** The body of documentation and comments. */
    public static final Property<String> TEXT = new Property<>("text", Shape.TEXT);
    /** The expression a constraint or calculation comes to. */
    public static final Property<Expression> RESULT = new Property<>("result", Shape.EXPRESSION);
    /** What is imported, satisfied or verified. */
    public static final Property<Reference> TARGET = new Property<>("target", Shape.REFERENCE);
    /** How far an import reaches: {@code one}, {@code members} ({@code ::*}) or {@code all} ({@code ::**}). */
    public static final Property<String> REACH = new Property<>("reach", Shape.CHOICE);
    /** The part that satisfies a requirement. */
    public static final Property<Reference> BY = new Property<>("by", Shape.REFERENCE);
    /** The two ends of a binding. */
    public static final Property<Reference> LEFT = new Property<>("left", Shape.REFERENCE);
    public static final Property<Reference> RIGHT = new Property<>("right", Shape.REFERENCE);
    /** Lines of {@code // notes} before the element, and the one behind its first line. */
    public static final Property<String> NOTES = new Property<>("notes", Shape.TEXT);
    public static final Property<String> TRAILING_NOTE = new Property<>("trailingNote", Shape.TEXT);

    private static final Map<String, Property<?>> BY_KEY = Stream.<Property<?>>of(TYPES, SPECIALIZES, REDEFINES,
            MULTIPLICITY, VALUE, DIRECTION, ABSTRACT, VISIBILITY, TEXT, RESULT, TARGET, REACH, BY, LEFT, RIGHT, NOTES,
            TRAILING_NOTE).collect(Collectors.toUnmodifiableMap(Property::key, Function.identity()));

    private final String key;
    private final Shape shape;

    private Property(String key, Shape shape) {
        this.key = key;
        this.shape = shape;
    }

    public String key() {
        return key;
    }

    public Shape shape() {
        return shape;
    }

    public static @Nullable Property<?> withKey(String key) {
        return BY_KEY.get(key);
    }

    @Override
    public int compareTo(Property<?> other) {
        return key.compareTo(other.key);
    }

    @Override
    public String toString() {
        return key;
    }
}
