package pyrite.app.security;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import pyrite.app.store.Person;

/** The account page: a person's own password and the tokens of their scripts. */
@Controller
class AccountController {
    private static final String BACK = "redirect:/account";

    private final People people;
    private final Tokens tokens;

    AccountController(People people, Tokens tokens) {
        this.people = people;
        this.tokens = tokens;
    }

    @GetMapping("/account")
    String account(Person person, Model page) {
        page.addAttribute("person", person);
        page.addAttribute("tokens", tokens.of(person));
        return "security/account";
    }

    @PostMapping("/account/password")
    String password(
            Person person,
            @RequestParam String old,
            @RequestParam String replacement,
            HttpServletRequest request,
            RedirectAttributes redirect) {
        people.changePassword(person, old, replacement, request.getSession().getId());
        redirect.addFlashAttribute("notice", "Your password is changed; other sessions of yours have ended.");
        return BACK;
    }

    @PostMapping("/account/tokens")
    String makeToken(Person person, @RequestParam String name, @RequestParam int days, RedirectAttributes redirect) {
        redirect.addFlashAttribute("secret", tokens.make(person, name, days));
        redirect.addFlashAttribute("notice", "Keep this token now; it is not shown again.");
        return BACK;
    }

    @PostMapping("/account/tokens/{id}/remove")
    String removeToken(Person person, @PathVariable long id) {
        tokens.remove(person, id);
        return BACK;
    }

    @ExceptionHandler(People.Refused.class)
    String refused(People.Refused refused, RedirectAttributes redirect) {
        redirect.addFlashAttribute("refused", refused.getMessage());
        return BACK;
    }
}
