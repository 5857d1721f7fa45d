package pyrite.app.workspace;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpMethod;
import org.springframework.security.core.Authentication;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.ServletWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import pyrite.app.security.SignedIn;
import pyrite.app.store.Person;

/**
 * Supplies controllers with the branch named by an address, current or past ({@code ?at=12}), and with the signed-in
 * person.
 */
@Configuration
class WebSetup implements WebMvcConfigurer {
    private final Workspace workspace;

    WebSetup(Workspace workspace) {
        this.workspace = workspace;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new HeadOfAddress());
        resolvers.add(new SignedInPerson());
    }

    @Override
    public void addInterceptors(InterceptorRegistry interceptors) {
        interceptors.addInterceptor(new Turns());
    }

    private final class HeadOfAddress implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Workspace.Head.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                @Nullable ModelAndViewContainer container,
                NativeWebRequest request,
                @Nullable WebDataBinderFactory binders) {
            Map<?, ?> variables = (Map<?, ?>) Objects.requireNonNull(request.getAttribute(
                    HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE, RequestAttributes.SCOPE_REQUEST));
            Workspace.Head head = variables.containsKey("projectId")
                    ? workspace.head(uuid(text(variables, "projectId")), uuid(text(variables, "branchId")))
                    : workspace.head(text(variables, "project"), text(variables, "branch"));
            String at = request.getParameter("at");
            return at == null || !isRead(((ServletWebRequest) request).getHttpMethod())
                    ? head
                    : workspace.asOf(head, number(at));
        }

        private static boolean isRead(HttpMethod method) {
            return method.equals(HttpMethod.GET) || method.equals(HttpMethod.HEAD);
        }

        private static String text(Map<?, ?> variables, String name) {
            return (String) Objects.requireNonNull(variables.get(name));
        }

        private static UUID uuid(String text) {
            try {
                return UUID.fromString(text);
            } catch (IllegalArgumentException _) {
                throw new NotFound("'" + text + "' is no id of a project or branch; ids are UUIDs");
            }
        }

        private static int number(String at) {
            try {
                return Integer.parseInt(at);
            } catch (NumberFormatException _) {
                throw new NotFound("'" + at + "' is no number of a revision");
            }
        }
    }

    private static final class SignedInPerson implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Person.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                @Nullable ModelAndViewContainer container,
                NativeWebRequest request,
                @Nullable WebDataBinderFactory binders) {
            Authentication authentication = (Authentication) Objects.requireNonNull(request.getUserPrincipal());
            return ((SignedIn) Objects.requireNonNull(authentication.getPrincipal())).person();
        }
    }
}
