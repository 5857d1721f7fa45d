package pyrite.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;

/**
 * Bytes that hold many elements. That every property survives is tested with the rows, in {@link ElementContentTest}.
 */
class CheckpointTest {
    private static final Element OWNER =
            Element.of(ElementKind.PART_DEFINITION, null, Rank.between(null, null), "ünïcode ✓ 𝄞");
    private static final List<Element> FEW = List.of(
            OWNER,
            Element.of(ElementKind.PART, OWNER.id(), Rank.between(null, null), "a")
                    .with(Property.ABSTRACT, true),
            Element.of(ElementKind.PART, OWNER.id(), Rank.between(null, null), null)
                    .with(Property.ABSTRACT, true));
    private static final byte[] BYTES = CheckpointWriter.write(FEW);

    @Test
    void whatIsEqualBecomesOneObject() {
        List<Element> read = CheckpointReader.read(BYTES);
        assertThat(read).isEqualTo(FEW);
        assertThat(read.get(1).owner()).isSameAs(read.get(0).id());
        assertThat(read.get(1).properties()).isSameAs(read.get(2).properties());
        assertThat(read.get(1).rank()).isSameAs(read.get(2).rank());
    }

    @Test
    void noElementsAreAPieceToo() {
        assertThat(CheckpointReader.read(CheckpointWriter.write(List.of()))).isEmpty();
    }

    @Test
    void anotherVersionIsNotRead() {
        byte[] later = BYTES.clone();
        later[0]++;
        assertThatThrownBy(() -> CheckpointReader.read(later))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("it is of version 2");
    }

    @Test
    void whatBreaksOffAnywhereIsRefused() {
        for (int length = 0; length < BYTES.length; length++) {
            byte[] broken = Arrays.copyOf(BYTES, length);
            assertThatThrownBy(() -> CheckpointReader.read(broken)).isInstanceOf(IllegalStateException.class);
        }
    }

    /**
     * Whatever byte stands wherever instead: elements are read, or it is refused; nothing else is thrown, and no memory
     * is asked for that is not there.
     */
    @Test
    void anyChangedByteIsReadOrRefused() {
        for (int place = 0; place < BYTES.length; place++) {
            for (int other = Byte.MIN_VALUE; other <= Byte.MAX_VALUE; other++) {
                byte[] changed = BYTES.clone();
                changed[place] = (byte) other;
                try {
                    CheckpointReader.read(changed);
                } catch (IllegalStateException refused) {
                    assertThat(refused.getMessage()).startsWith("it ");
                }
            }
        }
    }
}
