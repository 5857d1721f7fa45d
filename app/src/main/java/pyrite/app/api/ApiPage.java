package pyrite.app.api;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.store.Person;

/** The page that shows what the API's OpenAPI description says. */
@Controller
class ApiPage {
    @GetMapping("/api/docs")
    String docs(Person person, Model page) {
        page.addAttribute("person", person);
        return "api/docs";
    }

    @Configuration
    static class Description {
        static {
            // Who is signed in follows from the token and is nothing that a request could say.
            SpringDocUtils.getConfig().addRequestWrapperToIgnore(Person.class);
        }

        @Bean
        OpenAPI description() {
            return new OpenAPI().info(new Info().title("Pyrite").version("1").description("Elements follow the Systems Modeling API (OMG) and its JSON."))
                    .components(new Components().addSecuritySchemes("token", new SecurityScheme().type(SecurityScheme.Type.HTTP).scheme("bearer")))
                    .addSecurityItem(new SecurityRequirement().addList("token"));
        }
    }
}
