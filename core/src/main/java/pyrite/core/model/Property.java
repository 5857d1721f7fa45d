package pyrite.core.model;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;

/**
 * A property that elements may have beside kind, owner and names. Each property has one type of value, its
 * {@link Shape}, so storing, comparing and printing need no code per property.
 */
public final class Property<T> implements Comparable<Property<?>> {
    /** The types of values. */
    public enum Shape {
        TEXT,
        FLAG,
        REFERENCE,
        REFERENCES,
        EXPRESSION,
        VALUE,
        MULTIPLICITY,
        CHOICE
    }

    private static final Map<String, Property<?>> BY_KEY = new HashMap<>();

    public static final Property<List<Reference>> TYPES = references("types");
    /** Whether a port is typed by the conjugate of its type: {@code : ~P}. */
    public static final Property<Boolean> CONJUGATED = flag("conjugated");
    /** Subclassification of definitions, subsetting of usages: both are written {@code :>}. */
    public static final Property<List<Reference>> SPECIALIZES = references("specializes");

    public static final Property<List<Reference>> REDEFINES = references("redefines");
    /** Reference subsetting, {@code ::>}. */
    public static final Property<List<Reference>> REFERS = references("refers");
    /** Cross subsetting, {@code =>}. */
    public static final Property<List<Reference>> CROSSES = references("crosses");

    public static final Property<Multiplicity> MULTIPLICITY = new Property<>("multiplicity", Shape.MULTIPLICITY);
    /** A multiplicity that is not written in numbers: one expression, or a range of two. */
    public static final Property<Expression> BOUNDS = expression("bounds");

    public static final Property<FeatureValue> VALUE = new Property<>("value", Shape.VALUE);
    /** {@code in}, {@code out}, {@code inout} or {@code return}. */
    public static final Property<String> DIRECTION = choice("direction");

    public static final Property<Boolean> ABSTRACT = flag("abstract");
    public static final Property<Boolean> VARIATION = flag("variation");
    public static final Property<Boolean> VARIANT = flag("variant");
    public static final Property<Boolean> DERIVED = flag("derived");
    /** {@code constant} or {@code readonly}, whichever is written. */
    public static final Property<String> CONSTANT = choice("constant");

    public static final Property<Boolean> END = flag("end");
    /** How many there are of an end for each of the other ends, written before its keyword: {@code end [1] part}. */
    public static final Property<Multiplicity> CROSS_MULTIPLICITY =
            new Property<>("crossMultiplicity", Shape.MULTIPLICITY);

    public static final Property<Boolean> REFERENTIAL = flag("ref");
    public static final Property<Boolean> INDIVIDUAL = flag("individual");
    /** {@code snapshot} or {@code timeslice}. */
    public static final Property<String> PORTION = choice("portion");

    public static final Property<Boolean> ORDERED = flag("ordered");
    public static final Property<Boolean> NONUNIQUE = flag("nonunique");
    public static final Property<Boolean> PARALLEL = flag("parallel");
    /** {@code assert not}, {@code not satisfy}. */
    public static final Property<Boolean> NEGATED = flag("negated");
    /** Whether a step follows the one written before it: {@code then}. */
    public static final Property<Boolean> THEN = flag("then");

    public static final Property<Boolean> ELSE = flag("else");
    /** What an action is to its state: {@code entry}, {@code do} or {@code exit}. */
    public static final Property<String> ROLE = choice("role");

    public static final Property<Boolean> STANDARD = flag("standard");
    /** {@code public}, {@code protected} or {@code private}, where it is written. */
    public static final Property<String> VISIBILITY = choice("visibility");
    /** The metadata an element is marked with before its keyword: {@code #safety}. */
    public static final Property<List<Reference>> MARKS = references("marks");
    /** The body of documentation and comments. */
    public static final Property<String> TEXT = new Property<>("text", Shape.TEXT);

