package pyrite.core.specification;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Set;

/** The addresses that a model may lead to: web pages and mail, never a script or a file. */
public final class SafeAddress {
    private static final Set<String> SCHEMES = Set.of("http", "https", "mailto");

    private SafeAddress() {}

    public static boolean isAllowed(String address) {
        try {
            URI uri = new URI(address.strip());
            return uri.getScheme() != null
                    && SCHEMES.contains(uri.getScheme().toLowerCase(Locale.ROOT))
                    && (uri.getScheme().equalsIgnoreCase("mailto")
                            ? uri.getSchemeSpecificPart().contains("@")
                            : uri.getHost() != null);
        } catch (URISyntaxException _) {
            return false;
        }
    }
}
