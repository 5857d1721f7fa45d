package pyrite.app;

import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.util.Comparator;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.MethodOrdererContext;

/** Of a test, or of all tests of a class, that needs the project as it was loaded. */
@Retention(RetentionPolicy.RUNTIME)
@interface NewProject {

    /** Those that can go on with what others left come first, so that as few projects as possible are loaded. */
    final class Last implements MethodOrderer {
        @Override
        public void orderMethods(MethodOrdererContext context) {
            context.getMethodDescriptors().sort(Comparator.comparing(test -> test.isAnnotated(NewProject.class)));
        }
    }
}
