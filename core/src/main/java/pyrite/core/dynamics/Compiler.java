package pyrite.core.dynamics;

import static java.lang.constant.ConstantDescs.CD_double;
import static java.lang.constant.ConstantDescs.CD_void;

import java.lang.classfile.ClassFile;
import java.lang.classfile.CodeBuilder;
import java.lang.classfile.Label;
import java.lang.constant.ClassDesc;
import java.lang.constant.ConstantDescs;
import java.lang.constant.MethodTypeDesc;
import java.lang.invoke.MethodHandles;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import pyrite.core.expression.MathFunction;

/**
 * Compiles a sorted system to a Java class with the class-file API. The assignments are spread over methods small
 * enough for the just-in-time compiler (it leaves methods over 8,000 bytes of bytecode alone).
 */
public final class Compiler {
    /** Terms of about 4 bytes of bytecode each that go into one method. */
    private static final int NODES_A_METHOD = 1200;
    /** One term of more nodes than this would not fit the 64 KB that a method may have. */
    private static final int LARGEST_TERM = 10_000;

    private static final ClassDesc MATH = ClassDesc.of("java.lang.Math");
    private static final ClassDesc DOUBLES = CD_double.arrayType();
    private static final ClassDesc BOOLEANS = ConstantDescs.CD_boolean.arrayType();
    private static final MethodTypeDesc EVALUATE = MethodTypeDesc.of(CD_void, CD_double, DOUBLES, BOOLEANS);
    private static final MethodTypeDesc MARGINS = MethodTypeDesc.of(CD_void, CD_double, DOUBLES, BOOLEANS, DOUBLES);
    private static final MethodTypeDesc ONE_TO_ONE = MethodTypeDesc.of(CD_double, CD_double);
    private static final MethodTypeDesc TWO_TO_ONE = MethodTypeDesc.of(CD_double, CD_double, CD_double);
    // Local variables of an instance method with the parameters (double t, double[] v, boolean[] modes, double[]
    // margins).
    private static final int T = 1;
    private static final int V = 3;
    private static final int MODES = 4;
    private static final int OUT = 5;

    private final ClassDesc self = ClassDesc.of("pyrite.core.dynamics.CompiledKernel");

    private Compiler() {}

    /**
     * One value to be computed and stored at an index of an array.
     *
     * @param kinksByValue whether kinks are decided by the values instead of the modes
     */
    private record Store(int array, int index, Term term, boolean kinksByValue) {}

    public static Kernel compile(SortedSystem system) {
        List<Store> evaluations = evaluations(system, false);
        List<Store> margins = new ArrayList<>();
        for (Condition.Relation relation : system.flat().relations()) {
            margins.add(new Store(OUT, relation.mode(), relation.margin(), false));
        }
        boolean tooLarge = evaluations.stream().anyMatch(s -> nodes(s.term()) > LARGEST_TERM)
                || margins.stream().anyMatch(s -> nodes(s.term()) > LARGEST_TERM);
        boolean hasKinks = system.flat().relations().stream().anyMatch(Condition.Relation::kink);
        List<Store> outputs = hasKinks ? evaluations(system, true) : List.of();
        return tooLarge ? InterpretedKernel.of(system) : new Compiler().build(evaluations, outputs, margins);
    }

    private static List<Store> evaluations(SortedSystem system, boolean kinksByValue) {
        return system.assignments().stream()
                .map(a -> new Store(V, a.variable(), a.term(), kinksByValue))
                .toList();
    }

    private Kernel build(List<Store> evaluations, List<Store> outputs, List<Store> margins) {
        byte[] bytes = ClassFile.of().build(self, type -> {
            type.withFlags(ClassFile.ACC_PUBLIC | ClassFile.ACC_FINAL)
                    .withInterfaceSymbols(ClassDesc.of("pyrite.core.dynamics.Kernel"))
                    .withMethodBody(
                            ConstantDescs.INIT_NAME,
                            ConstantDescs.MTD_void,
                            ClassFile.ACC_PUBLIC,
                            code -> code.aload(0)
                                    .invokespecial(
                                            ConstantDescs.CD_Object, ConstantDescs.INIT_NAME, ConstantDescs.MTD_void)
                                    .return_());
            methods(
                    "evaluate",
                    EVALUATE,
                    evaluations,
                    (name, descriptor, body) -> type.withMethodBody(name, descriptor, ClassFile.ACC_PUBLIC, body));
            if (!outputs.isEmpty()) {
                methods(
                        "output",
                        EVALUATE,
                        outputs,
                        (name, descriptor, body) -> type.withMethodBody(name, descriptor, ClassFile.ACC_PUBLIC, body));
            }
            methods(
                    "margins",
                    MARGINS,
                    margins,
                    (name, descriptor, body) -> type.withMethodBody(name, descriptor, ClassFile.ACC_PUBLIC, body));
        });
        try {
            MethodHandles.Lookup hidden = MethodHandles.lookup().defineHiddenClass(bytes, true);
            return (Kernel) hidden.lookupClass().getConstructor().newInstance();
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("a generated class was refused", e);
        }
    }

    /** Adds a method to the class under construction. */
    private interface MethodSink {
        void add(String name, MethodTypeDesc descriptor, Consumer<CodeBuilder> body);
    }

