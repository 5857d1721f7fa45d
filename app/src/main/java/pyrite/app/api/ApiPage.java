package pyrite.app.api;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.UUIDSchema;
import io.swagger.v3.oas.models.parameters.PathParameter;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import java.util.regex.Pattern;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.store.Person;
import pyrite.app.workspace.Workspace;

/** The page that renders the API's OpenAPI description. */
@Controller
class ApiPage {
    @GetMapping("/api/docs")
    String docs(Person person, Model page) {
        page.addAttribute("person", person);
        return "api/docs";
    }

    @Configuration
    static class Description {
        private static final Pattern NAMED = Pattern.compile("\\{(\\w+)}");

        static {
            // Who is signed in follows from the token, the branch from the address; neither is a parameter beside them.
            SpringDocUtils.getConfig().addRequestWrapperToIgnore(Person.class, Workspace.Head.class);
        }

        @Bean
        OpenAPI description() {
            return new OpenAPI()
                    .info(new Info()
                            .title("Pyrite")
                            .version("1")
                            .description("Elements follow the Systems Modeling API (OMG) and its JSON."))
                    .components(new Components()
                            .addSecuritySchemes(
                                    "token",
                                    new SecurityScheme()
                                            .type(SecurityScheme.Type.HTTP)
                                            .scheme("bearer")))
                    .addSecurityItem(new SecurityRequirement().addList("token"));
        }

        /** The project and the branch of an address are parameters of it, though no method takes them one by one. */
        @Bean
        OpenApiCustomizer branchOfAddress() {
            return api -> api.getPaths()
                    .forEach((address, path) -> path.readOperations()
                            .forEach(operation -> NAMED.matcher(address)
                                    .results()
                                    .map(named -> named.group(1))
                                    .forEach(name -> describe(operation, name))));
        }

        private static void describe(Operation operation, String name) {
            boolean known = operation.getParameters() != null
                    && operation.getParameters().stream()
                            .anyMatch(each -> each.getName().equals(name));
            if (!known) {
                operation.addParametersItem(new PathParameter().name(name).schema(new UUIDSchema()));
            }
        }
    }
}
