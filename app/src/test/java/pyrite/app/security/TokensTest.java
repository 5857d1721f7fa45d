package pyrite.app.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import pyrite.app.store.Person;
import pyrite.app.store.TokenMapper;

class TokensTest {
    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");
    private final TokenMapper mapper = mock(TokenMapper.class);
    private final Tokens tokens = new Tokens(mapper, mock(Audit.class), () -> NOW);
    private final Person ines = new Person(7, "ines", "Ines Marl", "-", Person.Role.ENGINEER, true);

    @Test
    void onlyTheHashIsKeptAndItFindsTheHolder() {
        String token = tokens.make(ines, "build server", 30);
        ArgumentCaptor<String> hash = ArgumentCaptor.forClass(String.class);
        verify(mapper).add(eq(7L), eq("build server"), hash.capture(), eq(NOW), eq(NOW.plus(Duration.ofDays(30))));
        assertThat(token).startsWith("pyr_").hasSizeGreaterThan(40);
        assertThat(hash.getValue()).hasSize(64).doesNotContain(token.substring(4));
        when(mapper.holder(hash.getValue(), NOW)).thenReturn(Optional.of("ines"));
        assertThat(tokens.holder(token)).contains("ines");
        assertThat(tokens.holder(token + "x")).isEmpty();
        verify(mapper).used(hash.getValue(), NOW);
    }

    @Test
    void noTwoTokensAreTheSame() {
        assertThat(tokens.make(ines, "a", 1)).isNotEqualTo(tokens.make(ines, "a", 1));
    }

    @Test
    void aTokenSaysWhatItIsForAndLastsAYearAtMost() {
        assertThatThrownBy(() -> tokens.make(ines, " ", 30)).hasMessageContaining("what the token is for");
        assertThatThrownBy(() -> tokens.make(ines, "x", 0)).hasMessageContaining("1 to 366 days");
        assertThatThrownBy(() -> tokens.make(ines, "x", 367)).hasMessageContaining("1 to 366 days");
        verify(mapper, org.mockito.Mockito.never()).add(anyLong(), any(), any(), any(), any());
    }
}
