package pyrite.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import javax.sql.DataSource;
import org.apache.ibatis.session.Configuration;
import org.apache.ibatis.session.SqlSessionFactory;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcConnectionPool;
import org.mybatis.spring.SqlSessionFactoryBean;
import org.mybatis.spring.SqlSessionTemplate;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DataSourceTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.util.FileSystemUtils;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchMapper;
import pyrite.app.store.BranchStore;
import pyrite.app.store.CheckpointMapper;
import pyrite.app.store.NumberMapper;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.store.RequirementNumbers;
import pyrite.app.store.UuidTypeHandler;
import pyrite.core.history.Revision;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * A branch of about 100,000 elements: loading it against reading the same rows by plain JDBC, and one durable edit with
 * its rules checked against a bare insert and commit of as many rows (goal 3).
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 6, time = 3)
@Measurement(iterations = 5, time = 3)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms3g", "-Xmn2g", "-Xss4m"})
public class Store {
    private Path folder;
    private DataSource source;
    private BranchStore store;
    private TransactionTemplate transaction;
    private Person person;
    private Branch branch;
    /** Holds the same elements, and has no checkpoint. */
    private Branch rowsOnly;

    private Branch bare;
    private Model model;
    private Element edited;
    private int number = 1;

    @Setup
    public void open() throws Exception {
        folder = Files.createTempDirectory("pyrite-bench");
        source = JdbcConnectionPool.create("jdbc:h2:file:" + folder.resolve("pyrite") + ";WRITE_DELAY=0", "sa", "");
        Flyway.configure().dataSource(source).load().migrate();
        SqlSessionTemplate session = new SqlSessionTemplate(sessions());
        store = new BranchStore(
                session.getMapper(BranchMapper.class),
                session.getMapper(CheckpointMapper.class),
                new JdbcTemplate(source),
                new RequirementNumbers(session.getMapper(NumberMapper.class)));
        transaction = new TransactionTemplate(new DataSourceTransactionManager(source));
        PersonMapper persons = session.getMapper(PersonMapper.class);
        persons.add("bench", "Bench", "-", Person.Role.ENGINEER);
        person = persons.bySignIn("bench").orElseThrow();
        branch = store.create("bench", "Bench", "main", "main");
        rowsOnly = store.create("rows", "Rows", "main", "main");
        model = NotationReader.read(Library.model(), List.of(new Source("bench", Texts.packages(500))))
                .model();
        Edit everything = new Edit(model.ownElements(), Set.of());
        commit(rowsOnly, 1, everything, Library.model());
        model = commit(branch, number++, everything, Library.model());
        store.checkpoint(branch, number - 1, model);
        edited = model.ownElements().stream()
                .filter(e -> e.kind() == ElementKind.PART)
                .findFirst()
                .orElseThrow();
        bare = store.create("bare", "Bare", "main", "main");
    }

    private SqlSessionFactory sessions() throws Exception {
        Configuration configuration = new Configuration();
        configuration.setMapUnderscoreToCamelCase(true);
        configuration.setArgNameBasedConstructorAutoMapping(true);
        configuration.getTypeHandlerRegistry().register(UUID.class, UuidTypeHandler.class);
        SqlSessionFactoryBean factory = new SqlSessionFactoryBean();
        factory.setDataSource(source);
        factory.setConfiguration(configuration);
        SqlSessionFactory made = factory.getObject();
        made.getConfiguration().addMapper(BranchMapper.class);
        made.getConfiguration().addMapper(CheckpointMapper.class);
        made.getConfiguration().addMapper(NumberMapper.class);
        made.getConfiguration().addMapper(PersonMapper.class);
        return made;
    }

    private Model commit(Branch into, int revisionNumber, Edit edit, Model on) {
        if (!(on.apply(edit) instanceof EditResult.Applied(Model next, Difference difference))) {
            throw new IllegalStateException("the edit is refused");
        }
        Revision revision = new Revision(revisionNumber, "bench", Instant.now(), "measured", Revision.Act.EDIT, 0);
        transaction.executeWithoutResult(_ -> store.commit(into, person, revision, difference));
        return next;
    }

    @TearDown
    public void close() throws IOException {
        ((JdbcConnectionPool) source).dispose();
        FileSystemUtils.deleteRecursively(folder);
    }

    /** From a checkpoint, as the application has it of each large branch. */
    @Benchmark
    public int loading() {
        return store.load(branch).size();
    }

    /**
     * As before there is a checkpoint: once after data of an older version, or after a kill right behind a large
     * import.
     */
    @Benchmark
    public int loadingRows() {
        return store.load(rowsOnly).size();
    }

    @Benchmark
    public long plainRows() throws SQLException {
        long characters = 0;
        try (Connection connection = source.getConnection();
                PreparedStatement statement = connection.prepareStatement(
                        "select element_id, content from element_version where branch_id = ? and to_number is null")) {
            statement.setLong(1, branch.id());
            try (ResultSet rows = statement.executeQuery()) {
                while (rows.next()) {
                    characters += rows.getObject(1, UUID.class).version()
                            + rows.getString(2).length();
                }
            }
        }
        return characters;
    }

    @Benchmark
    public int committing() {
        model = commit(branch, number++, Edit.put(edited.withName("renamed" + number)), model);
        return number;
    }

    /** The part of committing that is no storing. */
    @Benchmark
    public EditResult applying() {
        return model.apply(Edit.put(edited.withName("other" + number++)));
    }

    /** The two rows a commit adds, into the same tables. */
    @Benchmark
    public void bareInsert() throws SQLException {
        try (Connection connection = source.getConnection()) {
            connection.setAutoCommit(false);
            try (PreparedStatement revision = connection.prepareStatement(
                            "insert into revision (branch_id, number, person_id, at, summary, act, of_number) "
                                    + "values (?, ?, ?, ?, 'measured', 'EDIT', 0)");
                    PreparedStatement row = connection.prepareStatement(
                            "insert into element_version (branch_id, element_id, from_number, content) values (?, ?, ?, ?)")) {
                revision.setLong(1, bare.id());
                revision.setInt(2, number);
                revision.setLong(3, person.id());
                revision.setObject(4, Instant.now());
                revision.executeUpdate();
                row.setLong(1, bare.id());
                row.setObject(2, edited.id().value());
                row.setInt(3, number++);
                row.setString(
                        4,
                        "{\"kind\":\"PART\",\"rank\":\"i\",\"owner\":\"" + edited.owner() + "\",\"name\":\"d" + number
                                + "\"}");
                row.executeUpdate();
            }
            connection.commit();
        }
    }
}
