package pyrite.app.security;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import pyrite.app.store.Person;

/** The administrator's pages: who may sign in and with which role, and the audit record. */
@Controller
class PeopleController {
    private static final int SHOWN = 300;
    private static final String BACK = "redirect:/people";

    private final People people;
    private final Audit audit;

    PeopleController(People people, Audit audit) {
        this.people = people;
        this.audit = audit;
    }

    @GetMapping("/people")
    String people(Person person, Model page) {
        page.addAttribute("person", person);
        page.addAttribute("people", people.all());
        page.addAttribute("roles", Person.Role.values());
        return "security/people";
    }

    @PostMapping("/people")
    String add(
            Person person,
            @RequestParam String signIn,
            @RequestParam String name,
            @RequestParam Person.Role role,
            RedirectAttributes redirect) {
        redirect.addFlashAttribute("secret", people.add(person, signIn, name, role));
        redirect.addFlashAttribute(
                "notice", signIn.strip() + " may sign in with this password; hand it on now, it is not shown again.");
        return BACK;
    }

    @PostMapping("/people/{signIn}/role")
    String role(Person person, @PathVariable String signIn, @RequestParam Person.Role role) {
        people.setRole(person, signIn, role);
        return BACK;
    }

    @PostMapping("/people/{signIn}/active")
    String active(Person person, @PathVariable String signIn, @RequestParam boolean active) {
        people.setActive(person, signIn, active);
        return BACK;
    }

    @PostMapping("/people/{signIn}/password")
    String password(Person person, @PathVariable String signIn, RedirectAttributes redirect) {
        redirect.addFlashAttribute("secret", people.resetPassword(person, signIn));
        redirect.addFlashAttribute(
                "notice", "The new password of " + signIn + "; hand it on now, it is not shown again.");
        return BACK;
    }

    @GetMapping("/audit")
    String audit(Person person, @RequestParam(defaultValue = "") String who, Model page) {
        page.addAttribute("person", person);
        page.addAttribute("who", who);
        page.addAttribute("entries", audit.newest(who, SHOWN));
        return "security/audit";
    }

    @ExceptionHandler(People.Refused.class)
    String refused(People.Refused refused, RedirectAttributes redirect) {
        redirect.addFlashAttribute("refused", refused.getMessage());
        return BACK;
    }
}
