package pyrite.app;

import java.time.InstantSource;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import pyrite.app.start.Commands;

/** The server and what is done about its data from a terminal. */
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
