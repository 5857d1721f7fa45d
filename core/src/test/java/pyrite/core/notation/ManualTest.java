package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;

/** What docs/notation.md shows is read, written and read again as the same. */
public class ManualTest {
    private static final Pattern BLOCK =
            Pattern.compile("## ([^\n]+)\n+(?:[^`#][^\n]*\n+)*```sysml\n(.*?)```", Pattern.DOTALL);

    private static final List<String> NAMES =
            List.of("plain", "part", "a b", "it's", "ünï", "back\\\\slash", "1st", "flow", "two\\nlines", "x::y", "°");
    private static final Set<ElementKind> SWAPPABLE = EnumSet.of(
            ElementKind.PART,
            ElementKind.ATTRIBUTE,
            ElementKind.PART_DEFINITION,
            ElementKind.ITEM,
            ElementKind.PORT,
            ElementKind.REQUIREMENT,
            ElementKind.CONSTRAINT,
            ElementKind.ENUMERATION);

    /** One block of the page, under its heading. */
    public record Example(String heading, String text) {
        @Override
        public String toString() {
            return heading;
        }

        public Model read() {
            return text.startsWith("package") ? Models.read(text) : Models.of(text);
        }
    }

    public static Stream<Example> examples() throws IOException {
        Matcher matcher = BLOCK.matcher(Files.readString(Path.of("../docs/notation.md")));
        List<Example> examples = new ArrayList<>();
        while (matcher.find()) {
            examples.add(new Example(matcher.group(1), matcher.group(2)));
        }
        assertThat(examples).hasSizeGreaterThan(8);
        return examples.stream();
    }

    private static String written(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    /** Kinds, names and properties from the top down, with what is referred to by name. */
    private static List<String> shape(Model model) {
        return model.ownRoots().stream()
                .flatMap(root -> model.subtree(root.id()).stream())
                .map(element -> line(model, element))
                .toList();
    }

    private static String line(Model model, Element element) {
        return element.kind() + " " + model.names().qualifiedName(element) + " " + element.shortName() + " "
                + element.with(pyrite.core.model.Property.SPELLINGS, null).properties().entrySet().stream()
                        .filter(e -> e.getValue() instanceof Boolean
                                || e.getValue() instanceof String
                                || e.getValue() instanceof Multiplicity)
                        .map(Object::toString)
                        .collect(Collectors.joining(", "))
                + " "
                + element.with(pyrite.core.model.Property.SPELLINGS, null)
                        .properties()
                        .keySet() + " "
                + element.outgoing().stream()
                        .map(id -> model.names().qualifiedName(model.get(id)))
                        .toList();
    }

    @ParameterizedTest
    @MethodSource("examples")
    void everyExampleIsReadWrittenAndReadAgainAsTheSame(Example example) {
        Model first = example.read();
        String text = written(first);
        Model second = Models.read(text);
        assertThat(written(second)).isEqualTo(text);
        assertThat(shape(second)).isEqualTo(shape(first));
    }

    /**
     * Every kind of element under any name, in any order, with notes and visibility: what is written is read as the
     * same.
     */
    @Property(tries = 300)
    void whateverBecomesOfTheExamplesIsReadAsItIsWritten(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        List<Example> all = examples().toList();
        Model model = all.get(random.nextInt(all.size())).read();
        for (int i = 0; i < 6; i++) {
            model = changed(model, random, i);
        }
        String text = written(model);
        Model again = Models.read(text);
        assertThat(written(again)).isEqualTo(text);
        assertThat(shape(again)).isEqualTo(shape(model));
    }

    private static Model changed(Model model, Random random, int number) {
        List<Element> elements = model.ownRoots().stream()
                .flatMap(root -> model.subtree(root.id()).stream())
                .toList();
        Element element = elements.get(random.nextInt(elements.size()));
        if (element.owner() != null && !ownsInBody(model.get(element.owner()))) {
            return model;
        }
        List<Element> siblings = element.owner() == null ? List.of(element) : model.children(element.owner());
        Element other = siblings.get(random.nextInt(siblings.size()));
        Edit edit = switch (random.nextInt(4)) {
            case 0 ->
                element.name() == null
                        ? Edit.put(element)
                        : Edit.put(element.withName(NAMES.get(random.nextInt(NAMES.size())) + number));
            case 1 -> Edit.put(element.with(pyrite.core.model.Property.NOTES, "a note\nof two lines"));
            case 2 ->
                Edit.put(element.with(pyrite.core.model.Property.VISIBILITY, random.nextBoolean() ? "public" : null));
            default ->
                canSwap(element, other)
                        ? Edit.put(
                                element.withOwner(element.owner(), other.rank()),
                                other.withOwner(other.owner(), element.rank()))
                        : Edit.put(element);
        };
        return model.apply(edit) instanceof EditResult.Applied(Model next, var _) ? next : model;
    }

    private static boolean ownsInBody(Element owner) {
        return owner.kind() != ElementKind.TRANSITION && owner.kind() != ElementKind.IF;
    }

    /** Steps that follow what stands before them, and the parts of heads, keep their place. */
    private static boolean canSwap(Element a, Element b) {
        return !a.equals(b) && SWAPPABLE.contains(a.kind()) && SWAPPABLE.contains(b.kind());
    }

    @Test
    void everyPackageOfTheLibraryIsNamed() throws IOException {
        String page = Files.readString(Path.of("../docs/notation.md"));
        assertThat(Library.model().roots()).allSatisfy(root -> assertThat(page).contains("`" + root.name() + "`"));
    }

    @Test
    void everyTestThatThePageNamesIsThere() throws IOException {
        String page = Files.readString(Path.of("../docs/notation.md"));
        List<String> named = Pattern.compile("`(\\w+Test)`")
                .matcher(page)
                .results()
                .map(found -> found.group(1) + ".java")
                .distinct()
                .toList();
        try (Stream<Path> files = Files.walk(Path.of("src/test/java"))) {
            assertThat(files.map(file -> file.getFileName().toString())).containsAll(named);
        }
        assertThat(named).hasSizeGreaterThan(10);
    }

    @Test
    void everyKindOfElementIsShown() throws IOException {
        Set<ElementKind> shown = EnumSet.noneOf(ElementKind.class);
        examples().forEach(example -> example.read().ownElements().forEach(element -> shown.add(element.kind())));
        assertThat(EnumSet.complementOf(EnumSet.copyOf(shown))).isEmpty();
    }
}
