package pyrite.app.store;

import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.stereotype.Repository;

/** Files kept with a project. The type of a file is determined by its first bytes, not its name. */
@Repository
public class AttachmentStore {
    /** Beginnings of picture formats that every browser shows and none runs. */
    private static final List<Picture> PICTURES = List.of(
            new Picture("image/png", new int[] {0x89, 'P', 'N', 'G'}),
            new Picture("image/jpeg", new int[] {0xFF, 0xD8, 0xFF}),
            new Picture("image/gif", new int[] {'G', 'I', 'F', '8'}));

    private static final String OTHER = "application/octet-stream";

    private final JdbcOperations jdbc;
    private final InstantSource clock;
    private final StoreGuard guard;

    AttachmentStore(JdbcOperations jdbc, InstantSource clock, StoreGuard guard) {
        this.guard = guard;
        this.jdbc = jdbc;
        this.clock = clock;
    }

    private record Picture(String type, int[] beginning) {
        boolean is(byte[] content) {
            for (int i = 0; i < beginning.length; i++) {
                if (content.length <= i || (content[i] & 0xFF) != beginning[i]) {
                    return false;
                }
            }
            return true;
        }
    }

    /** A file as uploaded. */
    public record Attachment(UUID id, String name, String type, byte[] content) {
        public boolean isPicture() {
            return type.startsWith("image/");
        }
    }

    /** @throws StoreGuard.NoRoom if the disk is full */
    public Attachment add(Branch branch, Person person, String name, byte[] content) {
        guard.requireRoom();
        String type = PICTURES.stream()
                .filter(picture -> picture.is(content))
                .map(Picture::type)
                .findFirst()
                .orElse(OTHER);
        Attachment made = new Attachment(
                UUID.randomUUID(), name.length() > 200 ? name.substring(name.length() - 200) : name, type, content);
        jdbc.update(
                "insert into attachment (id, branch_id, name, type, content, person_id, at) values (?, ?, ?, ?, ?, ?, ?)",
                made.id(),
                branch.id(),
                made.name(),
                type,
                content,
                person.id(),
                clock.instant().atOffset(ZoneOffset.UTC));
        return made;
    }

    public Optional<Attachment> find(Branch branch, UUID id) {
        return jdbc
                .query(
                        "select id, name, type, content from attachment where branch_id = ? and id = ?",
                        (row, _) -> new Attachment(
                                row.getObject(1, UUID.class), row.getString(2), row.getString(3), row.getBytes(4)),
                        branch.id(),
                        id)
                .stream()
                .findFirst();
    }
}