    public static final Property<String> LANGUAGE = new Property<>("language", Shape.TEXT);
    public static final Property<String> LOCALE = new Property<>("locale", Shape.TEXT);
    /** What a comment or metadata is about, where that is not its owner. */
    public static final Property<List<Reference>> ABOUT = references("about");
    /** The expression a constraint or calculation comes to. */
    public static final Property<Expression> RESULT = expression("result");
    /** What is imported, satisfied, verified, performed, connected, or where a step leads to. */
    public static final Property<Reference> TARGET = reference("target");
    /** Where a flow, a succession or a transition comes from. */
    public static final Property<Reference> SOURCE = reference("source");
    /**
     * How far an import reaches: {@code one}, {@code members} ({@code ::*}), {@code self} ({@code ::**}) or {@code all}
     * ({@code ::*::**}).
     */
    public static final Property<String> REACH = choice("reach");
    /** Whether an import brings in what is private too: {@code import all}. */
    public static final Property<Boolean> ALL = flag("all");
    /** What an import or an exposed set is narrowed to. */
    public static final Property<Expression> FILTER = expression("filter");
    /** The part that satisfies a requirement. */
    public static final Property<Reference> BY = reference("by");
    /** The two ends of a binding. */
    public static final Property<Reference> LEFT = reference("left");

    public static final Property<Reference> RIGHT = reference("right");
    /** How many of each end of a binding are bound to one of the other: {@code bind [1] a = [1] b}. */
    public static final Property<Multiplicity> LEFT_MULTIPLICITY =
            new Property<>("leftMultiplicity", Shape.MULTIPLICITY);

    public static final Property<Multiplicity> RIGHT_MULTIPLICITY =
            new Property<>("rightMultiplicity", Shape.MULTIPLICITY);
    /** Which of several types of a port are conjugated, where not all are: {@code : P, ~Q}. */
    public static final Property<List<Reference>> CONJUGATES = references("conjugates");

    public static final Property<List<Reference>> CLIENTS = references("clients");
    public static final Property<List<Reference>> SUPPLIERS = references("suppliers");
    /** The condition under which a step or a transition is taken. */
    public static final Property<Expression> GUARD = expression("guard");
    /** The condition of an {@code if} or {@code while}, the sequence of a {@code for}. */
    public static final Property<Expression> CONDITION = expression("condition");

    public static final Property<Expression> UNTIL = expression("until");
    /**
     * What is accepted: {@code accept}, or a {@code when}, {@code at} or {@code after} with the expression
     * {@link #CONTENT}.
     */
    public static final Property<String> TRIGGER = choice("trigger");
    /** What is sent, or what a trigger waits for. */
    public static final Property<Expression> CONTENT = expression("content");

    public static final Property<Expression> VIA = expression("via");
    public static final Property<Expression> RECEIVER = expression("receiver");
    /** Lines of {@code // notes} before the element, and the one behind its first line. */
    public static final Property<String> NOTES = new Property<>("notes", Shape.TEXT);

    public static final Property<String> TRAILING_NOTE = new Property<>("trailingNote", Shape.TEXT);
    /** Names in the declaration as its author wrote them, where a reader could not tell; see {@link SpelledNames}. */
    public static final Property<String> SPELLINGS = new Property<>("spellings", Shape.TEXT);

    private static Property<Boolean> flag(String key) {
        return new Property<>(key, Shape.FLAG);
    }

    private static Property<String> choice(String key) {
        return new Property<>(key, Shape.CHOICE);
    }

    private static Property<Reference> reference(String key) {
        return new Property<>(key, Shape.REFERENCE);
    }

    private static Property<List<Reference>> references(String key) {
        return new Property<>(key, Shape.REFERENCES);
    }

    private static Property<Expression> expression(String key) {
        return new Property<>(key, Shape.EXPRESSION);
    }

    static {
        int place = 0;
        for (String key : new java.util.TreeSet<>(BY_KEY.keySet())) {
            Objects.requireNonNull(BY_KEY.get(key)).place = place++;
        }
    }

    private final String key;
    private final Shape shape;
    /** Its place among all properties in the order of their keys, by which they are compared quickly. */
    private int place;

    private Property(String key, Shape shape) {
        this.key = key;
        this.shape = shape;
        BY_KEY.put(key, this);
    }

    public String key() {
        return key;
    }

    public Shape shape() {
        return shape;
    }

    /** Its place among all properties, from 0. */
    int place() {
        return place;
    }

    /** All properties, in no particular order. */
    public static java.util.Collection<Property<?>> all() {
        return java.util.Collections.unmodifiableCollection(BY_KEY.values());
    }

    public static @Nullable Property<?> withKey(String key) {
        return BY_KEY.get(key);
    }

    @Override
    public int compareTo(Property<?> other) {
        return Integer.compare(place, other.place);
    }

    @Override
    public String toString() {
        return key;
    }
}
