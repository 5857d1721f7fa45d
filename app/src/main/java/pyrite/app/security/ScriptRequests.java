package pyrite.app.security;

import jakarta.servlet.http.HttpServletRequest;

/** Tells the requests of the pages' own scripts, which want a status and JSON, from a person who opens a page. */
public final class ScriptRequests {
    private ScriptRequests() {}

    public static boolean asked(HttpServletRequest request) {
        return "fetch".equals(request.getHeader("X-Requested-With"))
                || request.getRequestURI().startsWith("/api/");
    }
}
