package pyrite.app.security;

import java.time.InstantSource;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import pyrite.app.store.AuditMapper;

/** Records sign-ins, failed attempts, and changes to people and projects. */
@Service
public class Audit {
    private static final int LONGEST_NAME = 60;
    private static final int LONGEST_ABOUT = 500;

    private final AuditMapper mapper;
    private final InstantSource clock;

    Audit(AuditMapper mapper, InstantSource clock) {
        this.mapper = mapper;
        this.clock = clock;
    }

    /** Notes that somebody did something; the place is that of the request at hand. */
    public void note(String signIn, String act, String about) {
        mapper.add(new AuditMapper.Entry(
                clock.instant(), cut(signIn, LONGEST_NAME), act, cut(about, LONGEST_ABOUT), address()));
    }

    /** @param who whose entries, all if empty */
    public List<AuditMapper.Entry> newest(String who, int most) {
        return mapper.newest(who, most);
    }

    private static String cut(String text, int longest) {
        return text.length() <= longest ? text : text.substring(0, longest - 1) + "…";
    }

    private static String address() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes attributes
                ? cut(attributes.getRequest().getRemoteAddr(), LONGEST_NAME)
                : "this machine";
    }
}
