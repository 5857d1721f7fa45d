package pyrite.app.licences;

import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.store.Person;

/** The page of licences. */
@Controller
class LicencesController {
    private final Licences licences = Licences.read();

    LicencesController() throws IOException {}

    @GetMapping("/licences")
    String show(Person person, Model page) {
        page.addAttribute("person", person);
        page.addAttribute("licences", licences);
        return "licences/list";
    }
}
