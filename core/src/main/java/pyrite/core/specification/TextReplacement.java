package pyrite.core.specification;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** Replaces a phrase in the texts of lines; upper and lower case differ. */
public record TextReplacement(Edit edit, String summary) {

    public static TextReplacement of(Model model, List<Element> lines, String find, String replace) {
        List<Element> put = new ArrayList<>();
        int places = 0;
        Pattern requested = Pattern.compile(Pattern.quote(find));
        for (Element line : lines) {
            Element carrier = line.kind() == ElementKind.COMMENT
                    ? line
                    : model.inheritance().documentationOf(line).orElse(null);
            if (carrier == null) {
                continue;
            }
            Matcher matcher = requested.matcher(carrier.get(Property.TEXT).orElse(""));
            int found = (int) matcher.results().count();
            if (found > 0) {
                places += found;
                put.add(carrier.with(Property.TEXT, matcher.replaceAll(Matcher.quoteReplacement(replace))));
            }
        }
        return new TextReplacement(
                new Edit(put, Set.of()),
                "'" + find + "' replaced by '" + replace + "' in " + places
                        + (places == 1 ? " place of " : " places of ") + put.size()
                        + (put.size() == 1 ? " line" : " lines"));
    }
}
