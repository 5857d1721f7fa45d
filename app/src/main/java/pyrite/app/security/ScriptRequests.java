package pyrite.app.security;

import jakarta.servlet.http.HttpServletRequest;

/** Distinguishes requests of the pages' scripts, which expect a status and JSON, from a person opening a page. */
public final class ScriptRequests {
    private ScriptRequests() {}

    public static boolean asked(HttpServletRequest request) {
        return "fetch".equals(request.getHeader("X-Requested-With"))
                || request.getRequestURI().startsWith("/api/");
    }
}
