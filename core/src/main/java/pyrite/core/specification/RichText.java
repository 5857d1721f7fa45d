package pyrite.core.specification;

import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.Block;
import org.commonmark.node.BlockQuote;
import org.commonmark.node.Image;
import org.commonmark.node.Link;
import org.commonmark.node.ListBlock;
import org.commonmark.node.Node;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;
import org.commonmark.renderer.html.HtmlRenderer;

/**
 * Renders requirement texts, written in CommonMark, as HTML: emphasis, lists, tables, and pictures that the project
 * keeps. HTML in the text is shown as text and never becomes part of the page.
 */
public final class RichText {
    /**
     * What the address of a picture begins with that is a file of the project; an image from anywhere else is shown as
     * its description.
     */
    private static final String PICTURES = ExternalReference.FILES;

    private static final List<TablesExtension> TABLES = List.of((TablesExtension) TablesExtension.create());
    private static final Set<Class<? extends Block>> BLOCKS = Set.of(ListBlock.class, BlockQuote.class);
    private static final Parser PARSER =
            Parser.builder().extensions(TABLES).enabledBlockTypes(BLOCKS).build();
    private static final Parser WITHOUT_TABLES =
            Parser.builder().enabledBlockTypes(BLOCKS).build();
    /** A line under the heading of a table, which says by its dashes how many columns there are. */
    private static final Pattern COLUMNS = Pattern.compile("[ \\t]{0,3}[-:|][-:| \\t]*");
    /** Every row of a table is filled to its number of columns, so that few signs may ask for millions of cells. */
    private static final long MOST_CELLS = 20_000;

    private static final HtmlRenderer RENDERER = HtmlRenderer.builder()
            .extensions(TABLES)
            .escapeHtml(true)
            .sanitizeUrls(true)
            .softbreak("<br>\n")
            .build();

    private RichText() {}

    /** @param project the address of the project, where its pictures are found */
    public static String html(String text, String project) {
        Node document = (cells(text) > MOST_CELLS ? WITHOUT_TABLES : PARSER).parse(text);
        document.accept(new WithoutStrangers(project));
        return RENDERER.render(document);
    }

    /** So many cells there may be at most in the tables of a text. */
    private static long cells(String text) {
        long columns = text.lines()
                .filter(line -> COLUMNS.matcher(line).matches())
                .mapToLong(line -> line.chars().filter(sign -> sign == '|').count() + 1)
                .max()
                .orElse(0);
        return columns * text.lines().count();
    }

    /**
     * Removes external pictures, which would tell their server who reads the text, and links, which nobody could trace.
     */
    private static final class WithoutStrangers extends AbstractVisitor {
        private final String project;

        WithoutStrangers(String project) {
            this.project = project;
        }

        @Override
        public void visit(Image image) {
            visitChildren(image);
            if (image.getDestination().matches(PICTURES + "[0-9a-f-]{36}")) {
                image.setDestination(
                        project + "/pictures/" + image.getDestination().substring(PICTURES.length()));
            } else {
                unwrap(image);
            }
        }

        @Override
        public void visit(Link link) {
            visitChildren(link);
            if (!SafeAddress.isAllowed(link.getDestination())) {
                unwrap(link);
            }
        }

        private static void unwrap(Node node) {
            Node child = node.getFirstChild();
            if (child == null) {
                node.insertBefore(new Text(""));
            }
            while (child != null) {
                Node next = child.getNext();
                node.insertBefore(child);
                child = next;
            }
            node.unlink();
        }
    }
}
