package pyrite.app.overview;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import org.springframework.stereotype.Service;
import pyrite.app.store.Person;
import pyrite.app.store.VisitMapper;
import pyrite.app.store.VisitMapper.Visit;
import pyrite.app.workspace.Workspace;

/** Records what a person has seen. Looking again within half an hour is the same visit, so a reload hides nothing. */
@Service
class Visits {
    private static final Duration PAUSE = Duration.ofMinutes(30);

    private final VisitMapper mapper;
    private final InstantSource clock;

    Visits(VisitMapper mapper, InstantSource clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /**
     * Notes that somebody looks at a branch now, and gives the newest revision at their visit before; 0 at the first.
     */
    int lastSeen(Workspace.Head head, Person person) {
        Instant now = clock.instant();
        Visit last = mapper.find(person.id(), head.branch().id()).orElse(new Visit(0, 0, Instant.EPOCH));
        int before = last.seenAt().plus(PAUSE).isBefore(now) ? last.seenNumber() : last.beforeNumber();
        mapper.put(person.id(), head.branch().id(), new Visit(before, head.number(), now));
        return before;
    }
}
