package pyrite.app.security;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;

@Controller
class SignInController {
    private final boolean demo;

    SignInController(@Value("${pyrite.demo}") boolean demo) {
        this.demo = demo;
    }

    @GetMapping("/sign-in")
    String signIn(Model page) {
        page.addAttribute("demo", demo);
        return "security/sign-in";
    }
}