    /** A method that calls its parts, each of which stores some of the values. */
    private void methods(String name, MethodTypeDesc descriptor, List<Store> stores, MethodSink sink) {
        List<List<Store>> parts = split(stores);
        sink.add(name, descriptor, code -> {
            for (int i = 0; i < parts.size(); i++) {
                code.aload(0).dload(T).aload(V).aload(MODES);
                if (descriptor == MARGINS) {
                    code.aload(OUT);
                }
                code.invokevirtual(self, name + i, descriptor);
            }
            code.return_();
        });
        for (int i = 0; i < parts.size(); i++) {
            List<Store> part = parts.get(i);
            sink.add(name + i, descriptor, code -> {
                part.forEach(store -> store(code, store));
                code.return_();
            });
        }
    }

    private static List<List<Store>> split(List<Store> stores) {
        List<List<Store>> parts = new ArrayList<>();
        List<Store> part = new ArrayList<>();
        int size = 0;
        for (Store store : stores) {
            int own = nodes(store.term());
            if (size + own > NODES_A_METHOD && !part.isEmpty()) {
                parts.add(part);
                part = new ArrayList<>();
                size = 0;
            }
            part.add(store);
            size += own;
        }
        parts.add(part);
        return parts;
    }

    private static void store(CodeBuilder code, Store store) {
        code.aload(store.array()).loadConstant(store.index());
        load(code, store.term(), store.kinksByValue());
        code.dastore();
    }

    private static void load(CodeBuilder code, Term term, boolean kinksByValue) {
        switch (term) {
            case Term.Constant c -> code.loadConstant(c.value());
            case Term.Variable x -> code.aload(V).loadConstant(x.index()).daload();
            case Term.Time _ -> code.dload(T);
            case Term.Arithmetic a -> {
                load(code, a.left(), kinksByValue);
                load(code, a.right(), kinksByValue);
                combine(code, a.sign());
            }
            case Term.Call c -> {
                load(code, c.argument(), kinksByValue);
                code.invokestatic(MATH, javaName(c.function()), ONE_TO_ONE);
            }
            case Term.Choice c -> choice(code, c, kinksByValue);
        }
    }

    private static void combine(CodeBuilder code, Term.Sign sign) {
        switch (sign) {
            case PLUS -> code.dadd();
            case MINUS -> code.dsub();
            case TIMES -> code.dmul();
            case OVER -> code.ddiv();
            case POWER -> code.invokestatic(MATH, "pow", TWO_TO_ONE);
        }
    }

    private static void choice(CodeBuilder code, Term.Choice choice, boolean kinksByValue) {
        Label otherwise = code.newLabel();
        Label end = code.newLabel();
        if (kinksByValue && choice.condition() instanceof Condition.Relation kink && kink.kink()) {
            load(code, kink.left(), true);
            load(code, kink.right(), true);
            // Where one of them is not a number, dcmpl is -1: the relation does not hold.
            code.dcmpl();
            if (kink.strict()) {
                code.ifle(otherwise);
            } else {
                code.iflt(otherwise);
            }
        } else {
            test(code, choice.condition());
            code.ifeq(otherwise);
        }
        load(code, choice.whenTrue(), kinksByValue);
        code.goto_(end).labelBinding(otherwise);
        load(code, choice.whenFalse(), kinksByValue);
        code.labelBinding(end);
    }

    /** Leaves 1 or 0 on the stack. */
    private static void test(CodeBuilder code, Condition condition) {
        switch (condition) {
            case Condition.Fixed f -> code.loadConstant(f.holds() ? 1 : 0);
            case Condition.Relation r ->
                code.aload(MODES).loadConstant(r.mode()).baload();
            case Condition.Both b -> {
                test(code, b.left());
                test(code, b.right());
                code.iand();
            }
            case Condition.Either e -> {
                test(code, e.left());
                test(code, e.right());
                code.ior();
            }
            case Condition.Not n -> {
                test(code, n.operand());
                code.iconst_1().ixor();
            }
        }
    }

    private static String javaName(MathFunction function) {
        return switch (function) {
            case SQRT -> "sqrt";
            case SIN -> "sin";
            case COS -> "cos";
            case TAN -> "tan";
            case ARCSIN -> "asin";
            case ARCCOS -> "acos";
            case ARCTAN -> "atan";
            case EXP -> "exp";
            case LN -> "log";
            case FLOOR -> "floor";
            case ROUND -> "rint";
            case ABS, MIN, MAX -> throw new IllegalStateException(function + " is a choice by now");
        };
    }

    private static int nodes(Term term) {
        return switch (term) {
            case Term.Constant _, Term.Variable _, Term.Time _ -> 1;
            case Term.Arithmetic a -> 1 + nodes(a.left()) + nodes(a.right());
            case Term.Call c -> 1 + nodes(c.argument());
            case Term.Choice c -> 2 + nodes(c.condition()) + nodes(c.whenTrue()) + nodes(c.whenFalse());
        };
    }

    private static int nodes(Condition condition) {
        return switch (condition) {
            case Condition.Fixed _, Condition.Relation _ -> 1;
            case Condition.Both b -> 1 + nodes(b.left()) + nodes(b.right());
            case Condition.Either e -> 1 + nodes(e.left()) + nodes(e.right());
            case Condition.Not n -> 1 + nodes(n.operand());
        };
    }
}
