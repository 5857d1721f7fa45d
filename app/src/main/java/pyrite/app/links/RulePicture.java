package pyrite.app.links;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.LinkRule;

/**
 * The rules as a grid: every end named by a rule is a row and a column, with the kinds that may lead from row to
 * column. Ends are ordered from the top level down.
 */
public record RulePicture(List<String> ends, Map<String, Map<String, List<LinkKind>>> cells) {

    static RulePicture of(List<LinkRule> rules, List<LinkKind> kinds) {
        Map<String, LinkKind> byKey = new LinkedHashMap<>();
        kinds.forEach(kind -> byKey.put(kind.key(), kind));
        Map<String, Map<String, List<LinkKind>>> cells = new LinkedHashMap<>();
        List<LinkRule> shown =
                rules.stream().filter(rule -> byKey.containsKey(rule.kind())).toList();
        for (LinkRule rule : shown) {
            for (String from : rule.from()) {
                for (String to : rule.to()) {
                    List<LinkKind> cell = cells.computeIfAbsent(from, _ -> new LinkedHashMap<>())
                            .computeIfAbsent(to, _ -> new ArrayList<>());
                    if (!cell.contains(byKey.get(rule.kind()))) {
                        cell.add(byKey.get(rule.kind()));
                    }
                }
            }
        }
        return new RulePicture(order(shown, byKey), cells);
    }

    private static boolean isUpward(LinkRule rule, Map<String, LinkKind> kinds) {
        LinkKind kind = kinds.get(rule.kind());
        return kind != null && kind.upward();
    }

    /** What links lead up to comes before what they lead from. */
    private static List<String> order(List<LinkRule> rules, Map<String, LinkKind> kinds) {
        Set<String> ends = new LinkedHashSet<>();
        rules.stream().filter(rule -> isUpward(rule, kinds)).forEach(rule -> ends.addAll(rule.to()));
        rules.forEach(rule -> ends.addAll(rule.to()));
        rules.forEach(rule -> ends.addAll(rule.from()));
        List<String> sorted = new ArrayList<>(ends);
        // Placed before the first end that has links up to it.
        for (int round = 0; round < sorted.size(); round++) {
            boolean moved = false;
            for (LinkRule rule : rules) {
                if (!isUpward(rule, kinds) || rule.kind().equals(LinkKind.TRACE.key())) {
                    continue;
                }
                for (String from : rule.from()) {
                    for (String to : rule.to()) {
                        if (!from.equals(to)
                                && !rule.from().contains(to)
                                && sorted.indexOf(from) < sorted.indexOf(to)) {
                            sorted.remove(from);
                            sorted.add(sorted.indexOf(to) + 1, from);
                            moved = true;
                        }
                    }
                }
            }
            if (!moved) {
                break;
            }
        }
        return sorted;
    }

    public List<LinkKind> at(String from, String to) {
        return cells.getOrDefault(from, Map.of()).getOrDefault(to, List.of());
    }
}
