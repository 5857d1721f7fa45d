package pyrite.app;

import java.time.InstantSource;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import pyrite.app.start.Commands;

/** The entry point of the server and of the commands that maintain its data. */
@SpringBootApplication
public class Pyrite {

    @Bean
    InstantSource clock() {
        return InstantSource.system();
    }

    public static void main(String[] arguments) {
        int exit = Commands.execute(arguments);
        if (exit != 0) {
            System.exit(exit);
        }
    }
}
