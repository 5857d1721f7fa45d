package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import pyrite.app.store.AttachmentStore;
import pyrite.app.store.AttachmentStore.Attachment;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.TextRules;
import pyrite.core.specification.ExternalReference;

/** External references of elements: addresses, and files that are kept with the project and downloaded again. */
@RestController
class ReferencesController {
    private static final long LARGEST = 10L << 20;

    private final Workspace workspace;
    private final AttachmentStore attachments;

    ReferencesController(Workspace workspace, AttachmentStore attachments) {
        this.workspace = workspace;
        this.attachments = attachments;
    }

    record Request(
            @NotNull @Size(max = 2000) String address,
            @NotNull @Size(max = 500) String description,
            boolean incoming,
            @PositiveOrZero int base) {}

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Let an element refer to an address; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/element/{id}/references", ApiAddress.BRANCH + "/elements/{id}/references"})
    ResponseEntity<Answer> refer(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Request requested) {
        return add(
                head,
                person,
                head.element(id),
                requested.address(),
                requested.description(),
                requested.incoming(),
                requested.base());
    }

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Attach a file to an element; takes an engineer")
    @PostMapping(
            path = {"/p/{project}/{branch}/element/{id}/attachments", ApiAddress.BRANCH + "/elements/{id}/attachments"},
            consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ResponseEntity<Answer> attach(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String description,
            @RequestParam(defaultValue = "true") boolean incoming,
            @RequestParam int base)
            throws IOException {
        Element element = head.element(id);
        if (file.isEmpty() || file.getSize() > LARGEST) {
            return Answer.unprocessable(
                    file.isEmpty()
                            ? "the file is empty"
                            : "a file has at most " + (LARGEST >> 20) + " MiB; this one has " + (file.getSize() >> 20));
        }
        String name = file.getOriginalFilename() == null
                ? "file"
                : file.getOriginalFilename().replaceAll(".*[/\\\\]", "");
        if (TextRules.firstForbidden(name).isPresent()) {
            return Answer.unprocessable("the file's name has a character that no text may hold; rename it");
        }
        Attachment attachment = attachments.add(head.branch(), person, name, file.getBytes());
        return add(
                head,
                person,
                element,
                ExternalReference.FILES + attachment.id(),
                description.isBlank() ? name : description,
                incoming,
                base);
    }

    private ResponseEntity<Answer> add(
            Workspace.Head head,
            Person person,
            Element element,
            String address,
            String description,
            boolean incoming,
            int base) {
        try {
            return Answer.of(
                    head,
                    workspace.commit(
                            head.branch(),
                            base,
                            ExternalReference.add(head.model(), element, address, description, incoming),
                            person,
                            new Labels(head.model()).full(element) + " refers to "
                                    + (description.isBlank() ? address : description)),
                    "nothing changed");
        } catch (IllegalArgumentException fault) {
            return Answer.unprocessable(fault);
        }
    }

    /** A file, to be saved and never shown, so that nothing in it runs here. */
    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "An attached file")
    @GetMapping({"/p/{project}/{branch}/attachments/{file}", ApiAddress.BRANCH + "/attachments/{file}"})
    ResponseEntity<byte[]> download(Workspace.Head head, @PathVariable UUID file) {
        Attachment found = find(head, file);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(found.name(), java.nio.charset.StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(found.content());
    }

    /** A picture, to stand in a text. */
    @GetMapping("/p/{project}/{branch}/pictures/{file}")
    ResponseEntity<byte[]> picture(Workspace.Head head, @PathVariable UUID file) {
        Attachment found = find(head, file);
        if (!found.isPicture()) {
            throw new NotFound("this file is no picture that pages show");
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(found.type()))
                .body(found.content());
    }

    private Attachment find(Workspace.Head head, UUID file) {
        return attachments
                .find(head.branch(), file)
                .orElseThrow(() -> new NotFound("there is no such file in this project"));
    }
}
