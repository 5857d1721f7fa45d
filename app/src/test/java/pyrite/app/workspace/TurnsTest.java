package pyrite.app.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.web.method.HandlerMethod;

/** Costly requests of one person follow each other; those of others do not wait for them. */
class TurnsTest {
    private final Turns turns = new Turns();

    @Costly
    public void costly() {}

    public void cheap() {}

    private HandlerMethod method(String name) throws Exception {
        return new HandlerMethod(this, TurnsTest.class.getMethod(name));
    }

    private static MockHttpServletRequest by(String person) {
        MockHttpServletRequest request = new MockHttpServletRequest();
        request.setUserPrincipal((Principal) () -> person);
        return request;
    }

    @Test
    void oneAtATimeAndTheRestWaitOrAreRefused() throws Exception {
        AtomicInteger atOnce = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        CountDownLatch first = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        List<MockHttpServletResponse> refused = java.util.Collections.synchronizedList(new ArrayList<>());
        CountDownLatch someRefused = new CountDownLatch(3);
        int all = Turns.MOST_WAITING + 1 + 3;
        try (ExecutorService threads = Executors.newCachedThreadPool()) {
            List<CompletableFuture<Void>> requests = new ArrayList<>();
            for (int i = 0; i < all; i++) {
                requests.add(CompletableFuture.runAsync(
                        () -> {
                            MockHttpServletRequest request = by("ines");
                            MockHttpServletResponse response = new MockHttpServletResponse();
                            try {
                                if (turns.preHandle(request, response, method("costly"))) {
                                    most.accumulateAndGet(atOnce.incrementAndGet(), Math::max);
                                    first.countDown();
                                    goOn.await();
                                    atOnce.decrementAndGet();
                                    turns.afterCompletion(request, response, method("costly"), null);
                                } else {
                                    refused.add(response);
                                    someRefused.countDown();
                                }
                            } catch (Exception e) {
                                throw new IllegalStateException(e);
                            }
                        },
                        threads));
            }
            first.await();
            someRefused.await();
            MockHttpServletRequest other = by("odo");
            assertThat(turns.preHandle(other, new MockHttpServletResponse(), method("costly")))
                    .isTrue();
            turns.afterCompletion(other, new MockHttpServletResponse(), method("costly"), null);
            assertThat(turns.preHandle(by("ines"), new MockHttpServletResponse(), method("cheap")))
                    .isTrue();
            goOn.countDown();
            requests.forEach(CompletableFuture::join);
        }
        assertThat(most).hasValue(1);
        assertThat(refused).hasSize(3).allSatisfy(response -> {
            assertThat(response.getStatus()).isEqualTo(429);
            assertThat(response.getContentAsString()).contains("ask again when it has come");
        });
        MockHttpServletRequest again = by("ines");
        assertThat(turns.preHandle(again, new MockHttpServletResponse(), method("costly")))
                .isTrue();
    }
}
