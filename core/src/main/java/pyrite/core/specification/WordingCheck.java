package pyrite.core.specification;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import pyrite.core.expression.Span;

/**
 * Checks the wording of a requirement after ISO/IEC/IEEE 29148:2018, 5.2.4 to 5.2.7, and good practice. A finding is a
 * question to the author, not a fault; it can be waived with a reason.
 */
public final class WordingCheck {
    private static final int WORDS_TO_A_NUMBER = 6;
    /** A value before a comparison is looked for in so many characters. */
    private static final int LONGEST_VALUE = 120;

    private static final int WORDS_FROM_A_NUMBER = 3;
    private static final Pattern SHALL = words("shall");
    private static final Pattern PASSIVE = Pattern.compile(
            "\\bshall(?: not)? be (?:\\w+ly )?(?!(?:open|even)\\b)(\\w+(?:ed|en|wn|lt|pt|ght|ut|ung|own|one|"
                    + "old|ept|ade|eld))\\b(?!(?:\\W+\\w+){0,4}?\\W+by (?!\\d))",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern COMPARISON = Pattern.compile(
            "\\b(within|no more than|not more than|less than|more than|at least|at most|no less than|"
                    + "faster than|slower than|below|above|exceed)\\b",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern NUMBER = Pattern.compile("(?<![\\w.-])\\d+(?:[.,]\\d+)?(?![\\w])");
    private static final Pattern NUMERAL = Pattern.compile(
            "\\d|\\b(?:a|one|two|three|four|five|six|seven|eight|nine|ten|half|third|quarter|fifth|tenth|each)\\b",
            Pattern.CASE_INSENSITIVE);
    /** A value that stands before what compares with it: 7.3 m high at least, a tenth below. */
    private static final Pattern VALUE_AHEAD = Pattern.compile(
            "(?:\\d|\\b(?:one|two|three|four|five|six|seven|eight|nine|ten|half|third|quarter|fifth|tenth)\\b)\\S*(?:\\s+\\S+){0,"
                    + (WORDS_FROM_A_NUMBER - 1) + "}\\s+$",
            Pattern.CASE_INSENSITIVE);

    private static final Pattern WITHOUT_UNIT = Pattern.compile(
            "\\s*(?:$|[.,;)]|(?:of|after|before|in|on|at|from|when|while|if|and|or|the|until|unless|per)\\b)",
            Pattern.CASE_INSENSITIVE);

    private WordingCheck() {}

    /** The rules. */
    public enum Rule {
        SEVERAL(
                "several",
                "more than one 'shall': each requirement says one thing, so that it can be traced and judged alone"),
        NO_SHALL("no-shall", "no 'shall': the word tells what is required from what is explained"),
        VAGUE("vague", "can be read in more than one way; say what can be measured or seen"),
        UNBOUNDED("unbounded", "has no end; name what is meant"),
        ESCAPE("escape", "leaves open whether it must be met; say under which condition"),
        PRONOUN("pronoun", "leaves open what is meant; repeat the noun"),
        AND_OR("and-or", "'and/or' means both and either; choose one, or write two requirements"),
        PASSIVE("passive", "does not say who or what does it; name the actor"),
        NO_VALUE("no-value", "compares with no value; say how much"),
        NO_UNIT("no-unit", "a number without a unit; say of what");

        private final String key;
        private final String why;

        Rule(String key, String why) {
            this.key = key;
            this.why = why;
        }

        /** As it stands in waivers. */
        public String key() {
            return key;
        }

        public String why() {
            return why;
        }
    }

    /** Words that a rule questions, with their place in the text. */
    public record Finding(Rule rule, Span span, String words) {}

    /** A rule that finds words of a list. */
    private record Listed(Rule rule, Pattern pattern) {}

    private static final Pattern BEHIND = Pattern.compile("(?:\\s+\\S+){1," + WORDS_TO_A_NUMBER + "}");

    private static final List<Listed> LISTED = List.of(
            new Listed(
                    Rule.VAGUE,
                    words(
                            "adequate",
                            "adequately",
                            "appropriate",
                            "appropriately",
                            "easy",
                            "easily",
                            "fast",
                            "quick",
                            "quickly",
                            "slow",
                            "sufficient",
                            "sufficiently",
                            "enough",
                            "user-friendly",
                            "flexible",
                            "robust",
                            "reliable",
                            "safe",
                            "safely",
                            "normal",
                            "typical",
                            "suitable",
                            "reasonable",
                            "acceptable",
                            "significant",
                            "minimal",
                            "maximize",
                            "minimize",
                            "optimize",
                            "optimal",
                            "efficient",
                            "efficiently",
                            "good",
                            "better",
                            "best",
                            "several",
                            "some",
                            "many",
                            "few",
                            "large",
                            "small",
                            "approximately",
                            "about",
                            "almost",
                            "as soon as possible",
                            "as little as possible",
                            "state of the art",
                            "modern",
                            "clear",
                            "clearly",
                            "smooth",
                            "smoothly",
                            "timely")),
            new Listed(
                    Rule.UNBOUNDED,
                    words(
                            "etc",
                            "and so on",
                            "including but not limited to",
                            "such as",
                            "for example",
                            "always",
                            "never",
                            "all",
                            "every",
                            "any",
                            "forever",
                            "unlimited")),
            new Listed(
                    Rule.ESCAPE,
                    words(
                            "if possible",
                            "where possible",
                            "when possible",
                            "if practicable",
                            "where practicable",
                            "as applicable",
                            "if applicable",
                            "as far as possible",
                            "as appropriate",
                            "if necessary",
                            "as required",
                            "as needed",
                            "should",
                            "may",
                            "can",
                            "could",
                            "ideally",
                            "preferably",
                            "generally",
                            "usually")),
            new Listed(Rule.ESCAPE, Pattern.compile("\\boften\\b(?! than)", Pattern.CASE_INSENSITIVE)),
            new Listed(Rule.PRONOUN, words("it", "they", "them", "this", "these", "those", "he", "she", "which one")),
            new Listed(Rule.AND_OR, Pattern.compile("\\band\\s*/\\s*or\\b", Pattern.CASE_INSENSITIVE)));

    private static Pattern words(String... words) {
        return Pattern.compile(
                "\\b(?:"
                        + String.join(
                                "|", List.of(words).stream().map(Pattern::quote).toList()) + ")\\b",
                Pattern.CASE_INSENSITIVE);
    }

    /**
     * What there is to ask about a text, in the order of the text.
     *
     * @param need whether it is a need, told in somebody's own words: of those only what makes them unclear is asked
     */
    public static List<Finding> of(String text, boolean need) {
        List<Finding> findings = new ArrayList<>();
        LISTED.forEach(listed ->
                listed.pattern().matcher(text).results().forEach(hit -> findings.add(finding(listed.rule(), hit))));
        if (need) {
            findings.removeIf(finding -> finding.rule() != Rule.AND_OR && finding.rule() != Rule.ESCAPE);
        } else if (!text.isBlank()) {
            shall(text, findings);
            PASSIVE.matcher(text).results().forEach(hit -> findings.add(finding(Rule.PASSIVE, hit)));
            values(text, findings);
        }
        findings.sort(Comparator.comparing(finding -> finding.span().start()));
        return findings;
    }

    private static Finding finding(Rule rule, MatchResult hit) {
        return new Finding(rule, new Span(hit.start(), hit.end()), hit.group());
    }

    private static void shall(String text, List<Finding> findings) {
        List<MatchResult> all = SHALL.matcher(text).results().toList();
        if (all.isEmpty()) {
            findings.add(new Finding(
                    Rule.NO_SHALL,
                    new Span(0, Math.min(text.length(), text.indexOf(' ') < 0 ? text.length() : text.indexOf(' '))),
                    ""));
        }
        all.stream().skip(1).forEach(hit -> findings.add(finding(Rule.SEVERAL, hit)));
    }

    /** A comparison has a value within a few words behind it, and a number that is compared with has a unit. */
    private static void values(String text, List<Finding> findings) {
        Matcher comparison = COMPARISON.matcher(text);
        while (comparison.find()) {
            String behind = behind(text, comparison.end());
            if (!NUMERAL.matcher(behind).find()) {
                if (VALUE_AHEAD.matcher(ahead(text, comparison.start())).find()) {
                    continue;
                }
                findings.add(
                        new Finding(Rule.NO_VALUE, new Span(comparison.start(), comparison.end()), comparison.group()));
                continue;
            }
            Matcher number = NUMBER.matcher(behind);
            if (number.find()
                    && WITHOUT_UNIT.matcher(behind.substring(number.end())).lookingAt()) {
                findings.add(new Finding(
                        Rule.NO_UNIT,
                        new Span(comparison.end() + number.start(), comparison.end() + number.end()),
                        number.group()));
            }
        }
    }

    private static String behind(String text, int from) {
        Matcher words = BEHIND.matcher(text).region(from, text.length());
        return words.lookingAt() ? words.group() : "";
    }

    /** The end of a text up to a place, as far as a value before a comparison reaches. */
    private static String ahead(String text, int to) {
        return text.substring(Math.max(0, to - LONGEST_VALUE), to);
    }

    /** Words for a rule by its key. */
    public static Rule rule(String key) {
        for (Rule rule : Rule.values()) {
            if (rule.key().equals(key.toLowerCase(Locale.ROOT))) {
                return rule;
            }
        }
        throw new IllegalArgumentException("there is no wording rule " + key);
    }
}
