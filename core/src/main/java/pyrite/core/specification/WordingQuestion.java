package pyrite.core.specification;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * What the wording check asks about a requirement: one question for each rule, however many places it found.
 *
 * @param words the places, each in quotes; empty if it is about the whole text
 * @param waived why it was waived; empty if it was not
 */
public record WordingQuestion(String rule, String words, String why, String waived) {

    public static List<WordingQuestion> of(Model model, Element requirement) {
        Map<String, String> waived = Waivers.of(model, requirement);
        Map<WordingCheck.Rule, Set<String>> places = new LinkedHashMap<>();
        WordingCheck.of(
                        RequirementText.of(model, requirement),
                        requirement.kind().isNeed())
                .forEach(finding -> places.computeIfAbsent(finding.rule(), _ -> new LinkedHashSet<>())
                        .add(finding.words()));
        return places.entrySet().stream()
                .map(entry -> new WordingQuestion(
                        entry.getKey().key(),
                        entry.getValue().stream()
                                .filter(words -> !words.isEmpty())
                                .map(words -> "“" + words + "”")
                                .collect(Collectors.joining(", ")),
                        entry.getKey().why(),
                        waived.getOrDefault(entry.getKey().key(), "")))
                .toList();
    }

    public boolean isWaived() {
        return !waived.isEmpty();
    }
}
